import { requireRange } from '../errors/index.ts'
import { MOST_M, MOST_N } from './limits.ts'
import type { Soil } from './soils.ts'

/** A ground screw or helical anchor as bought. */
export interface GroundScrew {
  readonly helixDiameterM: number
  readonly lengthM: number
  /**
   * Holding per newton metre of driving torque, 1/m: about 33 for slim square shafts, 23 for thick tubes
   * (Perko 2009).
   */
  readonly torqueFactorPerM: number
}

/**
 * How it went in. `angleFromVerticalRad` is as driven; `reworks` counts reversals and second drives in one
 * hole.
 */
export interface Drive {
  readonly depthAlongM: number
  readonly angleFromVerticalRad: number
  readonly reworks: number
  readonly torqueNm: number | null
  readonly pullTestN: number | null
}

export type HoldingBasis = 'soil' | 'torque' | 'pull-test'

/** What it may be loaded with, safety taken off, as a range; one number twice where it was measured. */
export interface Holding {
  readonly allowableN: readonly [number, number]
  readonly basis: HoldingBasis
  /** Shares that the drive itself took off: 1 for none. */
  readonly reductions: { readonly shallow: number; readonly slant: number; readonly rework: number }
}

export const SAFETY = { soil: 2, torque: 2, pullTest: 1.5 } as const
/** A helix nearer to the surface than this many diameters lifts a cone of soil instead of bearing on it. */
const DEEP_DIAMETERS = 5
/** Each rework loosens the soil that the helix bears on; below half there is nothing left to lose. */
const REWORK_SHARE = 0.85
const LEAST_REWORK_SHARE = 0.5

/**
 * Holding of a ground screw along its own line. From soil: one helix bearing, A(9c + γ D Nq) with D its depth
 * below the surface and Nq = e^(π tan φ) tan²(45° + φ/2) (Perko 2009, ch. 4), over a safety of 2. Logged
 * torque overrules the soil (Q = K T), a pull test overrules both, over 1.5. Short and reworked drives count less, except
 * in a pull test, which has felt them. Depth is along the shaft: a screw in line with its pull loses nothing by its slant,
 * one across it holds the share of the pull that runs along its shaft, the cosine of the angle between them.
 */
export function screwHolding(
  screw: GroundScrew,
  soil: Soil,
  drive: Drive,
  /** Where the pull comes from, from the vertical, on the side to which the screw leans. */
  pullFromVerticalRad: number,
): Holding {
  const depthAlong = requireRange(
    'depthAlongM',
    drive.depthAlongM,
    0,
    requireRange('lengthM', screw.lengthM, 1e-3, MOST_M) * 1.5,
  )
  const leans = requireRange('angleFromVerticalRad', drive.angleFromVerticalRad, 0, 1.4)
  const between = leans - requireRange('pullFromVerticalRad', pullFromVerticalRad, 0, Math.PI / 2)
  const slant = Math.max(0, Math.cos(between))
  const diameter = requireRange('helixDiameterM', screw.helixDiameterM, 1e-3, 10)
  const shallow = Math.min(1, depthAlong / (DEEP_DIAMETERS * diameter))
  const rework = Math.max(LEAST_REWORK_SHARE, REWORK_SHARE ** requireRange('reworks', drive.reworks, 0, 50))
  const reductions = { shallow, slant, rework }
  const share = shallow * slant * rework
  if (drive.pullTestN !== null) {
    const held = requireRange('pullTestN', drive.pullTestN, 0, MOST_N) / SAFETY.pullTest
    return { allowableN: [held, held], basis: 'pull-test', reductions: { shallow: 1, slant: 1, rework: 1 } }
  }
  if (drive.torqueNm !== null) {
    const held =
      (requireRange('torqueFactorPerM', screw.torqueFactorPerM, 0, 1e4) *
        requireRange('torqueNm', drive.torqueNm, 0, MOST_N) *
        share) /
      SAFETY.torque
    return { allowableN: [held, held], basis: 'torque', reductions }
  }
  const area = (Math.PI * diameter * diameter) / 4
  const bearing = (end: 0 | 1) =>
    area *
    (9 * soil.cohesionPa[end] + soil.unitWeightNPerM3 * depthAlong * bearingFactor(soil.frictionDeg[end]))
  const allowable = (end: 0 | 1) => (bearing(end) * share) / SAFETY.soil
  return { allowableN: [allowable(0), allowable(1)], basis: 'soil', reductions }
}

function bearingFactor(frictionDeg: number): number {
  const phi = (frictionDeg * Math.PI) / 180
  return Math.exp(Math.PI * Math.tan(phi)) * Math.tan(Math.PI / 4 + phi / 2) ** 2
}

/**
 * How far a screw that failed must move, metres: so many helix diameters of soil that no drive has loosened.
 */
export function undisturbedDistanceM(screw: GroundScrew): number {
  return 4 * screw.helixDiameterM
}
