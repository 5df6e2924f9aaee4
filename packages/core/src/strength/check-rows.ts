import {
  bendingMomentNm,
  findScrew,
  findStock,
  findWire,
  safeLoads,
  stockMaterials,
  stockWidthM,
} from '../catalogue/index.ts'
import type { RowPattern } from '../frame/index.ts'
import { embedment, findSoil, lateralHoldingN, lineEnd, pullOutN } from '../ground/index.ts'
import type { HeldEnd, Soil, WirePull } from '../ground/index.ts'
import { leafWindNPerM, loadsOn } from '../loads/index.ts'
import { anchorHolding } from './anchor-holding.ts'
import { CODE_MARGIN, check, same } from './check.ts'
import type { Assumption, Check, CheckContext } from './check.ts'
import { bucklingCheck } from './check-posts.ts'
import { heldBy, pullsAtEnd, radians, strandPullN } from './row-end.ts'
import type { TiedBack } from './row-end.ts'

/** Ends and line posts of a row. */
export function rowChecks(context: CheckContext): Check[] {
  const { design, site } = context
  if (design.pattern.kind !== 'row') return []
  const pattern: RowPattern = design.pattern
  const soil = findSoil(site.conditions.soil)
  return [
    ...endChecks(context, pattern, soil),
    ...armChecks(context, pattern),
    ...linePostChecks(context, pattern, soil),
  ]
}

function endChecks(context: CheckContext, pattern: RowPattern, soil: Soil): Check[] {
  const pulls = pullsAtEnd(context)
  // A wire that is not in the catalogue pulls nobody knows how hard: the ends then cannot be told.
  if (pulls.length === 0 || pulls.some((pull) => Number.isNaN(pull.tensionN))) return []
  const { end } = pattern
  if (end.kind === 'free') return freeEndChecks(context, pattern, soil, pulls)
  const held = heldBy(end, pulls)
  return end.kind === 'braced'
    ? [
        ...braceChecks(context, held, soil, end),
        heldBendingCheck(context, pattern, pulls, held),
        ...footChecks(context, pattern, soil, held),
      ]
    : [
        tieCheck(context, held, end),
        ...tiedBackChecks(context, held, soil, end),
        heldBendingCheck(context, pattern, pulls, held),
        ...pressedChecks(context, pattern, soil, held),
        ...footChecks(context, pattern, soil, held),
      ]
}

/**
 * What tie or brace leave for the post's foot: it is pushed along the row, and a brace lifts it. The post may turn
 * a little, being held above.
 */
function footChecks({ catalogue }: CheckContext, pattern: RowPattern, soil: Soil, held: HeldEnd): Check[] {
  const stock = findStock(catalogue, pattern.endStockId)
  const postWidthM = stock ? stockWidthM(stock) : Number.NaN
  const foot = { depthM: pattern.endBuriedM, loadHeightM: 0, postWidthM, soilFactor: 2 }
  const holding = (side: 0 | 1) =>
    stock ? CODE_MARGIN * lateralHoldingN({ ...foot, paPerM: soil.lateralBearingPaPerM[side] }) : Number.NaN
  const levelN = Math.abs(held.horizontalReactionAtFootN)
  const depth = stock
    ? embedment({
        lateralLoadN: Math.max(1e-6, levelN / CODE_MARGIN),
        loadHeightM: 0,
        postWidthM,
        soilFactor: 2,
        bearing: { paPerM: soil.lateralBearingPaPerM[0] },
      })
    : null
  const about = { subject: 'P1', missing: 'stock', unit: 'N', isStructural: true } as const
  const level = check({
    ...about,
    code: 'end-foot',
    need: levelN,
    holding: [holding(0), holding(1)],
    assumptions: ['all-wires-worst', 'hinged-foot', 'soil-by-feel', 'may-lean'],
    source: 'ibc-1807',
    advice: depth ? { depthM: depth.depthM } : {},
  })
  if (held.verticalReactionAtFootN >= 0) return [level]
  return [
    level,
    check({
      ...about,
      code: 'end-uplift',
      need: -held.verticalReactionAtFootN,
      holding: stock ? pullOutN(soil, { depthM: pattern.endBuriedM, widthM: postWidthM }) : null,
      assumptions: ['all-wires-worst', 'earth-at-rest', 'soil-by-feel', 'safety-two'],
      source: 'statics',
    }),
  ]
}

