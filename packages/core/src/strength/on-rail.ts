import type { PlannedSite } from '../design/index.ts'
import type { FrameNode } from '../frame/index.ts'

/** A fixing this near to the middle of a rail goes into it. */
const ON_RAIL_M = 0.03

/** Whether a fixing sits on one of the level lines of its place: the rails, of a fence. */
export function isOnRail({ levels }: PlannedSite, { at }: FrameNode): boolean {
  if (!levels) return false
  const off = (at.yM - levels.firstM) / levels.stepM
  return off > -0.5 && Math.abs(off - Math.round(off)) * levels.stepM <= ON_RAIL_M
}
