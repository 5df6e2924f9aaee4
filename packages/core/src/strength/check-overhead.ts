import { bendingMomentNm, findScrew, findStock, stockMassKgPerM } from '../catalogue/index.ts'
import { isPost } from '../frame/index.ts'
import type { Anchor, OverheadPattern } from '../frame/index.ts'
import { findSoil, lateralHoldingN, screwHolding } from '../ground/index.ts'
import type { Soil } from '../ground/index.ts'
import { findKind } from '../kinds/index.ts'
import { GRAVITY, leafWindNPerM, windForceN } from '../loads/index.ts'
import { check, same, worstOf } from './check.ts'
import type { Assumption, Check, CheckContext } from './check.ts'

/** Solid share of a bird net, and lift on a flat open canopy. */
const NET_SOLIDITY = 0.25
const NET_LIFT = 1.0

/**
 * Anchors of a cover: the cable's pull in the worst hour, and the lift of wind under the cover shared by the
 * anchors.
 */
export function anchorChecks(context: CheckContext): Check[] {
  const { frame, site, lines, drives } = context
  if (!frame.traits.isCover) return []
  const eyes = frame.anchors.filter((anchor) => anchor.head === 'eye')
  const soil = findSoil(site.conditions.soil)
  const [weakest] = eyes
    .map((anchor) => ({ anchor, holding: eyeHolding(context, anchor, soil) }))
    .sort((a, b) => (a.holding?.[0] ?? -1) - (b.holding?.[0] ?? -1))
  if (!weakest) return []
  const cable = worstOf(lines, (line) => line.worst.tensionN)
  const { coverM2 } = frame.measures
  const liftN =
    coverM2 === null
      ? null
      : windForceN({
          speedMPerS: site.conditions.windMPerS,
          areaM2: coverM2,
          solidity: NET_SOLIDITY,
          dragCoefficient: NET_LIFT,
        })
  const basis: Assumption = drives.has(weakest.anchor.id) ? 'drive-as-logged' : 'drive-full-depth'
  const about = {
    subject: weakest.anchor.label,
    holding: weakest.holding,
    unit: 'N',
    isStructural: true,
  } as const
  return [
    check({
      ...about,
      code: 'anchor-pull',
      need: cable?.worst.tensionN ?? null,
      missing: cable ? 'screw' : 'wire',
      assumptions: ['soil-by-feel', 'safety-two', basis],
      source: 'perko',
    }),
    check({
      ...about,
      code: 'cover-uplift',
      need: liftN === null ? null : liftN / eyes.length,
      missing: 'screw',
      assumptions: ['gust-as-given', 'posts-share', basis],
      source: 'wind-pressure',
    }),
  ]
}

/** What an eye screw holds as it was driven, or driven in full in the line of its cable. */
function eyeHolding({ catalogue, drives }: CheckContext, anchor: Anchor, soil: Soil) {
  const screw = findScrew(catalogue, anchor.screwId)
  if (!screw) return null
  const { at, towards, id } = anchor
  const outM = Math.hypot(towards.xM - at.xM, towards.zM - at.zM)
  const drive = drives.get(id) ?? {
    depthAlongM: screw.lengthM,
    angleFromVerticalRad: Math.atan2(outM, towards.yM),
    reworks: 0,
    torqueNm: null,
    pullTestN: null,
  }
  return screwHolding(screw, soil, drive).allowableN
}

/**
 * What stands in the ground under something for years: below the frost, and not sinking. Posts of rows are
 * set anew.
 */
export function groundChecks({ frame, site }: CheckContext): Check[] {
  if (frame.traits.posts !== 'in-concrete') return []
  const soil = findSoil(site.conditions.soil)
  const posts = frame.members.filter((member) => isPost(member.role) && member.buriedM > 0)
  const shallowest = worstOf(posts, (post) => -post.buriedM)
  const frostM = soil.heaves ? site.conditions.frostDepthM : 0
  return [
    check({
      code: 'post-frost',
      subject: shallowest?.label ?? '',
      need: frostM,
      holding: same(shallowest?.buriedM ?? 0),
      unit: 'm',
      assumptions: ['soil-by-feel'],
      source: 'ibc-1806',
      advice: { depthM: frostM },
    }),
  ]
}

