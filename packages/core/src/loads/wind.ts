import { requirePositive, requireRange } from '../errors/index.ts'

/** Of air at 15 °C and sea level, kg/m³. */
export const AIR_DENSITY = 1.225
export const GRAVITY = 9.80665

/**
 * Wind on a screen, leafy wall or net, newtons: ½ρv² Cd A, with A the solid share of the outline. `solidity`
 * 1 is a board, 0 open air; Cd about 1.2 for flat screens, 0.8 for foliage that streams with the wind.
 */
export function windForceN(input: {
  readonly speedMPerS: number
  readonly areaM2: number
  readonly solidity: number
  readonly dragCoefficient: number
}): number {
  const v = requireRange('speedMPerS', input.speedMPerS, 0, 100)
  const area = requireRange('areaM2', input.areaM2, 0, 1e9) * requireRange('solidity', input.solidity, 0, 1)
  return 0.5 * AIR_DENSITY * v * v * requireRange('dragCoefficient', input.dragCoefficient, 0, 3) * area
}

/** Height at which weather services measure wind, and the roughness of open gardens and fields, metres. */
const MEASURED_AT_M = 10
const ROUGHNESS_M = 0.03

/**
 * A gust as it is among low plants: slower than the one that weather services measure at 10 m, by the
 * logarithmic profile ln(z/z0)/ln(10/z0) over short grass, z0 = 0.03 m (EN 1991-1-4, terrain II is 0.05).
 * Heights below 1 m count as 1 m.
 */
export function gustAt(heightM: number, speedMPerS: number): number {
  const z = Math.min(MEASURED_AT_M, Math.max(1, requireRange('heightM', heightM, 0, 1000)))
  return (speedMPerS * Math.log(z / ROUGHNESS_M)) / Math.log(MEASURED_AT_M / ROUGHNESS_M)
}

export interface TubInWind {
  /** Radius of a round base or half the side of a square one: a square base tips first square to a face. */
  readonly leverM: number
  readonly massKg: number
  readonly massCentreHeightM: number
  readonly screenAreaM2: number
  readonly screenCentreHeightM: number
  readonly dragCoefficient: number
  readonly windSpeedMPerS: number
  readonly safetyFactor: number
  readonly airDensityKgPerM3?: number
}

export interface Tipping {
  readonly criticalWindSpeedMPerS: number
  readonly windForceN: number
  readonly overturningMomentNm: number
  readonly resistingMomentNm: number
  /** To add low and central so that the wind asked for is withstood with the safety asked for. */
  readonly ballastKg: number
  readonly staticTiltLimitRad: number
}

/**
 * The wind that tips a tub with a frame about the edge of its base, and the ballast against a given wind:
 * moments of wind ½ρCd A v² h and of weight m g × lever (statics; sliding and wind on the tub itself are not
 * counted).
 */
export function tipping(tub: TubInWind): Tipping {
  const lever = requirePositive('leverM', tub.leverM)
  const mass = requirePositive('massKg', tub.massKg)
  const area = requirePositive('screenAreaM2', tub.screenAreaM2)
  const height = requirePositive('screenCentreHeightM', tub.screenCentreHeightM)
  const drag = requirePositive('dragCoefficient', tub.dragCoefficient)
  const v = requireRange('windSpeedMPerS', tub.windSpeedMPerS, 0, 100)
  const safety = requirePositive('safetyFactor', tub.safetyFactor)
  const perSpeed2 = 0.5 * (tub.airDensityKgPerM3 ?? AIR_DENSITY) * drag * area
  const force = perSpeed2 * v * v
  const resisting = mass * GRAVITY * lever
  return {
    criticalWindSpeedMPerS: Math.sqrt(resisting / (perSpeed2 * height)),
    windForceN: force,
    overturningMomentNm: force * height,
    resistingMomentNm: resisting,
    ballastKg: Math.max(0, (safety * force * height) / (GRAVITY * lever) - mass),
    staticTiltLimitRad: Math.atan(lever / requirePositive('massCentreHeightM', tub.massCentreHeightM)),
  }
}
