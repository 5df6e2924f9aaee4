import type { FrameDesign, PlannedSite } from './design.ts'
import { leafyOutline } from './loads.ts'
import type { WireLine, WireLoads } from './wires.ts'
import { LEAF_DRAG, LEAF_SOLIDITY, leafWindNPerM } from './wires.ts'
import { plugHoldingN, specificGravity, withdrawalN } from '../fixings/index.ts'
import { potOf, potSoilLitres } from '../frame/index.ts'
import type { Frame, Member, RowPattern } from '../frame/index.ts'
import { GRAVITY, embedment, findSoil, gustAt, heldEnd, lateralHoldingN, lineEnd, screwHolding, tipping, windForceN } from '../ground/index.ts' // prettier-ignore
import type { Drive, Soil } from '../ground/index.ts'
import { findKind, plantWeight, windingOf } from '../kinds/index.ts'
import { STRAINER_TRAVEL_M, bendingMomentNm, findScrew, findStock, isMasonry, secondMomentM4, stockMassKgPerM, stockMaterials, stockWidthM } from '../materials/index.ts' // prettier-ignore
import type { Catalogue, Fixing, Stock } from '../materials/index.ts'

export type CheckCode =
  | 'wire-pull' | 'wire-sag' | 'strainer-travel' | 'fixing-pull' | 'anchor-pull' | 'end-sideways' | 'post-sideways'
  | 'post-frost' | 'post-bearing' | 'end-bending' | 'leg-bending' | 'beam-bending' | 'cover-uplift' | 'tub-tips' | 'brace-foot' // prettier-ignore
export type CheckUnit = 'N' | 'm' | 'Nm' | 'm/s'

/** What was taken for granted in a check; each has its words in the translations. */
export type Assumption =
  | 'soil-by-feel' | 'safety-two' | 'safety-in-code' | 'leaf-half-solid' | 'hinged-foot' | 'rigid-ends' | 'wet-wood'
  | 'plug-packet' | 'prying' | 'even-load' | 'all-wires-worst' | 'drive-as-logged' | 'drive-full-depth' | 'gust-as-given'
  | 'two-years-stretch' | 'no-sliding' | 'posts-share' | 'may-lean' | 'rows-shelter' // prettier-ignore
export type SourceKey = 'irvine' | 'ibc-1807' | 'ibc-1806' | 'perko' | 'nds-12' | 'plug-approval' | 'statics' | 'wind-pressure' // prettier-ignore
export type Verdict = 'holds' | 'doubtful' | 'fails'

/**
 * One thing that has to hold: what is needed against what there is, as a range where it rests on a guess. It holds when
 * even the low end covers the need, fails when the high end does not.
 */
export interface Check {
  readonly code: CheckCode
  /** Which wire, post or anchor it is about: the worst of its kind. */
  readonly subject: string
  readonly need: number
  readonly holding: readonly [number, number]
  readonly unit: CheckUnit
  readonly verdict: Verdict
  readonly assumptions: readonly Assumption[]
  readonly source: SourceKey
  /** Figures for the advice: a depth to dig to, ballast to add. */
  readonly advice: { readonly depthM?: number; readonly ballastKg?: number; readonly moreM?: number }
  /** Where people could be hurt: local code and a licensed engineer stand above the figure. */
  readonly isStructural: boolean
}

export interface CheckContext {
  readonly frame: Frame
  readonly site: PlannedSite
  readonly design: FrameDesign
  readonly catalogue: Catalogue
  readonly fixing: Fixing
  readonly lines: readonly WireLine[]
  readonly loads: WireLoads
  /** Anchors as they were driven, by anchor id. */
  readonly drives: ReadonlyMap<string, Drive>
}

/** A wire that sags by more than this share of its span looks slack and rubs. */
const SAG_SHARE = 1 / 30

