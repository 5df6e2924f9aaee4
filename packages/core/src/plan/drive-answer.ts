import { findScrew } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import type { PlannedSite } from '../design/index.ts'
import type { Anchor } from '../frame/index.ts'
import { findSoil, screwHolding, undisturbedDistanceM } from '../ground/index.ts'
import type { Drive } from '../ground/index.ts'
import { check } from '../strength/index.ts'
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
  /** Share of its holding that a short or slanted drive has taken, and that backing out has; 1 for nothing. */
  readonly reductions: { readonly shallow: number; readonly rework: number }
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
  const { allowableN, reductions } = screwHolding(screw, findSoil(site.conditions.soil), drive)
  // Under a cover the weakest stands for all of them; at a row each end has its own.
  const isCover = plan.frame?.traits.isCover === true && anchor.head === 'eye'
  const needs = plan.checks.flatMap(({ code, subject, need }) =>
    need !== null &&
    (isCover || subject === anchor.label) &&
    (code === 'anchor-pull' || code === 'cover-uplift')
      ? [need]
      : [],
  )
  const needN = needs.length > 0 ? Math.max(...needs) : null
  const { verdict } = check({
    code: 'anchor-pull',
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
    reductions,
  }
}
