import type { Point } from '@klados/core/geometry'
import type { View } from '../../elevation/view.ts'

/** Wood that is about to be put there, as a faint line. */
export function ExpectedWood({ view, paths }: { view: View; paths: readonly (readonly Point[])[] }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {paths.map((path, i) => (
        <polyline
          key={i}
          className="draw-expected"
          points={path.map((p) => `${view.x(p.xM)},${view.y(p.yM)}`).join(' ')}
        />
      ))}
    </g>
  )
}

/** A piece while its points are set. */
export function PieceBeingDrawn({ view, points }: { view: View; points: readonly Point[] }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      <polyline
        className="draw-wire-chosen"
        strokeDasharray="7 4"
        points={points.map((p) => `${view.x(p.xM)},${view.y(p.yM)}`).join(' ')}
      />
      {points.map((p, i) => (
        <circle key={i} className="draw-chosen-halo" cx={view.x(p.xM)} cy={view.y(p.yM)} r={5} />
      ))}
    </g>
  )
}
