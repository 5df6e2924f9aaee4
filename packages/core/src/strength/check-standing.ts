import { bendingMomentNm, findStock } from '../catalogue/index.ts'
import type { Stock } from '../catalogue/index.ts'
import { potOf } from '../design/index.ts'
import { tubInWind, windOnLegs } from '../loads/index.ts'
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
  const result = tubInWind(frame, pot, catalogue, windMPerS)
  return [
    check({
      code: 'tub-tips',
      subject: 'pot',
      need: windMPerS,
      holding: same(result.criticalWindSpeedMPerS),
      unit: 'm/s',
      assumptions: ['leaf-half-solid', 'no-sliding', 'gust-as-given'],
      source: 'statics',
      advice: { ballastKg: result.ballastKg },
    }),
  ]
}
