import { stockMaterials } from '../catalogue/index.ts'
import type { FenceMade, PlannedSite } from '../design/index.ts'
import { nailWithdrawalN, specificGravity } from '../fixings/index.ts'
import { findSoil, lateralHoldingN } from '../ground/index.ts'
import { findKind } from '../kinds/index.ts'
import { GRAVITY, gustAt, leafyOutline, windForceN } from '../loads/index.ts'
import { hardestOf, pulledEyes } from './check-eyes.ts'
import { eyeDepth } from './eye-depth.ts'
import { isOnRail } from './on-rail.ts'
import { CODE_MARGIN, check } from './check.ts'
import type { Check, CheckContext } from './check.ts'

/** Nails of fences are about a twentieth as thick as they are long. */
const NAIL_SLENDERNESS = 20
/** Flat boards in the wind. */
const BOARD_DRAG = 1.2

/**
 * The fence itself, where it carries a frame: the board that is pried at, the rails that bear the plant, the posts
 * in the wind. What nobody has looked at cannot be told.
 */
export function fenceChecks(context: CheckContext): Check[] {
  const { site, frame } = context
  if (site.surface !== 'boards' || !frame.nodes.some(({ joint }) => joint === 'eye')) return []
  const fence: Partial<FenceMade> = site.fence ?? {}
  return [...nailCheck(context, fence), railCheck(context, fence), postCheck(context, fence)]
}

const figure = (value: number | null | undefined): number => value ?? Number.NaN

/**
 * The eye that pries hardest at a board alone twists it about its middle; the nails on the side that lifts, at the rails
 * above and below it, hold it on. An eye through the board into a rail leaves the board alone.
 */
function nailCheck(context: CheckContext, fence: Partial<FenceMade>): Check[] {
  const { frame, site, design, fixing, lines } = context
  const pulled = hardestOf(pulledEyes(frame, lines).filter(([node]) => !isOnRail(site, node)))
  if (!pulled) return []
  const [node, pullN] = pulled
  const { standOffM } = eyeDepth(site, design, fixing, node)
  const needN = (pullN * standOffM * 2000) / figure(fence.boardWidthMm)
  const crossings = Math.min(2, figure(fence.rails))
  const nails = Math.max(1, (crossings * figure(fence.nailsPerCrossing)) / 2)
  const nailMm = figure(fence.nailLengthMm)
  const inRailMm = Math.max(0, Math.min(nailMm - figure(fence.boardMm), figure(fence.railDepthMm)))
  const isTold = [needN, nails, inRailMm].every(Number.isFinite)
  const one = isTold
    ? nailWithdrawalN({
        diameterMm: nailMm / NAIL_SLENDERNESS,
        penetrationMm: inRailMm,
        specificGravity: specificGravity.pine,
      })
    : null
  return [
    check({
      code: 'fence-nails',
      subject: node.label,
      need: needN,
      holding: one && [one[0] * nails, one[1] * nails],
      missing: 'fence',
      unit: 'N',
      assumptions: ['fence-as-measured', 'half-the-nails', 'nails-dried-out'],
      source: 'nds-12-nails',
    }),
  ]
}

/** Plant, wet and with its crop, and the boards, hung evenly on the rails between two posts. */
function railCheck({ site, frame, design }: CheckContext, fence: Partial<FenceMade>): Check {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const { leafKgPerM2 = 0, wetKgPerM2 = 0, cropKgPerM2 = 0 } = kind?.weight ?? {}
  const { softwood } = stockMaterials
  const plantNPerM = (leafKgPerM2 + wetKgPerM2 + cropKgPerM2) * leafyOutline(frame).heightM * GRAVITY
  const boardNPerM = (figure(fence.boardMm) / 1000) * softwood.densityKgPerM3 * GRAVITY * heightM(site)
  const spanM = figure(fence.postSpacingM)
  const perRailNPerM = (plantNPerM + boardNPerM) / figure(fence.rails)
  const modulusM3 = ((figure(fence.railDepthMm) / 1000) * (figure(fence.railHeightMm) / 1000) ** 2) / 6
  const holdsNm = modulusM3 * softwood.bendingPa
  return check({
    code: 'fence-rails',
    subject: '',
    need: (perRailNPerM * spanM ** 2) / 8,
    holding: [holdsNm, holdsNm],
    missing: 'fence',
    unit: 'Nm',
    assumptions: ['fence-as-measured', 'even-load', 'wet-wood'],
    source: 'statics',
  })
}

const heightM = (site: PlannedSite) => site.firstForkM + site.usableHeightM

/** The wind on a bay of the fence, which is solid, at the posts in their holes. */
function postCheck({ site }: CheckContext, fence: Partial<FenceMade>): Check {
  const soil = findSoil(site.conditions.soil)
  const loadHeightM = heightM(site) / 2
  const spacingM = figure(fence.postSpacingM)
  const depthM = figure(fence.postBuriedM)
  const footM = figure(fence.postFootM)
  const isTold = [spacingM, depthM, footM].every(Number.isFinite)
  const holds = (side: 0 | 1) =>
    CODE_MARGIN *
    lateralHoldingN({
      depthM,
      loadHeightM,
      postWidthM: footM,
      soilFactor: 2,
      paPerM: soil.lateralBearingPaPerM[side],
    })
  return check({
    code: 'fence-posts',
    subject: '',
    need: isTold
      ? windForceN({
          speedMPerS: gustAt(loadHeightM, site.conditions.windMPerS),
          areaM2: spacingM * heightM(site),
          solidity: 1,
          dragCoefficient: BOARD_DRAG,
        })
      : null,
    holding: isTold ? [holds(0), holds(1)] : null,
    missing: 'fence',
    unit: 'N',
    assumptions: ['fence-as-measured', 'gust-as-given', 'soil-by-feel', 'may-lean'],
    source: 'ibc-1807',
  })
}
