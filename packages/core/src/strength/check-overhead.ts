import {
  bendingMomentNm,
  findStock,
  secondMomentM4,
  sectionModulusM3,
  stockMassKgPerM,
  stockMaterials,
  weakAxis,
} from '../catalogue/index.ts'
import type { Stock } from '../catalogue/index.ts'
import { isPost } from '../frame/index.ts'
import type { OverheadPattern } from '../frame/index.ts'
import { FOOT_M, findSoil, lateralHoldingN } from '../ground/index.ts'
import { findKind } from '../kinds/index.ts'
import { GRAVITY, LEAF_SOLIDITY, gustAt, leafWindNPerM, windForceN } from '../loads/index.ts'
import { check, same, worstOf } from './check.ts'
import type { Check, CheckContext } from './check.ts'
import { bearingCheck, bucklingCheck, footHoldsDownN } from './check-posts.ts'

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
      assumptions: ['even-load', 'one-person', 'wet-wood'],
      source: 'statics',
      isStructural: true,
    })
  return [
    bending('beam', loadsMoment(context, loadPa, depthM / 2, bayM)),
    bending('rafter', loadsMoment(context, loadPa, rafterBayM, pattern.depthM)),
    deflectionCheck('beam', beam, (loadPa * depthM) / 2, bayM),
    deflectionCheck('rafter', beam, loadPa * rafterBayM, pattern.depthM),
    ...sidewaysChecks(context, pattern, beam),
    ...footChecks(context, pattern, loadPa),
    ...postChecks(context, pattern, loadPa),
  ]
}

/** Somebody who climbs up to prune, newtons. */
const PERSON_N = 1000

/** Moment in the middle of a beam: all that can lie on it, or a person on it without snow; newton metres. */
function loadsMoment({ site }: CheckContext, loadPa: number, widthM: number, spanM: number): number {
  const even = (pa: number) => (pa * widthM * spanM ** 2) / 8
  return Math.max(even(loadPa), even(loadPa - site.conditions.snowPa) + (PERSON_N * spanM) / 4)
}

/** A beam sags visibly beyond so small a share of its span. */
const DEFLECTION_SHARE = 1 / 250

/** Sag of a beam under an even load, 5wL⁴/384EI. */
function deflectionCheck(subject: 'beam' | 'rafter', stock: Stock, loadNPerM: number, spanM: number): Check {
  const EI = stockMaterials[stock.material].modulusPa * secondMomentM4(stock.section)
  return check({
    code: 'beam-deflection',
    subject,
    need: (5 * loadNPerM * spanM ** 4) / (384 * EI),
    holding: same(spanM * DEFLECTION_SHARE),
    unit: 'm',
    assumptions: ['even-load', 'wet-wood'],
    source: 'statics',
  })
}

/** The wires end on the first and the last rafter and bend them inward, over their narrow side. */
function sidewaysChecks({ frame, lines }: CheckContext, pattern: OverheadPattern, stock: Stock): Check[] {
  const pullOf = new Map(lines.flatMap((line) => line.ids.map((id) => [id, line.worst.tensionN] as const)))
  const first = frame.members.find(({ role }) => role === 'rafter')?.path[0]?.xM
  const pulls = frame.runs.flatMap(({ line, from }) => {
    const { at } = frame.nodes[from]!
    return at.xM === first && at.yM > pattern.headroomM
      ? [{ zM: at.zM, N: pullOf.get(line.id) ?? Number.NaN }]
      : []
  })
  if (pulls.length === 0) return []
  const L = pattern.depthM
  // Between the beams that it lies on, the rafter is a beam on two supports.
  const nearN = pulls.reduce((sum, { zM, N }) => sum + N * (1 - zM / L), 0)
  const momentAt = (atM: number) =>
    nearN * atM - pulls.reduce((sum, { zM, N }) => sum + N * Math.max(0, atM - zM), 0)
  return [
    check({
      code: 'rafter-sideways',
      subject: 'rafter',
      need: pulls.reduce((most, { zM }) => Math.max(most, momentAt(zM)), 0),
      holding: same(sectionModulusM3(weakAxis(stock.section)) * stockMaterials[stock.material].bendingPa),
      unit: 'Nm',
      missing: 'wire',
      assumptions: ['all-wires-worst', 'wet-wood'],
      source: 'statics',
      isStructural: true,
    }),
  ]
}