/** Everything that has to hold in this frame, the weakest first. */
export function checkFrame(context: CheckContext): Check[] {
  const checks = [
    ...wireChecks(context),
    ...fixingChecks(context),
    ...rowChecks(context),
    ...anchorChecks(context),
    ...groundChecks(context),
    ...overheadChecks(context),
    ...legChecks(context),
    ...tubChecks(context),
  ]
  const rank = { fails: 0, doubtful: 1, holds: 2 }
  return checks.sort(
    (a, b) => rank[a.verdict] - rank[b.verdict] || a.holding[0] / a.need - b.holding[0] / b.need,
  )
}

function check(input: Omit<Check, 'verdict' | 'advice' | 'isStructural'> & Partial<Check>): Check[] {
  if (!(input.need > 0)) return []
  const verdict: Verdict = input.need <= input.holding[0] * (1 + 1e-9) ? 'holds' : input.need <= input.holding[1] ? 'doubtful' : 'fails' // prettier-ignore
  return [{ advice: {}, isStructural: false, ...input, verdict }]
}

const same = (value: number): readonly [number, number] => [value, value]
const worstOf = <T>(list: readonly T[], of: (item: T) => number): T | undefined =>
  list.reduce<T | undefined>(
    (best, item) => (best === undefined || of(item) > of(best) ? item : best),
    undefined,
  )

function wireChecks({ lines }: CheckContext): Check[] {
  const pulled = worstOf(lines, (line) => line.worst.tensionN / line.workingLoadN)
  const sagging = worstOf(lines, (line) => line.greatestSag.sagM / Math.max(...line.spansM))
  const strained = worstOf(lines, (line) => line.travel.totalM)
  return [
    ...(pulled ? check({ code: 'wire-pull', subject: pulled.wire.id, need: pulled.worst.tensionN, holding: same(pulled.workingLoadN), unit: 'N', assumptions: ['rigid-ends', 'even-load'], source: 'irvine' }) : []),
    ...(sagging ? check({ code: 'wire-sag', subject: sagging.wire.id, need: sagging.greatestSag.sagM, holding: same(Math.max(...sagging.spansM) * SAG_SHARE), unit: 'm', assumptions: ['even-load'], source: 'irvine' }) : []),
    ...(strained ? check({ code: 'strainer-travel', subject: strained.wire.id, need: strained.travel.totalM, holding: same(STRAINER_TRAVEL_M), unit: 'm', assumptions: ['two-years-stretch'], source: 'statics' }) : []),
  ] // prettier-ignore
}

/** Share of the thread that holds: the tip and what is above the surface do not. */
const THREAD_OUT_MM = 20

/** The eye that its wires pull hardest: their pulls in the worst hour add up as arrows, so a wire that passes straight adds nothing. */
function fixingChecks({ frame, site, fixing, lines }: CheckContext): Check[] {
  const worstByLine = new Map(
    lines.flatMap((line) => line.ids.map((id) => [id, line.worst.tensionN] as const)),
  )
  const pulls = frame.nodes.map(() => [0, 0] as [number, number])
  for (const run of frame.runs) {
    const pull = worstByLine.get(run.line)
    if (pull === undefined) continue
    const [a, b] = [frame.nodes[run.from]!.at, frame.nodes[run.to]!.at]
    const ux = ((b.xM - a.xM) / run.lengthM) * pull
    const uy = ((b.yM - a.yM) / run.lengthM) * pull
    pulls[run.from]![0] += ux
    pulls[run.from]![1] += uy
    pulls[run.to]![0] -= ux
    pulls[run.to]![1] -= uy
  }
  let worst = -1
  frame.nodes.forEach((node, i) => {
    if (node.joint === 'eye' && (worst < 0 || Math.hypot(...pulls[i]!) > Math.hypot(...pulls[worst]!)))
      worst = i
  })
  if (worst < 0) return []
  const node = frame.nodes[worst]!
  const penetrationMm = fixing.lengthMm - THREAD_OUT_MM
  // Along the wall the wire pries: its pull times the stand-off, over two thirds of the length in the wall.
  const prying = Math.max(1, (1.5 * fixing.standOffM * 1000) / penetrationMm)
  const need = Math.hypot(...pulls[worst]!) * prying
  const nearest = frame.nodes.reduce((least, other) => (other === node || other.joint !== 'eye' ? least : Math.min(least, Math.hypot(other.at.xM - node.at.xM, other.at.yM - node.at.yM))), Infinity) // prettier-ignore
  const edgeM = Math.min(node.at.xM, site.widthM - node.at.xM)
  const masonry = isMasonry(site.surface)
  const holding = masonry
    ? plugHoldingN({ ratedN: fixing.plugRatedN, fullSpacingM: fixing.plugFullSpacingM, fullEdgeM: fixing.plugFullEdgeM }, { spacingM: nearest, edgeM: edgeM === 0 ? fixing.plugFullEdgeM : edgeM }) // prettier-ignore
    : withdrawalN({ threadMm: fixing.threadMm, penetrationMm, specificGravity: specificGravity.pine, exposure: 'wet' }) // prettier-ignore
  return check({
    code: 'fixing-pull',
    subject: node.label,
    need,
    holding: same(holding),
    unit: 'N',
    assumptions: masonry ? ['plug-packet', 'prying'] : ['wet-wood', 'prying', 'safety-in-code'],
    source: masonry ? 'plug-approval' : 'nds-12',
  })
}