function freeEndChecks(
  { catalogue }: CheckContext,
  pattern: RowPattern,
  soil: Soil,
  pulls: readonly WirePull[],
): Check[] {
  const total = lineEnd(pulls)
  const stock = findStock(catalogue, pattern.endStockId)
  if (!stock) return []
  const heightM = total.momentAtGroundNm / total.totalWireTensionN
  const postWidthM = stockWidthM(stock)
  const holding = (side: 0 | 1) =>
    lateralHoldingN({
      depthM: pattern.endBuriedM,
      loadHeightM: heightM,
      postWidthM,
      paPerM: soil.lateralBearingPaPerM[side],
    })
  const depth = embedment({
    lateralLoadN: total.totalWireTensionN,
    loadHeightM: heightM,
    postWidthM,
    bearing: { paPerM: soil.lateralBearingPaPerM[0] },
  })
  return [
    check({
      code: 'end-sideways',
      subject: 'P1',
      need: total.totalWireTensionN,
      holding: [holding(0), holding(1)],
      unit: 'N',
      assumptions: ['all-wires-worst', 'soil-by-feel'],
      source: 'ibc-1807',
      advice: { depthM: depth.depthM },
      isStructural: true,
    }),
    check({
      code: 'end-bending',
      subject: 'P1',
      need: total.momentAtGroundNm,
      holding: same(bendingMomentNm(stock)),
      unit: 'Nm',
      assumptions: ['all-wires-worst', 'wet-wood'],
      source: 'statics',
      isStructural: true,
    }),
  ]
}

/** Bearing plate or stone at the foot of a strut, metres along the ground. */
const BRACE_FOOT_M = 0.4

/**
 * The strut's foot pushes against the soil like a short wall of the brace's own width, a hand deep; between foot and notch
 * it may buckle, and in the notch it may crush the post.
 */
function braceChecks(
  { catalogue, design: { pattern } }: CheckContext,
  held: HeldEnd,
  soil: Soil,
  { stockId, attachHeightM, angleDeg }: Extract<RowPattern['end'], { kind: 'braced' }>,
): Check[] {
  const stock = findStock(catalogue, stockId)
  const post = pattern.kind === 'row' ? findStock(catalogue, pattern.endStockId) : undefined
  const bearing = (side: 0 | 1) =>
    stock ? soil.verticalBearingPa[side] * stockWidthM(stock) * BRACE_FOOT_M : Number.NaN
  const crushingPa = Math.min(
    ...[stock, post].map((of) => (of ? stockMaterials[of.material].crushingPa : Number.NaN)),
  )
  return [
    check({
      code: 'brace-foot',
      subject: 'P1',
      need: held.memberForceN,
      holding: [bearing(0), bearing(1)],
      missing: 'stock',
      unit: 'N',
      assumptions: ['all-wires-worst', 'hinged-foot', 'soil-by-feel'],
      source: 'ibc-1806',
      isStructural: true,
    }),
    bucklingCheck(stock, {
      subject: 'brace',
      needN: held.memberForceN,
      lengthM: attachHeightM / Math.sin(radians(angleDeg)),
      ends: 'hinged',
      assumptions: ['all-wires-worst', 'wet-wood'],
    }),
    check({
      code: 'brace-notch',
      subject: 'P1',
      need: held.memberForceN,
      holding: stock ? same(stockWidthM(stock) ** 2 * crushingPa) : null,
      missing: 'stock',
      unit: 'N',
      assumptions: ['all-wires-worst', 'wet-wood', 'notch-full-width'],
      source: 'statics',
      isStructural: true,
    }),
  ]
}