/** Lift on a flat open roof of leaf (EN 1991-1-4, 7.3), and the share of its weight that is counted against it. */
const ROOF_LIFT = 0.6
const WEIGHT_COUNTED = 0.9

/** Posts as columns: pressed, bent by the wind on the roof, lifted by it. */
function postChecks(context: CheckContext, pattern: OverheadPattern, loadPa: number): Check[] {
  const { site, frame, catalogue, design } = context
  const posts = Math.max(1, frame.members.filter((member) => member.role === 'post').length)
  const stock = findStock(catalogue, pattern.postStockId)
  const areaM2 = (site.widthM + 2 * pattern.overhangM) * (pattern.depthM + 2 * pattern.overhangM)
  const subject = pattern.postStockId
  const windPa = { speedMPerS: gustAt(pattern.headroomM, site.conditions.windMPerS), areaM2 }
  const hasLeaf = design.plantKindId !== null
  const liftN = hasLeaf ? windForceN({ ...windPa, solidity: LEAF_SOLIDITY, dragCoefficient: ROOF_LIFT }) : 0
  const downN = (loadPa - overheadLoadPa(context)) * areaM2 * WEIGHT_COUNTED
  const windN = roofWindN(context, pattern)
  return [
    bucklingCheck(stock, {
      subject,
      needN: roofPostN(context, pattern, loadPa),
      lengthM: pattern.headroomM,
      ends: 'fixed-below',
      assumptions: ['even-load', 'wet-wood'],
    }),
    check({
      code: 'post-bending',
      subject,
      need: (windN / posts) * pattern.headroomM,
      holding: stock ? same(bendingMomentNm(stock)) : null,
      unit: 'Nm',
      missing: 'stock',
      assumptions: ['leaf-half-solid', 'gust-as-given', 'posts-share', 'stands-by-itself'],
      source: 'statics',
      isStructural: true,
    }),
    check({
      code: 'post-uplift',
      subject,
      need: Math.max(0, liftN - downN) / posts,
      holding: footHoldsDownN(findSoil(site.conditions.soil), pattern.postBuriedM),
      unit: 'N',
      assumptions: ['leaf-half-solid', 'gust-as-given', 'posts-share', 'own-weight-only', 'foot-in-concrete'],
      source: 'en-1991-canopy',
      isStructural: true,
    }),
  ]
}

/** Wind on the band of leaf along the longer side of a roof, newtons. */
function roofWindN({ site }: CheckContext, pattern: OverheadPattern): number {
  const alongM = Math.max(site.widthM, pattern.depthM)
  return leafWindNPerM(ROOF_LEAF_M, pattern.headroomM, site.conditions.windMPerS) * alongM
}

/** What the hardest pressed post carries, newtons. */
function roofPostN({ site, frame }: CheckContext, pattern: OverheadPattern, loadPa: number): number {
  const posts = frame.members.filter((member) => member.role === 'post')
  const depthM = pattern.depthM + 2 * pattern.overhangM
  const evenN = (loadPa * (site.widthM + 2 * pattern.overhangM) * depthM) / Math.max(1, posts.length)
  // Edge posts carry half a bay; the middle ones carry a whole one.
  return posts.length > 4 ? (loadPa * (frame.measures.bayM ?? 0) * depthM) / 2 : evenN
}

function footChecks(context: CheckContext, pattern: OverheadPattern, loadPa: number): Check[] {
  const { site, frame } = context
  const soil = findSoil(site.conditions.soil)
  const posts = frame.members.filter((member) => member.role === 'post')
  const holding = (side: 0 | 1) =>
    lateralHoldingN({
      depthM: pattern.postBuriedM,
      loadHeightM: pattern.headroomM,
      postWidthM: FOOT_M,
      paPerM: soil.lateralBearingPaPerM[side],
    })
  return [
    bearingCheck(soil, {
      subject: pattern.postStockId,
      needN: roofPostN(context, pattern, loadPa),
      depthM: pattern.postBuriedM,
      assumptions: ['even-load'],
    }),
    check({
      code: 'post-sideways',
      subject: pattern.postStockId,
      need: roofWindN(context, pattern) / Math.max(1, posts.length),
      holding: [holding(0), holding(1)],
      unit: 'N',
      assumptions: ['leaf-half-solid', 'gust-as-given', 'posts-share', 'soil-by-feel'],
      source: 'ibc-1807',
      isStructural: true,
    }),
  ]
}