/** Width that the ground feels: a free-standing post of ours is never set in a pipe. */
function widthOf(catalogue: Catalogue, stockId: string): number {
  return stockWidthM(findStock(catalogue, stockId)!)
}

function rowChecks(context: CheckContext): Check[] {
  const { design, site, lines } = context
  if (design.pattern.kind !== 'row') return []
  const pattern: RowPattern = design.pattern
  const soil = findSoil(site.conditions.soil)
  const pullOf = new Map(lines.flatMap((line) => line.ids.map((id) => [id, line.worst.tensionN] as const)))
  const pulls = pattern.levels.flatMap((level, k) => {
    const ids = level.form === 'single' ? [`w${k}`] : [`w${k}a`, `w${k}b`]
    return ids.map((id) => ({ heightM: level.heightM, tensionN: pullOf.get(id) ?? 0 }))
  })
  if (pattern.waterHeightM !== null) pulls.push({ heightM: pattern.waterHeightM, tensionN: pullOf.get('water') ?? 0 }) // prettier-ignore
  return [...endChecks(context, pattern, soil, pulls), ...linePostChecks(context, pattern, soil)]
}

function endChecks(
  { catalogue, drives, frame }: CheckContext,
  pattern: RowPattern,
  soil: Soil,
  pulls: readonly { heightM: number; tensionN: number }[],
): Check[] {
  const { end } = pattern
  const total = lineEnd(pulls)
  if (total.totalWireTensionN === 0) return []
  const stock = findStock(catalogue, pattern.endStockId)!
  if (end.kind === 'free') {
    const heightM = total.momentAtGroundNm / total.totalWireTensionN
    const postWidthM = stockWidthM(stock)
    const holding = (side: 0 | 1) => lateralHoldingN({ depthM: pattern.endBuriedM, loadHeightM: heightM, postWidthM, paPerM: soil.lateralBearingPaPerM[side] }) // prettier-ignore
    const depth = embedment({ lateralLoadN: total.totalWireTensionN, loadHeightM: heightM, postWidthM, bearing: { paPerM: soil.lateralBearingPaPerM[0] } }) // prettier-ignore
    return [
      ...check({ code: 'end-sideways', subject: 'P1', need: total.totalWireTensionN, holding: [holding(0), holding(1)], unit: 'N', assumptions: ['all-wires-worst', 'soil-by-feel'], source: 'ibc-1807', advice: { depthM: depth.depthM }, isStructural: true }),
      ...check({ code: 'end-bending', subject: 'P1', need: total.momentAtGroundNm, holding: same(bendingMomentNm(stock)), unit: 'Nm', assumptions: ['all-wires-worst', 'wet-wood'], source: 'statics', isStructural: true }),
    ] // prettier-ignore
  }
  const held = heldEnd(pulls, { kind: end.kind === 'tied-back' ? 'tie-back' : 'strut', attachHeightM: end.attachHeightM, angleFromGroundRad: (end.angleDeg * Math.PI) / 180 }) // prettier-ignore
  if (end.kind === 'braced') {
    // The strut's foot pushes against the soil like a short wall of the brace's own width, a hand deep.
    const widthM = widthOf(catalogue, end.stockId)
    const bearing = (side: 0 | 1) => soil.verticalBearingPa[side] * widthM * BRACE_FOOT_M
    return check({ code: 'brace-foot', subject: 'P1', need: held.memberForceN, holding: [bearing(0), bearing(1)], unit: 'N', assumptions: ['all-wires-worst', 'hinged-foot', 'soil-by-feel'], source: 'ibc-1806', isStructural: true }) // prettier-ignore
  }
  return frame.anchors.slice(0, 2).flatMap((anchor) => {
    const screw = findScrew(catalogue, anchor.screwId)
    if (!screw) return []
    const logged = drives.get(anchor.id)
    // Driven in the line of its tie, as it should be; a logged drive says how it really went.
    const drive = logged ?? { depthAlongM: screw.lengthM, angleFromVerticalRad: Math.PI / 2 - (end.angleDeg * Math.PI) / 180, reworks: 0, torqueNm: null, pullTestN: null } // prettier-ignore
    const holding = screwHolding(screw, soil, drive)
    return check({ code: 'anchor-pull', subject: anchor.label, need: held.memberForceN, holding: holding.allowableN, unit: 'N', assumptions: ['all-wires-worst', 'hinged-foot', ...(holding.basis === 'soil' ? (['soil-by-feel'] as const) : []), logged ? 'drive-as-logged' : 'drive-full-depth', 'safety-two'], source: 'perko', isStructural: true }) // prettier-ignore
  })
}

