import { useMemo, useRef } from 'react'
import { boundsOf, Face, fittingHeightPx, useSteady } from './Face.tsx'
import type { FaceProps } from './Face.tsx'
import { useSize } from './use-size.ts'
import { FITTED, makeView } from './view.ts'

interface StillElevationProps extends FaceProps {
  readonly label: string
  /** Tallest that it may get; the drawing is as wide as its room. */
  readonly maxHeight?: string
}

/** The one drawing as a picture: nothing to move, nothing to press. */
export function StillElevation({ label, maxHeight, ...face }: StillElevationProps) {
  const svg = useRef<SVGSVGElement>(null)
  const size = useSize(svg)
  const { wall, list, from } = face
  const bounds = useSteady(useMemo(() => boundsOf(wall, list, from), [wall, list, from]))
  const view = useMemo(() => makeView(bounds, size.width, size.height, FITTED), [bounds, size])
  return (
    <svg
      ref={svg}
      role="img"
      aria-label={label}
      className="block w-full"
      style={{ height: fittingHeightPx(bounds, size.width), maxHeight: maxHeight ?? 'min(420px, 60vh)' }}
    >
      {size.isSettled && <Face {...face} view={view} bounds={bounds} />}
    </svg>
  )
}
