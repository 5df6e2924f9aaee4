import { requirePositive, requireRange } from '../errors/index.ts'
import type { CableMaterial } from './cable.ts'
import { strainFromReading } from './state.ts'
import type { InstalledCable } from './state.ts'

/** What a strainer must be able to take up, metres, by its causes. */
export interface StrainerTravel {
  readonly slackM: number
  readonly stretchM: number
  readonly seasonM: number
  readonly permanentM: number
  readonly totalM: number
}

/**
 * Travel that a strainer needs on a wire of `lengthM`: the slack left when it is hooked on, the elastic
 * stretch up to the pull HL/EA, the length that heat gives in the warmest hour αΔTL, and the permanent
 * stretch of a few years εL.
 */
export function strainerTravel(
  cable: CableMaterial,
  wire: {
    readonly lengthM: number
    readonly tensionN: number
    readonly slackM: number
    readonly warmerByC: number
    readonly permanentStrain: number
  },
): StrainerTravel {
  const L = requirePositive('lengthM', wire.lengthM)
  const slackM = requireRange('slackM', wire.slackM, 0)
  const stretchM =
    (requireRange('tensionN', wire.tensionN, 0) * L) /
    requirePositive('axialStiffnessN', cable.axialStiffnessN)
  const seasonM = cable.expansionPerC * requireRange('warmerByC', wire.warmerByC, 0, 200) * L
  const permanentM = requireRange('permanentStrain', wire.permanentStrain, 0, 0.5) * L
  return { slackM, stretchM, seasonM, permanentM, totalM: slackM + stretchM + seasonM + permanentM }
}

/** A tension that somebody measured, days after the wire was strained. */
export interface TensionReading {
  readonly afterDays: number
  readonly tensionN: number
  readonly temperatureC: number
}

/** Permanent stretch is quick at first and slows down: as ln(1 + t/τ), with τ one week. */
const CREEP_WEEK_DAYS = 7
const YEAR_DAYS = 365.25
const creepShare = (days: number) =>
  Math.log1p(days / CREEP_WEEK_DAYS) / Math.log1p(YEAR_DAYS / CREEP_WEEK_DAYS)

/** The other way round; a share that no wire reaches in its life takes for ever. */
const daysOfShare = (share: number) =>
  CREEP_WEEK_DAYS * Math.expm1(share * Math.log1p(YEAR_DAYS / CREEP_WEEK_DAYS))

export interface Loosening {
  readonly firstYearStrain: number
  readonly strainAfter: (days: number) => number
  /** Days after straining until it has stretched so far; Infinity for never. */
  readonly daysUntil: (strain: number) => number
}

/**
 * Permanent strain as a function of days since straining. `firstYearStrain` is the trade's figure for this
 * kind of wire; logged readings correct it by least squares on the strain that each of them betrays, the
 * figure counting as one reading of a year's age, so that a single doubtful reading does not overturn it.
 * Never below zero.
 */
export function loosening(
  cable: CableMaterial,
  installed: InstalledCable,
  firstYearStrain: number,
  readings: readonly TensionReading[],
): Loosening {
  requireRange('firstYearStrain', firstYearStrain, 0, 0.2)
  let weighted = firstYearStrain
  let weight = 1
  for (const reading of readings) {
    const share = creepShare(requireRange('afterDays', reading.afterDays, 0, 40_000))
    const strain = strainFromReading(cable, installed, {
      horizontalTensionN: reading.tensionN,
      temperatureC: reading.temperatureC,
    })
    weighted += share * strain
    weight += share * share
  }
  const fitted = Math.max(0, weighted / weight)
  return {
    firstYearStrain: fitted,
    strainAfter: (days) => fitted * creepShare(Math.max(0, days)),
    daysUntil: (strain) => (strain <= 0 ? 0 : fitted <= 0 ? Infinity : daysOfShare(strain / fitted)),
  }
}
