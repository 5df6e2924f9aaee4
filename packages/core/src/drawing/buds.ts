import { requireRange } from '../errors/index.ts'
import { distanceM, lerp, requirePoint } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Bud } from './display-list.ts'

/** How far a bud leans from the line of its cane. */
const BUD_LEAN = Math.PI / 4

/** Wood with buds nearer together than this, or farther apart, there is none. */
const LEAST_INTERNODE_M = 1e-3
const MOST_INTERNODE_M = 10

/**
 * Buds at the kind's internode length, alternating sides, pointing to the tip; none right at the base. Throws
 * `core/*`.
 */
export function budsAlong(points: readonly Point[], internodeM: number): Bud[] {
  points.forEach(requirePoint)
  const buds: Bud[] = []
  let next = requireRange('internodeM', internodeM, LEAST_INTERNODE_M, MOST_INTERNODE_M)
  let run = 0
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!]
    const step = distanceM(a, b)
    const heading = Math.atan2(b.yM - a.yM, b.xM - a.xM)
    while (next <= run + step && step > 0) {
      const side = buds.length % 2 === 0 ? 1 : -1
      buds.push({ at: lerp(a, b, (next - run) / step), angle: heading + side * BUD_LEAN })
      next += internodeM
    }
    run += step
  }
  return buds
}
