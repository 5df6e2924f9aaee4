import type { Conditions } from '../design/index.ts'
import { requireRange } from '../errors/index.ts'
import type { Frame, PatternOfKind } from '../frame/index.ts'
import { gustAt, windForceN } from './wind.ts'
import { NO_LOADS } from './wires.ts'
import type { WireLoads } from './wires.ts'

type Net = PatternOfKind<'net'>

/** Solid share of what covers are made of: netting with its knots and dirt, and what lets no air through. */
const SOLIDITY: Readonly<Record<Net['cover'], number>> = { net: 0.25, film: 1 }
/** Lift on a flat open canopy (EN 1991-1-4, 7.3). */
const LIFT = 1

/** Lift of the wind under a cover, newtons per square metre of it. */
export function coverLiftPa({ cover, heightM }: Net, { windMPerS }: Pick<Conditions, 'windMPerS'>): number {
  return windForceN({
    speedMPerS: gustAt(heightM, windMPerS),
    areaM2: 1,
    solidity: SOLIDITY[cover],
    dragCoefficient: LIFT,
  })
}

/** Twelve metres of wet snow: beyond it, a slip of the decimal point. */
const MOST_SNOW_PA = 50_000

/**
 * Snow on a cover, newtons per square metre: all that lies on the ground's level, since wet snow bridges the holes of a
 * net; none where the cover is taken off before winter.
 */
export const coverSnowPa = ({ offInWinter }: Net, { snowPa }: Pick<Conditions, 'snowPa'>): number =>
  offInWinter ? 0 : requireRange('snowPa', snowPa, 0, MOST_SNOW_PA)

const WATER_N_PER_M3 = 9_810
/** A closed sheet that was pulled as taut as hands do hangs by so much of its bay, and its hollow is half as deep in the mean. */
const SLACK = 1 / 40
const MEAN_OF_HOLLOW = 0.5

/** Rain that stands in the hollows of a level sheet that lets none through, newtons per square metre; none in a net. */
export const coverWaterPa = ({ cover }: Net, bayM: number): number =>
  cover === 'film' ? WATER_N_PER_M3 * SLACK * bayM * MEAN_OF_HOLLOW : 0

/** What lies on a cover at its worst: snow, or rain that ponds; newtons per square metre. */
export const coverBurdenPa = (pattern: Net, conditions: Pick<Conditions, 'snowPa'>, bayM: number): number =>
  Math.max(coverSnowPa(pattern, conditions), coverWaterPa(pattern, bayM))

/**
 * What wind, snow and rain on a cover put on its cables. Each bay hands its load to the four cables round it, so a cable bears
 * half of the bay's longer side on each metre, from both its sides together.
 */
export function coverLoads(frame: Frame, pattern: Net, conditions: Conditions): WireLoads {
  const { bayM, bayAcrossM } = frame.measures
  const takesM = Math.max(bayM ?? 0, bayAcrossM ?? 0) / 2
  return {
    ...NO_LOADS,
    windNPerM: coverLiftPa(pattern, conditions) * takesM,
    snowNPerM: coverBurdenPa(pattern, conditions, Math.min(bayM ?? 0, bayAcrossM ?? 0)) * takesM,
  }
}
