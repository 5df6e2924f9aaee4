import { findStock, stockMassKgPerM } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import { isUpright, potSoilLitres } from '../frame/index.ts'
import type { Frame, Member, Pot } from '../frame/index.ts'
import { leafyOutline } from './leaf.ts'
import { LEAF_DRAG, LEAF_SOLIDITY } from './leaf-wind.ts'
import { gustAt, tipping, windForceN } from './wind.ts'
import type { Tipping } from './wind.ts'

/** Width of one plant on a stake or pole of its own, metres. */
export const LONE_PLANT_M = 0.35
/** Moist potting soil, kilograms per litre, and what an empty pot weighs of that. */
const SOIL_KG_PER_LITRE = 1.1
const EMPTY_POT_SHARE = 0.12
const TUB_SAFETY = 1.5
/** A pot meets at least so much wind itself. */
const LEAST_SCREEN_M2 = 0.02

/**
 * Moment of the wind at the soil, on each foot of what stands on legs; `null` without legs. Newton metres.
 */
export interface LegWind {
  readonly leg: Member
  readonly momentNm: number
}

/** Wind on the leaf of a frame on legs: each takes its share and bends at the soil. */
export function windOnLegs(frame: Frame, windMPerS: number): LegWind | null {
  const legs = frame.members.filter((member) => isUpright(member.role))
  const leg = legs[0]
  if (!leg) return null
  const soilM = leg.foot?.yM ?? 0
  const topM = Math.max(...leg.path.map((p) => p.yM))
  const forceN = windForceN({
    speedMPerS: gustAt(Math.max(0, (topM + soilM) / 2), windMPerS),
    areaM2: leafWidthM(frame, legs.length) * Math.max(0, topM - soilM),
    solidity: LEAF_SOLIDITY,
    dragCoefficient: LEAF_DRAG,
  })
  // A hoop has two feet.
  const feet = legs.reduce((sum, { role }) => sum + (role === 'hoop' ? 2 : 1), 0)
  return { leg, momentNm: (forceN * ((topM - soilM) / 2)) / feet }
}

function leafWidthM(frame: Frame, legs: number): number {
  switch (frame.traits.fills) {
    case 'outline':
      return leafyOutline(frame).widthM
    case 'each-upright':
      return LONE_PLANT_M * legs
    case 'one-upright':
      return LONE_PLANT_M
  }
}

/** The wind that tips a pot with its frame in leaf, and the ballast that would hold it. */
export function tubInWind(frame: Frame, pot: Pot, catalogue: Catalogue, windMPerS: number): Tipping {
  const structureKg = frame.members.reduce((sum, { stockId, cutLengthM }) => {
    const stock = findStock(catalogue, stockId)
    return sum + (stock ? stockMassKgPerM(stock) * cutLengthM : Number.NaN)
  }, 0)
  const outline = leafyOutline(frame)
  const topM = Math.max(pot.heightM + 0.05, ...frame.members.flatMap((m) => m.path.map((p) => p.yM)))
  const widthM = Math.max(LONE_PLANT_M, outline.widthM)
  return tipping({
    leverM: pot.widthM / 2,
    massKg: potSoilLitres(pot) * SOIL_KG_PER_LITRE * (1 + EMPTY_POT_SHARE) + pot.ballastKg + structureKg,
    massCentreHeightM: pot.heightM / 2,
    screenAreaM2: Math.max(LEAST_SCREEN_M2, widthM * (topM - pot.heightM) * LEAF_SOLIDITY),
    screenCentreHeightM: (pot.heightM + topM) / 2,
    dragCoefficient: LEAF_DRAG,
    windSpeedMPerS: windMPerS,
    safetyFactor: TUB_SAFETY,
  })
}
