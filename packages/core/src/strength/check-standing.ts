import { leafyOutline, LEAF_DRAG, LEAF_SOLIDITY, gustAt, tipping, windForceN } from '../loads/index.ts'
import { bendingMomentNm, findStock, stockMassKgPerM } from '../catalogue/index.ts'
import type { Stock } from '../catalogue/index.ts'
import { potOf, potSoilLitres } from '../frame/index.ts'
import type { Member } from '../frame/index.ts'
import { check, same } from './check.ts'
import type { Check, CheckContext } from './check.ts'

/**
 * Legs, stakes and hoops in the wind: each takes its share of the force on the leafy outline, and bends at
 * the soil.
 */
export function legChecks({ frame, site, design, catalogue }: CheckContext): Check[] {
  const { pattern } = design
  if (!['spiral', 'obelisk', 'stakes', 'pole', 'arch', 'column'].includes(pattern.kind)) return []
  const legs = frame.members.filter((member) => LEG_PARTS.has(member.part))
  const leg = legs[0]
  if (!leg) return []
  const stock = findStock(catalogue, leg.stockId)!
  const soilM = leg.foot?.yM ?? 0
  const topM = Math.max(...leg.path.map((p) => p.yM))
  const outline = leafyOutline(frame)
  const widthM =
    pattern.kind === 'stakes' || pattern.kind === 'pole'
      ? LONE_PLANT_M * (pattern.kind === 'stakes' ? legs.length : 1)
      : outline.widthM
  const areaM2 = widthM * (topM - soilM)
  const windN = windForceN({
    speedMPerS: gustAt((topM + soilM) / 2, site.conditions.windMPerS),
    areaM2,
    solidity: LEAF_SOLIDITY,
    dragCoefficient: LEAF_DRAG,
  })
  const feet = legs.length * (pattern.kind === 'arch' ? 2 : 1)
  const need = (windN * ((topM - soilM) / 2)) / feet
  return check({
    code: 'leg-bending',
    subject: leg.stockId,
    need,
    holding: same(bendingMomentNm(stock)),
    unit: 'Nm',
    assumptions: [
      'leaf-half-solid',
      'gust-as-given',
      'posts-share',
      ...(isWood(stock) ? (['wet-wood'] as const) : []),
    ],
    source: 'wind-pressure',
  })
}

const LEG_PARTS: ReadonlySet<Member['part']> = new Set(['stake', 'leg', 'hoop', 'core', 'column'])
/** Width of one plant on a stake or pole of its own. */
const LONE_PLANT_M = 0.35
const isWood = (stock: Stock) =>
  stock.material === 'softwood' || stock.material === 'hardwood' || stock.material === 'bamboo'

/** Moist potting soil, kilograms per litre. */
const SOIL_KG_PER_LITRE = 1.1
const EMPTY_POT_SHARE = 0.12
const TUB_SAFETY = 1.5

/** Wind that would tip the tub, with the ballast that would hold it. */
export function tubChecks({ frame, site, design, catalogue }: CheckContext): Check[] {
  const pot = potOf(design.pattern)
  if (!pot) return []
  const litres = potSoilLitres(pot)
  const structureKg = frame.members.reduce(
    (sum, member) => sum + stockMassKgPerM(findStock(catalogue, member.stockId)!) * member.cutLengthM,
    0,
  )
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
  return check({
    code: 'tub-tips',
    subject: 'pot',
    need: site.conditions.windMPerS,
    holding: same(result.criticalWindSpeedMPerS),
    unit: 'm/s',
    assumptions: ['leaf-half-solid', 'no-sliding', 'gust-as-given'],
    source: 'statics',
    advice: { ballastKg: result.ballastKg },
  })
}
