import { findStock, stockMassKgPerM } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import type { PlannedSite } from '../design/index.ts'
import { isUpright, potSoilLitres } from '../frame/index.ts'
import type { Frame, Member, Pot } from '../frame/index.ts'
import type { Point3 } from '../geometry/index.ts'
import { leafyOutline } from './leaf.ts'
import { LEAF_DRAG, LEAF_SOLIDITY } from './leaf-wind.ts'
import { GRAVITY, gustAt, tipping, windForceN } from './wind.ts'
import type { Tipping } from './wind.ts'

/** Width of one plant on a stake or pole of its own, metres. */
export const LONE_PLANT_M = 0.35
/** Potting soil that has dried out, moist, and soaked, kilograms per litre. */
export const SOIL_KG_PER_LITRE = { dry: 0.6, moist: 1.1, wet: 1.5 } as const
/** What an empty pot weighs for each litre in it, kilograms. */
const EMPTY_KG_PER_LITRE = 0.12
/**
 * What is advised is what the check asks for, no more: the gust is taken as it is at ten metres, on all of the leaf, and
 * friction at its least.
 */
const SAFETY = 1
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

/** How wet the soil of pots is taken to be: dry it holds least, soaked it weighs most. */
type SoilState = keyof typeof SOIL_KG_PER_LITRE

/** What all pots of a frame weigh with their soil, stones and what stands in them, kilograms. */
export function standingKg(frame: Frame, pot: Pot, catalogue: Catalogue, soil: SoilState): number {
  const potKg = potSoilLitres(pot) * (SOIL_KG_PER_LITRE[soil] + EMPTY_KG_PER_LITRE) + pot.ballastKg
  return potKg * potsUnder(frame) + structureKg(frame, catalogue)
}

/** Two pots under one frame are a base as deep as either, and twice as heavy. */
export const potsUnder = (frame: Frame): number =>
  Math.max(1, frame.units.filter(({ good }) => good === 'pot' || good === 'tub').length)

/** The wind that tips a pot with its frame in leaf, and the ballast that would hold it. */
export function tubInWind(
  frame: Frame,
  pot: Pot,
  catalogue: Catalogue,
  windMPerS: number,
  soil: SoilState,
): Tipping {
  const outline = leafyOutline(frame)
  const topM = Math.max(pot.heightM + 0.05, ...frame.members.flatMap((m) => m.path.map((p) => p.yM)))
  const widthM = Math.max(LONE_PLANT_M, outline.widthM)
  return tipping({
    leverM: pot.widthM / 2,
    massKg: standingKg(frame, pot, catalogue, soil),
    massCentreHeightM: pot.heightM / 2,
    screenAreaM2: Math.max(LEAST_SCREEN_M2, widthM * (topM - pot.heightM) * LEAF_SOLIDITY),
    screenCentreHeightM: (pot.heightM + topM) / 2,
    dragCoefficient: LEAF_DRAG,
    windSpeedMPerS: windMPerS,
    safetyFactor: SAFETY,
  })
}

function structureKg(frame: Frame, catalogue: Catalogue): number {
  return frame.members.reduce((sum, { stockId, cutLengthM, pieces }) => {
    const stock = findStock(catalogue, stockId)
    return sum + (stock ? stockMassKgPerM(stock) * cutLengthM * pieces : Number.NaN)
  }, 0)
}

/** Feet stand on a floor with no soil under them: on a terrace, without a pot. */
export function standsOnFloor(site: Pick<PlannedSite, 'setting'>, frame: Frame, pot: Pot | null): boolean {
  return site.setting === 'terrace' && frame.traits.stands === 'on-legs' && pot === null
}

/** Half the depth of a single foot plate, where all feet stand in one line. */
const FOOT_PLATE_M = 0.05
/** What is left of friction on a floor from wet tiles to rough slabs. */
const FRICTION = [0.3, 0.5] as const

export interface OnFloor {
  readonly tips: Tipping
  /** Level push of the wind asked for, and what friction holds against it; newtons. */
  readonly pushN: number
  readonly gripN: readonly [number, number]
  /** To add so that it neither tips nor slides, kilograms. */
  readonly ballastKg: number
}

/**
 * A frame or a pot that stands loose on a floor in the wind from its weaker side: whether it tips about the edge of
 * its base, and whether it slides. Friction of 0.3 to 0.5 (wood, rubber or clay on tiles and slabs).
 */
export function feetInWind(
  frame: Frame,
  pot: Pot | null,
  ballastKg: number,
  catalogue: Catalogue,
  windMPerS: number,
): OnFloor {
  const tips = pot
    ? tubInWind(frame, pot, catalogue, windMPerS, 'dry')
    : legsInWind(frame, ballastKg, catalogue, windMPerS)
  const weightN = tips.resistingMomentNm / (pot ? pot.widthM / 2 : leverOf(frame))
  const moistN = pot ? standingKg(frame, pot, catalogue, 'moist') * GRAVITY : weightN
  const gripN = [weightN * FRICTION[0], moistN * FRICTION[1]] as const
  const toHoldN = (SAFETY * tips.windForceN) / FRICTION[0]
  return {
    tips,
    pushN: tips.windForceN,
    gripN,
    ballastKg: Math.max(tips.ballastKg, (toHoldN - weightN) / GRAVITY, 0),
  }
}

/** From the middle of what stands on its feet to the edge that it tips about, in its shorter direction. */
function leverOf(frame: Frame): number {
  const feet = frame.members.flatMap(({ foot, path, role }) =>
    foot ? (role === 'hoop' ? [foot, path.at(-1)!] : [foot]) : [],
  )
  const half = (pick: (p: Point3) => number) =>
    (Math.max(...feet.map(pick)) - Math.min(...feet.map(pick))) / 2 + FOOT_PLATE_M
  return feet.length === 0
    ? FOOT_PLATE_M
    : Math.min(
        half((p) => p.xM),
        half((p) => p.zM),
      )
}

function legsInWind(frame: Frame, ballastKg: number, catalogue: Catalogue, windMPerS: number): Tipping {
  const outline = leafyOutline(frame)
  const topM = Math.max(0.05, ...frame.members.flatMap((m) => m.path.map((p) => p.yM)))
  return tipping({
    leverM: leverOf(frame),
    massKg: structureKg(frame, catalogue) + ballastKg,
    massCentreHeightM: topM / 2,
    screenAreaM2: Math.max(LEAST_SCREEN_M2, Math.max(LONE_PLANT_M, outline.widthM) * topM * LEAF_SOLIDITY),
    screenCentreHeightM: topM / 2,
    dragCoefficient: LEAF_DRAG,
    windSpeedMPerS: windMPerS,
    safetyFactor: SAFETY,
  })
}
