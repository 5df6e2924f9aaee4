import type { DeepPoint, Look } from '@klados/core/geometry'
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
