import { distanceM, flat, nearestOnSegment } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'

export interface Snap {
  readonly point: Point
  readonly to: 'node' | 'run' | 'wood' | 'free'
}

/**
 * Pulls a drawn point onto the nearest node, else the nearest run, else the nearest wood within `reachM`;
 * else leaves it.
 */
export function snapPoint(
  p: Point,
  near: {
    readonly nodes: readonly Point[]
    readonly runs: readonly (readonly [Point, Point])[]
    readonly wood: readonly (readonly Point[])[]
  },
  reachM: number,
): Snap {
  const node = nearestOf(near.nodes, p)
  if (node && distanceM(node, p) <= reachM) return { point: flat(node), to: 'node' }
  const onRun = nearestOf(
    near.runs.map(([a, b]) => nearestOnSegment(p, a, b).point),
    p,
  )
  if (onRun && distanceM(onRun, p) <= reachM) return { point: onRun, to: 'run' }
  const segments = near.wood.flatMap((line) =>
    line.slice(1).map((b, i) => nearestOnSegment(p, line[i]!, b).point),
  )
  const onWood = nearestOf(segments, p)
  if (onWood && distanceM(onWood, p) <= reachM) return { point: onWood, to: 'wood' }
  return { point: p, to: 'free' }
}

function nearestOf(points: readonly Point[], p: Point): Point | undefined {
  let best: Point | undefined
  let bestM = Infinity
  for (const q of points) {
    const gap = distanceM(p, q)
    if (gap < bestM) {
      best = q
      bestM = gap
    }
  }
  return best
}
