import type { DeepPoint, Look } from '@klados/core/geometry'
import { useTranslation } from '../../i18n/use-translation.tsx'
import type { View } from '../../elevation/view.ts'
import { onSheet, pathData } from './looks.ts'

interface SeenFrom {
  readonly view: View
  readonly look: Look
}

/** Wood that is about to be put there, as a faint line. */
export function ExpectedWood({
  view,
  look,
  paths,
}: SeenFrom & { readonly paths: readonly (readonly DeepPoint[])[] }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {paths.map((path, i) => (
        <path key={i} className="draw-expected" d={pathData(path, view, look)} />
      ))}
    </g>
  )
}

/** A piece while its points are set. */
export function PieceBeingDrawn({
  view,
  look,
  points,
}: SeenFrom & { readonly points: readonly DeepPoint[] }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      <path
        className="draw-wire-chosen"
        strokeDasharray="7 4"
        d={points.length > 1 ? pathData(points, view, look) : ''}
      />
      {points.map((p, i) => {
        const [x, y] = onSheet(p, view, look)
        return <circle key={i} className="draw-chosen-halo" cx={x} cy={y} r={5} />
      })}
    </g>
  )
}

/** Which side of what is unrolled is which: the front in the middle, the back at both edges. */
export function SidesOfSheet({ view, look }: SeenFrom) {
  const { t } = useTranslation()
  if (look.from !== 'unrolled') return null
  const { xM, radiusM } = look.round
  const y = view.y(0) + 14
  const sides = [
    { at: xM - Math.PI * radiusM, words: t('wood.unrolledBack') },
    { at: xM, words: t('wood.unrolledFront') },
    { at: xM + Math.PI * radiusM, words: t('wood.unrolledBack') },
  ]
  return (
    <g pointerEvents="none">
      {sides.map(({ at, words }) => (
        <text key={at} className="draw-label draw-halo-ground" x={view.x(at)} y={y} textAnchor="middle">
          {words}
        </text>
      ))}
    </g>
  )
}
