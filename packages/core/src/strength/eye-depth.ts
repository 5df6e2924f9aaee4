import { holdsBy } from '../catalogue/index.ts'
import type { Fixing } from '../catalogue/index.ts'
import { standOffOf } from '../design/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import type { FrameNode } from '../frame/index.ts'
import { isOnRail } from './on-rail.ts'

/** Deeper than this a hole comes out at the back of a wall one brick thick, or of the outer leaf of a cavity; millimetres. */
export const BRICK_MM = 85

/** How an eye sits: how much of it is in what holds it, and how far off the wire then runs. */
export interface EyeDepth {
  /** In sound material, millimetres; `null` for a fence that nobody has looked at. */
  readonly inMm: number | null
  readonly standOffM: number
}

/**
 * An eye goes in as far as its stand-off leaves it, and no deeper than there is material behind the face: board and rail of
 * a fence, a brick of a wall. What does not go in stands off the more.
 */
export function eyeDepth(
  site: PlannedSite,
  design: Pick<FrameDesign, 'standOffM'>,
  fixing: Fixing,
  node: FrameNode,
): EyeDepth {
  const wantedMm = Math.max(0, fixing.lengthMm - standOffOf(design, fixing) * 1000)
  const behindMm = materialMm(site, node)
  if (behindMm === null) return { inMm: null, standOffM: standOffOf(design, fixing) }
  const inMm = Math.min(wantedMm, behindMm)
  return { inMm, standOffM: (fixing.lengthMm - inMm) / 1000 }
}

function materialMm(site: PlannedSite, node: FrameNode): number | null {
  if (site.surface === 'boards') {
    const { boardMm = null, railDepthMm = null } = site.fence ?? {}
    return boardMm === null ? null : boardMm + (isOnRail(site, node) ? (railDepthMm ?? 0) : 0)
  }
  return holdsBy(site.surface) === 'plug' ? BRICK_MM : Infinity
}
