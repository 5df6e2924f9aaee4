import type { PlacePhoto } from '@klados/contract'
import { CoreError } from '@klados/core/errors'
import { photoMap } from '@klados/core/geometry'
import type { MarkedPoint, PhotoMap } from '@klados/core/geometry'
import { useMemo } from 'react'
import { usePhotoUrl } from '../data/photo-url.ts'
import type { View } from './view.ts'

type FourMarks = readonly [MarkedPoint, MarkedPoint, MarkedPoint, MarkedPoint]

/**
 * Triangles a side in which the photo is laid on the wall: between them the error of perspective is under a
 * pixel.
 */
const PATCHES = 12

export function mapOf(marks: FourMarks): PhotoMap | null {
  try {
    return photoMap(marks)
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

interface PhotoUnderlayProps {
  readonly gardenId: string
  readonly photo: PlacePhoto
  readonly view: View
}

/**
 * The photo straightened onto the wall. SVG has no perspective, so the picture is cut into small triangles,
 * each moved by the one affine map that carries its corners.
 */
export function PhotoUnderlay({ gardenId, photo, view }: PhotoUnderlayProps) {
  const map = useMemo(() => mapOf(photo.marks), [photo])
  const href = usePhotoUrl(gardenId, photo.fileId)
  if (!map) return null
  const { widthPx, heightPx } = photo
  const corner = (i: number, j: number) => ({ xPx: (i * widthPx) / PATCHES, yPx: (j * heightPx) / PATCHES })
  const patches = Array.from(
    { length: PATCHES * PATCHES },
    (_, n) => [n % PATCHES, Math.floor(n / PATCHES)] as const,
  )
  return (
    <g aria-hidden="true" opacity={0.75} pointerEvents="none">
      {patches.flatMap(([i, j]) => {
        const [a, b, c, d] = [corner(i, j), corner(i + 1, j), corner(i + 1, j + 1), corner(i, j + 1)]
        return [
          [a, b, c],
          [a, c, d],
        ].map((triangle, half) => {
          // What lies beyond the photo's horizon is not on the wall.
          if (!triangle.every(map.shows)) return null
          const to = triangle.map((p) => {
            const at = map.toWall(p)
            return [view.x(at.xM), view.y(at.yM)] as const
          })
          if (to.every(([x, y]) => x < -200 || x > view.widthPx + 200 || y < -200 || y > view.heightPx + 200))
            return null
          const id = `photo-${i}-${j}-${half}`
          return (
            <g key={id}>
              <clipPath id={id}>
                <polygon
                  points={grown(to)
                    .map((p) => p.join(','))
                    .join(' ')}
                />
              </clipPath>
              <g clipPath={`url(#${id})`}>
                <image
                  href={href}
                  width={widthPx}
                  height={heightPx}
                  transform={affine(
                    triangle.map((p) => [p.xPx, p.yPx] as const),
                    to,
                  )}
                />
              </g>
            </g>
          )
        })
      })}
    </g>
  )
}

type Pair = readonly [number, number]

/** Half a pixel larger all round, so that no seams show between neighbours. */
function grown(points: readonly Pair[]): Pair[] {
  const cx = points.reduce((sum, p) => sum + p[0], 0) / points.length
  const cy = points.reduce((sum, p) => sum + p[1], 0) / points.length
  return points.map(([x, y]) => [x + Math.sign(x - cx) * 0.6, y + Math.sign(y - cy) * 0.6])
}

/** The affine map that carries three points to three others, as an SVG transform. */
function affine(from: readonly Pair[], to: readonly Pair[]): string {
  const [[x0, y0], [x1, y1], [x2, y2]] = from as [Pair, Pair, Pair]
  const det = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
  const solve = (v0: number, v1: number, v2: number) => {
    const p = ((v1 - v0) * (y2 - y0) - (v2 - v0) * (y1 - y0)) / det
    const q = ((v2 - v0) * (x1 - x0) - (v1 - v0) * (x2 - x0)) / det
    return [p, q, v0 - p * x0 - q * y0] as const
  }
  const [a, c, e] = solve(to[0]![0], to[1]![0], to[2]![0])
  const [b, d, f] = solve(to[0]![1], to[1]![1], to[2]![1])
  return `matrix(${a} ${b} ${c} ${d} ${e} ${f})`
}