/** Bearing plate or stone at the foot of a strut, metres along the ground. */
const BRACE_FOOT_M = 0.4

function linePostChecks(
  { frame, site, design, catalogue }: CheckContext,
  pattern: RowPattern,
  soil: Soil,
): Check[] {
  const bayM = frame.figures.find((figure) => figure.key === 'span')?.value ?? 0
  const lowestM = pattern.levels[0]!.heightM
  const leafM = Math.max(0.1, pattern.postHeightM - lowestM)
  const heightM = lowestM + leafM / 2
  const shelter = design.repeat >= SHELTERED_FROM ? SHELTER_SHARE : 1
  const windN = shelter * leafWindNPerM(leafM, heightM, site.conditions.windMPerS) * bayM
  const postWidthM = widthOf(catalogue, pattern.postStockId)
  const post = { loadHeightM: heightM, postWidthM, soilFactor: 2 }
  const holding = (side: 0 | 1) => lateralHoldingN({ ...post, depthM: pattern.postBuriedM, paPerM: soil.lateralBearingPaPerM[side] }) // prettier-ignore
  const depth = embedment({ ...post, lateralLoadN: Math.max(1e-6, windN / CODE_MARGIN), bearing: { paPerM: soil.lateralBearingPaPerM[0] } }) // prettier-ignore
  return check({ code: 'post-sideways', subject: pattern.postStockId, need: windN, holding: [holding(0), CODE_MARGIN * holding(1)], unit: 'N', assumptions: ['leaf-half-solid', 'gust-as-given', 'soil-by-feel', 'may-lean', ...(shelter < 1 ? (['rows-shelter'] as const) : [])], source: 'ibc-1807', advice: { depthM: depth.depthM } }) // prettier-ignore
}

/** Rows from this many on shelter one another to about half the wind. */
const SHELTERED_FROM = 3
const SHELTER_SHARE = 0.5
/**
 * The code's figure is for posts that must not move. One in a row may lean in the worst gust of a year and be set upright
 * again; what it takes before it goes over is about four times that.
 */
