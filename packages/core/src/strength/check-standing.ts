import { bendingMomentNm, findStock } from '../catalogue/index.ts'
import type { Stock } from '../catalogue/index.ts'
import { potOf } from '../design/index.ts'
import type { FrameDesign } from '../design/index.ts'
import { findKind } from '../kinds/index.ts'
import { feetInWind, standsOnFloor, tubInWind, windOnLegs } from '../loads/index.ts'
import type { Tipping } from '../loads/index.ts'
import { check, same } from './check.ts'
import type { Assumption, Check, CheckContext } from './check.ts'

const WOODS: ReadonlySet<Stock['material']> = new Set(['softwood', 'hardwood', 'bamboo'])

/**
 * Legs, stakes and hoops in the wind: each takes its share of the force on the leafy outline, and bends at
 * the soil.
 */
export function legChecks({ frame, site, catalogue }: CheckContext): Check[] {
  if (frame.traits.stands !== 'on-legs') return []
  const wind = windOnLegs(frame, site.conditions.windMPerS)
  const stock = wind && findStock(catalogue, wind.leg.stockId)
  if (!wind) return []
  const assumptions: Assumption[] = ['leaf-half-solid', 'gust-as-given', 'posts-share']
  return [
    check({
      code: 'leg-bending',
      subject: wind.leg.stockId,
      need: wind.momentNm,
      holding: stock ? same(bendingMomentNm(stock)) : null,
      missing: 'stock',
      unit: 'Nm',
      assumptions: stock && WOODS.has(stock.material) ? [...assumptions, 'wet-wood'] : assumptions,
      source: 'wind-pressure',
    }),
  ]
}

/** Wind that would tip the tub, with the ballast that would hold it. */
export function tubChecks({ frame, site, design, catalogue }: CheckContext): Check[] {
  const pot = potOf(design.pattern)
  if (!pot) return []
  const { windMPerS } = site.conditions
  const [dry, moist] = (['dry', 'moist'] as const).map((soil) =>
    tubInWind(frame, pot, catalogue, windMPerS, soil),
  ) as [Tipping, Tipping]
  return [
    check({
      code: 'tub-tips',
      subject: 'pot',
      need: windMPerS,
      holding: [dry.criticalWindSpeedMPerS, moist.criticalWindSpeedMPerS],
      unit: 'm/s',
      assumptions: ['leaf-half-solid', 'soil-dry-or-moist', 'no-sliding', 'gust-as-given'],
      source: 'statics',
      advice: { ballastKg: dry.ballastKg },
    }),
  ]
}

/** On a floor nothing is dug in: what stands there loose tips, slides or stands. */
export function floorChecks({ frame, site, design, catalogue }: CheckContext): Check[] {
  const pot = potOf(design.pattern)
  const isLoose = standsOnFloor(site, frame, pot)
  if (!isLoose && !(pot && site.setting === 'terrace')) return []
  const { windMPerS } = site.conditions
  const { tips, pushN, gripN, ballastKg } = feetInWind(frame, pot, design.feetBallastKg, catalogue, windMPerS)
  const slides = check({
    code: 'floor-slides',
    subject: '',
    need: pushN,
    holding: gripN,
    unit: 'N',
    assumptions: [
      'leaf-half-solid',
      'gust-as-given',
      'friction-on-floor',
      ...(pot ? (['soil-dry-or-moist'] as const) : []),
    ],
    source: 'statics',
    advice: { ballastKg },
  })
  if (!isLoose) return [slides]
  return [
    slides,
    check({
      code: 'floor-tips',
      subject: '',
      need: windMPerS,
      holding: same(tips.criticalWindSpeedMPerS),
      unit: 'm/s',
      assumptions: ['leaf-half-solid', 'gust-as-given'],
      source: 'statics',
      advice: { ballastKg: tips.ballastKg },
    }),
  ]
}

/** String that is wound against the way its kind twines lets the plant fall: it is so or it is not. */
export function windingChecks({ design }: CheckContext): Check[] {
  const isWrong = isWoundWrongly(design)
  if (isWrong === null) return []
  return [
    check({
      code: 'winding',
      subject: '',
      need: 1,
      // Right is right: nothing is nearer to failing than it.
      holding: same(isWrong ? 0 : Infinity),
      unit: 'none',
      assumptions: [],
      source: 'flora',
    }),
  ]
}

/** True when the string is wound against the way the kind twines; `null` where that does not matter. */
export function isWoundWrongly(design: FrameDesign): boolean | null {
  const kind = design.plantKindId === null ? undefined : findKind(design.plantKindId)
  const winding = kind?.winding ?? null
  return design.pattern.kind === 'spiral' && winding !== null ? winding !== design.pattern.winding : null
}