/** A post that is held above bends between its foot, its wires and what holds it. */
function heldBendingCheck(
  { catalogue }: CheckContext,
  pattern: RowPattern,
  pulls: readonly WirePull[],
  held: HeldEnd,
): Check {
  const stock = findStock(catalogue, pattern.endStockId)
  const atM = pattern.end.kind === 'free' ? 0 : pattern.end.attachHeightM
  // Seen from above: each wire pulls inward below the height at which it sits, the tie or the brace outward.
  const momentAt = (heightM: number) =>
    pulls.reduce((sum, pull) => sum + pull.tensionN * Math.max(0, pull.heightM - heightM), 0) -
    held.anchorHorizontalN * Math.max(0, atM - heightM)
  const heights = [atM, ...pulls.map(({ heightM }) => heightM)]
  return check({
    code: 'end-bending',
    subject: 'P1',
    need: heights.reduce((most, heightM) => Math.max(most, Math.abs(momentAt(heightM))), 0),
    holding: stock ? same(bendingMomentNm(stock)) : null,
    missing: 'stock',
    unit: 'Nm',
    assumptions: ['all-wires-worst', 'hinged-foot', 'wet-wood'],
    source: 'statics',
    isStructural: true,
  })
}

/** A tie presses the post that it holds into the ground: on its own foot or on a slab under it. */
function pressedChecks({ catalogue }: CheckContext, pattern: RowPattern, soil: Soil, held: HeldEnd): Check[] {
  const stock = findStock(catalogue, pattern.endStockId)
  const widthM = stock ? stockWidthM(stock) : Number.NaN
  const rubs = stock ? pullOutN(soil, { depthM: pattern.endBuriedM, widthM }) : [Number.NaN, Number.NaN]
  const footM2 = Math.max(widthM, pattern.endSlabM) ** 2
  const holding = (side: 0 | 1) => soil.verticalBearingPa[side] * footM2 + rubs[side]!
  return [
    check({
      code: 'end-pressed',
      subject: 'P1',
      need: held.verticalReactionAtFootN,
      holding: stock ? [holding(0), holding(1)] : null,
      missing: 'stock',
      unit: 'N',
      assumptions: ['all-wires-worst', 'hinged-foot', 'earth-at-rest', 'soil-by-feel'],
      source: 'ibc-1806',
      isStructural: true,
    }),
    bucklingCheck(stock, {
      subject: 'P1',
      needN: held.verticalReactionAtFootN,
      lengthM: pattern.end.kind === 'free' ? 0 : pattern.end.attachHeightM,
      ends: 'hinged',
      assumptions: ['all-wires-worst', 'wet-wood'],
    }),
  ]
}

/** The strands of a tie between its post and its first screw bear all of its pull. */
function tieCheck(context: CheckContext, held: HeldEnd, { strands }: TiedBack): Check {
  const { catalogue, design, frame, lines } = context
  const wire = findWire(catalogue, design.wireId)
  const safe = wire && safeLoads(wire, design.wireEnding)
  // Held against what it may bear for years as it is set, and in its worst hour: whichever is nearer.
  const setN = strands * (strandPullN(frame, design.pattern, lines, design.setC) ?? 0)
  const isForYears = safe !== undefined && setN / safe.lastingN > held.memberForceN / safe.peakN
  return check({
    code: 'tie-pull',
    subject: 'P1',
    need: isForYears ? setN : held.memberForceN,
    holding: safe ? same(strands * (isForYears ? safe.lastingN : safe.peakN)) : null,
    missing: 'wire',
    unit: 'N',
    assumptions: [
      'all-wires-worst',
      'hinged-foot',
      'ends-made-off',
      ...(strands > 1 ? (['strands-share'] as const) : []),
    ],
    source: 'statics',
    isStructural: true,
  })
}

