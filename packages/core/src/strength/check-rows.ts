import type { FrameDesign } from '../design/index.ts'
import { leafWindNPerM } from '../loads/index.ts'
import { embedment, findSoil, heldEnd, lateralHoldingN, lineEnd, screwHolding } from '../ground/index.ts'
import type { Soil } from '../ground/index.ts'
import {
  bendingMomentNm,
  findScrew,
  findStock,
  secondMomentM4,
  stockMaterials,
  stockWidthM,
} from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import type { RowPattern } from '../frame/index.ts'
import { check, same, widthOf } from './check.ts'
import type { Check, CheckContext } from './check.ts'

/** Ends and line posts of a row. */
export function rowChecks(context: CheckContext): Check[] {
  const { design, site, lines } = context
  if (design.pattern.kind !== 'row') return []
  const pattern: RowPattern = design.pattern
  const soil = findSoil(site.conditions.soil)
  const pullOf = new Map(lines.flatMap((line) => line.ids.map((id) => [id, line.worst.tensionN] as const)))
  const pulls = pattern.levels.flatMap((level, k) => {
    const ids = level.form === 'single' ? [`w${k}`] : [`w${k}a`, `w${k}b`]
    return ids.map((id) => ({ heightM: level.heightM, tensionN: pullOf.get(id) ?? 0 }))
  })
  if (pattern.waterHeightM !== null)
    pulls.push({ heightM: pattern.waterHeightM, tensionN: pullOf.get('water') ?? 0 })
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
      ...check({
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
      ...check({
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
  const held = heldEnd(pulls, {
    kind: end.kind === 'tied-back' ? 'tie-back' : 'strut',
    attachHeightM: end.attachHeightM,
    angleFromGroundRad: (end.angleDeg * Math.PI) / 180,
  })
  if (end.kind === 'braced') {
    // The strut's foot pushes against the soil like a short wall of the brace's own width, a hand deep.
    const widthM = widthOf(catalogue, end.stockId)
    const bearing = (side: 0 | 1) => soil.verticalBearingPa[side] * widthM * BRACE_FOOT_M
    return check({
      code: 'brace-foot',
      subject: 'P1',
      need: held.memberForceN,
      holding: [bearing(0), bearing(1)],
      unit: 'N',
      assumptions: ['all-wires-worst', 'hinged-foot', 'soil-by-feel'],
      source: 'ibc-1806',
      isStructural: true,
    })
  }
  return frame.anchors.slice(0, 2).flatMap((anchor) => {
    const screw = findScrew(catalogue, anchor.screwId)
    if (!screw) return []
    const logged = drives.get(anchor.id)
    // Driven in the line of its tie, as it should be; a logged drive says how it really went.
    const drive = logged ?? {
      depthAlongM: screw.lengthM,
      angleFromVerticalRad: Math.PI / 2 - (end.angleDeg * Math.PI) / 180,
      reworks: 0,
      torqueNm: null,
      pullTestN: null,
    }
    const holding = screwHolding(screw, soil, drive)
    return check({
      code: 'anchor-pull',
      subject: anchor.label,
      need: held.memberForceN,
      holding: holding.allowableN,
      unit: 'N',
      assumptions: [
        'all-wires-worst',
        'hinged-foot',
        ...(holding.basis === 'soil' ? (['soil-by-feel'] as const) : []),
        logged ? 'drive-as-logged' : 'drive-full-depth',
        'safety-two',
      ],
      source: 'perko',
      isStructural: true,
    })
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
  const holding = (side: 0 | 1) =>
    lateralHoldingN({ ...post, depthM: pattern.postBuriedM, paPerM: soil.lateralBearingPaPerM[side] })
  const depth = embedment({
    ...post,
    lateralLoadN: Math.max(1e-6, windN / CODE_MARGIN),
    bearing: { paPerM: soil.lateralBearingPaPerM[0] },
  })
  return check({
    code: 'post-sideways',
    subject: pattern.postStockId,
    need: windN,
    holding: [holding(0), CODE_MARGIN * holding(1)],
    unit: 'N',
    assumptions: [
      'leaf-half-solid',
      'gust-as-given',
      'soil-by-feel',
      'may-lean',
      ...(shelter < 1 ? (['rows-shelter'] as const) : []),
    ],
    source: 'ibc-1807',
    advice: { depthM: depth.depthM },
  })
}

/** Rows from this many on shelter one another to about half the wind. */
const SHELTERED_FROM = 3
const SHELTER_SHARE = 0.5
/**
 * The code's figure is for posts that must not move. One in a row may lean in the worst gust of a year and be
 * set upright again; what it takes before it goes over is about four times that.
 */
const CODE_MARGIN = 4

/**
 * Give of both ends of a free-standing row together, for one of its wires: cantilevers 3EI/h³, in series,
 * shared.
 */
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
