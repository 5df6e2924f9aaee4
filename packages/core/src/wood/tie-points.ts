import { distanceM, flat, nearestAlong, segmentCrossing } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'

/** A stem running along a wire meets it at every sample; ties nearer together than this are one. */
const SAME_PLACE_M = 0.02
/** How near a line must pass a node to be tied to it. */
const NODE_REACH_M = 0.03

/**
 * Where a stem can be tied: at frame nodes that its line passes, where it crosses a run, and at its own
 * corners that lie on a run; in order along the stem. The last 2 % before the tip is left free, since soft
 * tips are never tied.
 */
export function tiePoints(
  stem: readonly Point[],
  frame: { readonly nodes: readonly Point[]; readonly runs: readonly (readonly [Point, Point])[] },
): { readonly at: Point; readonly alongM: number }[] {
  const total = stem.slice(1).reduce((sum, p, i) => sum + distanceM(stem[i]!, p), 0)
  const found: { at: Point; alongM: number }[] = []
  const add = (at: Point, reachM: number) => {
    const near = nearestAlong(stem, at)
    if (near.distanceM > reachM || near.alongM > total * 0.98 || near.alongM < 1e-6) return
    if (found.some((other) => distanceM(other.at, at) < SAME_PLACE_M)) return
    found.push({ at, alongM: near.alongM })
  }
  for (const node of frame.nodes) add(flat(node), NODE_REACH_M)
  for (const [a, b] of frame.runs) {
    for (let i = 1; i < stem.length; i++) {
      const crossing = segmentCrossing(stem[i - 1]!, stem[i]!, a, b)
      if (crossing) add(crossing.point, SAME_PLACE_M)
    }
  }
  return found.sort((p, q) => p.alongM - q.alongM)
}