const CODE_MARGIN = 4

/** Anchors of a cover: the cable's pull in the worst hour, and the lift of wind under the cover shared by the anchors. */
function anchorChecks({ frame, site, design, catalogue, drives, lines }: CheckContext): Check[] {
  if (design.pattern.kind !== 'net') return []
  const soil = findSoil(site.conditions.soil)
  const eyes = frame.anchors.filter((anchor) => anchor.head === 'eye')
  const cable = worstOf(lines, (line) => line.worst.tensionN)
  const coverM2 = frame.figures.find((figure) => figure.key === 'cover-area')?.value ?? 0
  const liftN = windForceN({ speedMPerS: site.conditions.windMPerS, areaM2: coverM2, solidity: NET_SOLIDITY, dragCoefficient: NET_LIFT }) // prettier-ignore
  const weakest = eyes
    .flatMap((anchor) => {
      const screw = findScrew(catalogue, anchor.screwId)
      if (!screw) return []
      const drive = drives.get(anchor.id) ?? { depthAlongM: screw.lengthM, angleFromVerticalRad: Math.atan2(Math.hypot(anchor.towards.xM - anchor.at.xM, anchor.towards.zM - anchor.at.zM), anchor.towards.yM), reworks: 0, torqueNm: null, pullTestN: null } // prettier-ignore
      return [
        { anchor, holding: screwHolding(screw, soil, drive).allowableN, isLogged: drives.has(anchor.id) },
      ]
    })
    .sort((a, b) => a.holding[0] - b.holding[0])[0]
  if (!weakest) return []
  const basis: Assumption = weakest.isLogged ? 'drive-as-logged' : 'drive-full-depth'
  return [
    ...(cable ? check({ code: 'anchor-pull', subject: weakest.anchor.label, need: cable.worst.tensionN, holding: weakest.holding, unit: 'N', assumptions: ['soil-by-feel', 'safety-two', basis], source: 'perko', isStructural: true }) : []),
    ...check({ code: 'cover-uplift', subject: weakest.anchor.label, need: liftN / Math.max(1, eyes.length), holding: weakest.holding, unit: 'N', assumptions: ['gust-as-given', 'posts-share', basis], source: 'wind-pressure', isStructural: true }),
  ] // prettier-ignore
}

/** Solid share of a bird net, and lift on a flat open canopy. */
const NET_SOLIDITY = 0.25
const NET_LIFT = 1.0

/** What stands in the ground for years: below the frost, and not sinking. */
function groundChecks({ frame, site, design }: CheckContext): Check[] {
  const soil = findSoil(site.conditions.soil)
  const posts = frame.members.filter((member) => member.part.endsWith('post') && member.buriedM > 0)
  const shallowest = worstOf(posts, (post) => -post.buriedM)
  if (!shallowest || !soil.heaves || design.pattern.kind === 'row') return []
  return check({ code: 'post-frost', subject: shallowest.label ?? shallowest.id, need: site.conditions.frostDepthM, holding: same(shallowest.buriedM), unit: 'm', assumptions: ['soil-by-feel'], source: 'ibc-1806', advice: { depthM: site.conditions.frostDepthM } }) // prettier-ignore
}

/** Weight of plant, crop, rain and snow on an overhead frame, newtons per square metre. */
function overheadLoadPa({ design, site }: CheckContext): number {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const weight = kind ? plantWeight(kind) : { leafKgPerM2: 0, wetKgPerM2: 0, cropKgPerM2: 0 }
  const plantPa = (weight.leafKgPerM2 + weight.wetKgPerM2 + weight.cropKgPerM2) * GRAVITY
  return plantPa + site.conditions.snowPa
}

