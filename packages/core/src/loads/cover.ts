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

/**
 * What wind and snow on a cover put on its cables. Each bay hands its load to the four cables round it, so a cable bears
 * half of the bay's longer side on each metre, from both its sides together.
 */
export function coverLoads(frame: Frame, pattern: Net, conditions: Conditions): WireLoads {
  const { bayM, bayAcrossM } = frame.measures
  const takesM = Math.max(bayM ?? 0, bayAcrossM ?? 0) / 2
  return {
    ...NO_LOADS,
    windNPerM: coverLiftPa(pattern, conditions) * takesM,
    snowNPerM: coverSnowPa(pattern, conditions) * takesM,
  }
}