function tiedBackChecks(
  { catalogue, drives, frame }: CheckContext,
  held: HeldEnd,
  soil: Soil,
  { inLine }: TiedBack,
): Check[] {
  return frame.anchors.map((anchor) => {
    const screw = findScrew(catalogue, anchor.screwId)
    const logged = drives.get(anchor.id)
    const holding = screw ? anchorHolding(screw, soil, anchor, logged) : null
    const assumptions: Assumption[] = [
      'all-wires-worst',
      'hinged-foot',
      ...(inLine > 1 ? (['share-evenly'] as const) : []),
      ...(holding?.basis === 'soil' ? (['soil-by-feel'] as const) : []),
      logged ? 'drive-as-logged' : 'drive-full-depth',
      'safety-two',
    ]
    return check({
      code: 'anchor-pull',
      subject: anchor.label,
      need: held.memberForceN / inLine,
      holding: holding?.allowableN ?? null,
      missing: 'screw',
      unit: 'N',
      assumptions,
      source: 'perko',
      isStructural: true,
    })
  })
}

/**
 * Cross-arms on the end posts are pulled inward by the wires that end on them, those between carry a bay of plant and crop:
 * each half of an arm is a cantilever from its post.
 */
function armChecks({ frame, catalogue, lines, loads }: CheckContext, pattern: RowPattern): Check[] {
  const onArms = new Map(
    pattern.levels.flatMap((l) => (l.form === 'arms' ? [[l.id, l.spreadM / 2] as const] : [])),
  )
  if (onArms.size === 0) return []
  const lineOf = new Map(lines.flatMap((line) => line.ids.map((id) => [id, line] as const)))
  const bayM = frame.measures.bayM ?? 0
  const moments = frame.lines.flatMap(({ id, level, role }) => {
    const halfM = level === null ? undefined : onArms.get(level)
    if (halfM === undefined) return []
    const worstN = lineOf.get(id)?.worst.tensionN ?? Number.NaN
    return [Math.max(worstN, loadsOn(role, loads).cropNPerM * bayM) * halfM]
  })
  const stock = findStock(catalogue, pattern.armStockId)
  return [
    check({
      code: 'arm-bending',
      subject: pattern.armStockId,
      need: Math.max(...moments),
      holding: stock ? same(bendingMomentNm(stock)) : null,
      missing: stock ? 'wire' : 'stock',
      unit: 'Nm',
      assumptions: ['all-wires-worst', 'wet-wood'],
      source: 'statics',
    }),
  ]
}

/** Rows from this many on shelter one another to about half the wind. */
const SHELTERED_FROM = 3
const SHELTER_SHARE = 0.5
/** The thinnest band of leaf that the wind finds. */
const LEAST_LEAF_M = 0.1

function linePostChecks(
  { frame, site, design, catalogue }: CheckContext,
  pattern: RowPattern,
  soil: Soil,
): Check[] {
  const { bayM, leafBandM } = frame.measures
  const stock = findStock(catalogue, pattern.postStockId)
  if (bayM === null || leafBandM === null || !stock) return []
  const [lowM, highM] = leafBandM
  const leafM = Math.max(LEAST_LEAF_M, highM - lowM)
  const heightM = lowM + leafM / 2
  const shelter = design.repeat >= SHELTERED_FROM ? SHELTER_SHARE : 1
  const windN = shelter * leafWindNPerM(leafM, heightM, site.conditions.windMPerS) * bayM
  const post = { loadHeightM: heightM, postWidthM: stockWidthM(stock), soilFactor: 2 }
  const holding = (side: 0 | 1) =>
    lateralHoldingN({ ...post, depthM: pattern.postBuriedM, paPerM: soil.lateralBearingPaPerM[side] })
  const depth = embedment({
    ...post,
    lateralLoadN: Math.max(1e-6, windN / CODE_MARGIN),
    bearing: { paPerM: soil.lateralBearingPaPerM[0] },
  })
  const assumptions: Assumption[] = ['leaf-half-solid', 'gust-as-given', 'soil-by-feel', 'may-lean']
  return [
    check({
      code: 'post-sideways',
      subject: pattern.postStockId,
      need: windN,
      holding: [CODE_MARGIN * holding(0), CODE_MARGIN * holding(1)],
      unit: 'N',
      assumptions: shelter < 1 ? [...assumptions, 'rows-shelter'] : assumptions,
      source: 'ibc-1807',
      advice: { depthM: depth.depthM },
    }),
  ]
}