function overheadChecks(context: CheckContext): Check[] {
  const { design, site, catalogue, frame } = context
  if (design.pattern.kind !== 'overhead') return []
  const { pattern } = design
  const soil = findSoil(site.conditions.soil)
  const bayM = frame.figures.find((figure) => figure.key === 'span')?.value ?? 0
  const beam = findStock(catalogue, pattern.beamStockId)!
  const timberPa = (stockMassKgPerM(beam) * GRAVITY) / Math.min(pattern.maxRafterSpacingM, pattern.depthM)
  const loadPa = overheadLoadPa(context) + timberPa
  const depthM = pattern.depthM + 2 * pattern.overhangM
  const posts = frame.members.filter((member) => member.part === 'post')
  const postN = (loadPa * (site.widthM + 2 * pattern.overhangM) * depthM) / Math.max(1, posts.length)
  // Edge posts carry half a bay; the middle ones carry a whole one.
  const worstPostN = posts.length > 4 ? (loadPa * bayM * depthM) / 2 : postN
  const rafterBayM = site.widthM / Math.max(1, frame.members.filter((m) => m.part === 'rafter').length - 1)
  const beamNm = ((loadPa * depthM) / 2) * (bayM ** 2 / 8)
  const rafterNm = loadPa * rafterBayM * (pattern.depthM ** 2 / 8)
  const footM2 = (Math.PI / 4) * FOOT_M ** 2
  const assumptions: Assumption[] = ['even-load', 'wet-wood']
  const leafM = 0.4
  const windN =
    leafWindNPerM(leafM, pattern.headroomM, site.conditions.windMPerS) * Math.max(site.widthM, pattern.depthM)
  const sideways = windN / Math.max(1, posts.length)
  const holding = (side: 0 | 1) => lateralHoldingN({ depthM: pattern.postBuriedM, loadHeightM: pattern.headroomM, postWidthM: FOOT_M, paPerM: soil.lateralBearingPaPerM[side] }) // prettier-ignore
  return [
    ...check({ code: 'beam-bending', subject: 'beam', need: beamNm, holding: same(bendingMomentNm(beam)), unit: 'Nm', assumptions, source: 'statics', isStructural: true }),
    ...check({ code: 'beam-bending', subject: 'rafter', need: rafterNm, holding: same(bendingMomentNm(beam)), unit: 'Nm', assumptions, source: 'statics', isStructural: true }),
    ...check({ code: 'post-bearing', subject: pattern.postStockId, need: worstPostN, holding: [soil.verticalBearingPa[0] * footM2, soil.verticalBearingPa[1] * footM2], unit: 'N', assumptions: ['even-load', 'soil-by-feel'], source: 'ibc-1806', isStructural: true }),
    ...check({ code: 'post-sideways', subject: pattern.postStockId, need: sideways, holding: [holding(0), holding(1)], unit: 'N', assumptions: ['leaf-half-solid', 'gust-as-given', 'posts-share', 'soil-by-feel'], source: 'ibc-1807', isStructural: true }),
  ] // prettier-ignore
}

/** Width of the concrete foot of a post under an overhead frame. */
const FOOT_M = 0.3

/** Legs, stakes and hoops in the wind: each takes its share of the force on the leafy outline, and bends at the soil. */
function legChecks({ frame, site, design, catalogue }: CheckContext): Check[] {
  const { pattern } = design
  if (!['spiral', 'obelisk', 'stakes', 'pole', 'arch', 'column'].includes(pattern.kind)) return []
  const legs = frame.members.filter((member) => LEG_PARTS.has(member.part))
  const leg = legs[0]
  if (!leg) return []
  const stock = findStock(catalogue, leg.stockId)!
  const soilM = leg.foot?.yM ?? 0
  const topM = Math.max(...leg.path.map((p) => p.yM))
  const outline = leafyOutline(frame)
  const widthM = pattern.kind === 'stakes' || pattern.kind === 'pole' ? LONE_PLANT_M * (pattern.kind === 'stakes' ? legs.length : 1) : outline.widthM // prettier-ignore
  const areaM2 = widthM * (topM - soilM)
  const windN = windForceN({ speedMPerS: gustAt((topM + soilM) / 2, site.conditions.windMPerS), areaM2, solidity: LEAF_SOLIDITY, dragCoefficient: LEAF_DRAG }) // prettier-ignore
  const feet = legs.length * (pattern.kind === 'arch' ? 2 : 1)
  const need = (windN * ((topM - soilM) / 2)) / feet
  return check({ code: 'leg-bending', subject: leg.stockId, need, holding: same(bendingMomentNm(stock)), unit: 'Nm', assumptions: ['leaf-half-solid', 'gust-as-given', 'posts-share', ...(isWood(stock) ? (['wet-wood'] as const) : [])], source: 'wind-pressure' }) // prettier-ignore
}

