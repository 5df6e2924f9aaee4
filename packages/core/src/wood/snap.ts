import { distanceM, flat, nearestOnSegment, simplified } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'

export interface Snap {
  readonly point: Point
  readonly to: 'node' | 'run' | 'wood' | 'free'
}

export interface SnapMarks {
  readonly nodes: readonly Point[]
  readonly runs: readonly (readonly [Point, Point])[]
  readonly wood: readonly (readonly Point[])[]
}

/** What a hand drew at one go, on what it is near to and with the shake left out. Throws `core/*`. */
export function tracedLine(points: readonly Point[], near: SnapMarks, reachM: number): Point[] {
  // Near a wire all of it lies on the wire: what shook is straight before corners are looked for.
  return simplified(
    points.map((p) => snapPoint(p, near, reachM).point),
    reachM * SHAKE_SHARE,
  )
}
/** A hand shakes by less than what it means by near. */
const SHAKE_SHARE = 0.6

/**
 * Pulls a drawn point onto the nearest node, else the nearest run, else the nearest wood within `reachM`;
 * else leaves it.
 */
export function snapPoint(p: Point, near: SnapMarks, reachM: number): Snap {
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
