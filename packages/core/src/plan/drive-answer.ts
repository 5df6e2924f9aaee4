import { findScrew } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import type { PlannedSite } from '../design/index.ts'
import type { Anchor } from '../frame/index.ts'
import { findSoil, undisturbedDistanceM } from '../ground/index.ts'
import type { Drive } from '../ground/index.ts'
import { anchorHolding, check } from '../strength/index.ts'
import type { Verdict } from '../strength/index.ts'
import type { FramePlan } from './frame-plan.ts'

/** What a ground screw holds as it stands in the ground now, against what is asked of it. */
export interface DriveAnswer {
  readonly holdingN: readonly [number, number]
  /** `null` where nothing is asked of it that anybody could compute. */
  readonly needN: number | null
  readonly verdict: Verdict | null
  /** How far it would have to move for soil that no drive has loosened. */
  readonly moveM: number
  /** Share that it has lost of what it would hold driven in full in line with its pull, at the low end; 0 for nothing. */
  readonly lostShare: number
}

/**
 * The answer for one screw while one stands beside it: whether to go on or to move. `null` for a screw that the
 * catalogue does not have. Throws `core/*` for a drive that cannot be.
 */
export function answerDrive(
  plan: Pick<FramePlan, 'checks' | 'frame'>,
  { site, catalogue }: { readonly site: PlannedSite; readonly catalogue: Catalogue },
  anchor: Anchor,
  drive: Drive,
): DriveAnswer | null {
  const screw = findScrew(catalogue, anchor.screwId)
  if (!screw) return null
  const soil = findSoil(site.conditions.soil)
  const { allowableN, basis, reductions } = anchorHolding(screw, soil, anchor, drive)
  const kept =
    basis === 'soil'
      ? allowableN[0] / anchorHolding(screw, soil, anchor).allowableN[0]
      : reductions.shallow * reductions.slant * reductions.rework
  // Under a cover the weakest stands for all with its head; at a row each end has its own.
  const alike = new Set(
    plan.frame?.traits.isCover === true
      ? plan.frame.anchors.flatMap(({ head, label }) => (head === anchor.head ? [label] : []))
      : [anchor.label],
  )
  const code = anchor.head === 'eye' ? 'anchor-pull' : 'cover-uplift'
  const needs = plan.checks.flatMap((one) =>
    one.code === code && one.need !== null && alike.has(one.subject) ? [one.need] : [],
  )
  const needN = needs.length > 0 ? Math.max(...needs) : null
  const { verdict } = check({
    code,
    subject: anchor.label,
    need: needN,
    holding: allowableN,
    unit: 'N',
    assumptions: ['drive-as-logged'],
    source: 'perko',
  })
  return {
    holdingN: allowableN,
    needN,
    verdict: needN === null ? null : verdict,
    moveM: undisturbedDistanceM(screw),
    lostShare: Math.max(0, 1 - kept),
  }
}