const LEG_PARTS: ReadonlySet<Member['part']> = new Set(['stake', 'leg', 'hoop', 'core', 'column'])
/** Width of one plant on a stake or pole of its own. */
const LONE_PLANT_M = 0.35
const isWood = (stock: Stock) => stock.material === 'softwood' || stock.material === 'hardwood' || stock.material === 'bamboo' // prettier-ignore

/** Moist potting soil, kilograms per litre. */
const SOIL_KG_PER_LITRE = 1.1
const EMPTY_POT_SHARE = 0.12
const TUB_SAFETY = 1.5

function tubChecks({ frame, site, design, catalogue }: CheckContext): Check[] {
  const pot = potOf(design.pattern)
  if (!pot) return []
  const litres = potSoilLitres(pot)
  const structureKg = frame.members.reduce((sum, member) => sum + stockMassKgPerM(findStock(catalogue, member.stockId)!) * member.cutLengthM, 0) // prettier-ignore
  const outline = leafyOutline(frame)
  const topM = Math.max(pot.heightM + 0.05, ...frame.members.flatMap((m) => m.path.map((p) => p.yM)))
  const screenAreaM2 = Math.max(
    0.02,
    Math.max(LONE_PLANT_M, outline.widthM) * (topM - pot.heightM) * LEAF_SOLIDITY,
  )
  const result = tipping({
    leverM: pot.widthM / 2,
    massKg: litres * SOIL_KG_PER_LITRE * (1 + EMPTY_POT_SHARE) + structureKg,
    massCentreHeightM: pot.heightM / 2,
    screenAreaM2,
    screenCentreHeightM: (pot.heightM + topM) / 2,
    dragCoefficient: LEAF_DRAG,
    windSpeedMPerS: site.conditions.windMPerS,
    safetyFactor: TUB_SAFETY,
  })
  return check({ code: 'tub-tips', subject: 'pot', need: site.conditions.windMPerS, holding: same(result.criticalWindSpeedMPerS), unit: 'm/s', assumptions: ['leaf-half-solid', 'no-sliding', 'gust-as-given'], source: 'statics', advice: { ballastKg: result.ballastKg } }) // prettier-ignore
}

/** True when the string is wound against the way the kind twines; `null` where that does not matter. */
export function isWoundWrongly(design: FrameDesign): boolean | null {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const winding = kind ? windingOf(kind) : null
  return design.pattern.kind === 'spiral' && winding !== null ? winding !== design.pattern.winding : null
}

/** Give of both ends of a free-standing row together, for one of its wires: cantilevers 3EI/h³, in series, shared. */
export function endStiffness(design: FrameDesign, catalogue: Catalogue): number | null {
  if (design.pattern.kind !== 'row' || design.pattern.end.kind !== 'free') return null
  const { levels, endStockId } = design.pattern
  const stock = findStock(catalogue, endStockId)
  if (!stock) return null
  const wires = levels.reduce((sum, level) => sum + (level.form === 'single' ? 1 : 2), 0)
  const heightM = Math.max(0.3, levels.reduce((sum, level) => sum + level.heightM, 0) / levels.length)
  const E = stockMaterials[stock.material].modulusPa
  return (3 * E * secondMomentM4(stock.section)) / heightM ** 3 / 2 / wires
}