/** Weight of plant, crop, rain and snow on an overhead frame, newtons per square metre. */
function overheadLoadPa({ design, site }: CheckContext): number {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const weight = kind ? kind.weight : { leafKgPerM2: 0, wetKgPerM2: 0, cropKgPerM2: 0 }
  const plantPa = (weight.leafKgPerM2 + weight.wetKgPerM2 + weight.cropKgPerM2) * GRAVITY
  return plantPa + site.conditions.snowPa
}

/** Width of the concrete foot of a post under an overhead frame. */
const FOOT_M = 0.3
/** Band of leaf on the roof that the wind pushes against. */
const ROOF_LEAF_M = 0.4

/** Beams, rafters and posts of what stands over people. */
export function overheadChecks(context: CheckContext): Check[] {
  const { design, site, catalogue, frame } = context
  if (design.pattern.kind !== 'overhead') return []
  const { pattern } = design
  const beam = findStock(catalogue, pattern.beamStockId)
  const { bayM } = frame.measures
  if (!beam || bayM === null) return []
  const timberPa = (stockMassKgPerM(beam) * GRAVITY) / Math.min(pattern.maxRafterSpacingM, pattern.depthM)
  const loadPa = overheadLoadPa(context) + timberPa
  const depthM = pattern.depthM + 2 * pattern.overhangM
  const rafters = frame.members.filter((member) => member.role === 'rafter').length
  const rafterBayM = site.widthM / Math.max(1, rafters - 1)
  const bending = (subject: 'beam' | 'rafter', need: number) =>
    check({
      code: 'beam-bending',
      subject,
      need,
      holding: same(bendingMomentNm(beam)),
      unit: 'Nm',
      assumptions: ['even-load', 'wet-wood'],
      source: 'statics',
      isStructural: true,
    })
  return [
    bending('beam', ((loadPa * depthM) / 2) * (bayM ** 2 / 8)),
    bending('rafter', loadPa * rafterBayM * (pattern.depthM ** 2 / 8)),
    ...footChecks(context, pattern, loadPa, bayM),
  ]
}

function footChecks(
  { site, frame }: CheckContext,
  pattern: OverheadPattern,
  loadPa: number,
  bayM: number,
): Check[] {
  const soil = findSoil(site.conditions.soil)
  const posts = frame.members.filter((member) => member.role === 'post')
  const depthM = pattern.depthM + 2 * pattern.overhangM
  const evenN = (loadPa * (site.widthM + 2 * pattern.overhangM) * depthM) / Math.max(1, posts.length)
  // Edge posts carry half a bay; the middle ones carry a whole one.
  const worstN = posts.length > 4 ? (loadPa * bayM * depthM) / 2 : evenN
  const footM2 = (Math.PI / 4) * FOOT_M ** 2
  const alongM = Math.max(site.widthM, pattern.depthM)
  const windN = leafWindNPerM(ROOF_LEAF_M, pattern.headroomM, site.conditions.windMPerS) * alongM
  const holding = (side: 0 | 1) =>
    lateralHoldingN({
      depthM: pattern.postBuriedM,
      loadHeightM: pattern.headroomM,
      postWidthM: FOOT_M,
      paPerM: soil.lateralBearingPaPerM[side],
    })
  return [
    check({
      code: 'post-bearing',
      subject: pattern.postStockId,
      need: worstN,
      holding: [soil.verticalBearingPa[0] * footM2, soil.verticalBearingPa[1] * footM2],
      unit: 'N',
      assumptions: ['even-load', 'soil-by-feel'],
      source: 'ibc-1806',
      isStructural: true,
    }),
    check({
      code: 'post-sideways',
      subject: pattern.postStockId,
      need: windN / Math.max(1, posts.length),
      holding: [holding(0), holding(1)],
      unit: 'N',
      assumptions: ['leaf-half-solid', 'gust-as-given', 'posts-share', 'soil-by-feel'],
      source: 'ibc-1807',
      isStructural: true,
    }),
  ]
}
