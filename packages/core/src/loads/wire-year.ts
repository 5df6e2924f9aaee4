import { requireRange, requireWhole } from '../errors/index.ts'
import type { Conditions } from '../design/index.ts'
import { loadsOn, stateUnder } from './wires.ts'
import type { WireLine, WireLoads } from './wires.ts'
import type { Hemisphere } from '../season/index.ts'

/**
 * A month in the life of a wire: pull in its coldest night and its warmest day, sag with the load of the
 * season.
 */
export interface WireMonth {
  /** 1 to 12. */
  readonly month: number
  readonly coldC: number
  readonly warmC: number
  readonly coldTensionN: number
  readonly warmTensionN: number
  readonly sagM: number
}

/**
 * Half the distance between a month's coldest night and warmest day, degrees: temperate gardens show 8 to 12.
 */
const HALF_RANGE_C = 10
/** Share of full leaf by month of the northern year, and of the crop's weight. */
const LEAF = [0, 0, 0.1, 0.4, 0.8, 1, 1, 1, 1, 0.6, 0.1, 0]
const CROP = [0, 0, 0, 0, 0, 0.2, 0.5, 0.8, 1, 0.3, 0, 0]

/**
 * Coldest night and warmest day of a month, from the coldest and the hottest that the place knows: a cosine
 * of the year. Throws `core/*`.
 */
export function monthRange(
  month: number,
  conditions: Pick<Conditions, 'coldestC' | 'hottestC'>,
  hemisphere: Hemisphere,
): readonly [number, number] {
  requireWhole('month', month, 1, 12)
  const coldestC = requireRange('coldestC', conditions.coldestC, -100, 100)
  const hottestC = requireRange('hottestC', conditions.hottestC, -100, 100)
  const warmest = hemisphere === 'north' ? 7 : 1
  const half = Math.min(HALF_RANGE_C, (hottestC - coldestC) / 4)
  const middle = (coldestC + hottestC) / 2
  const swing = (hottestC - coldestC) / 2 - half
  const mean = middle + swing * Math.cos((2 * Math.PI * (month - warmest)) / 12)
  return [mean - half, mean + half]
}

/**
 * Pull and sag month by month, for a wire that has stretched for good by `permanentStrain` since it was
 * strained; 0 for one that is set anew each spring. Leaf and crop come and go with the season.
 */
export function wireYear(
  line: WireLine,
  loads: WireLoads,
  conditions: Conditions,
  hemisphere: Hemisphere,
  permanentStrain = 0,
): WireMonth[] {
  const borne = loadsOn(line.role, loads)
  return Array.from({ length: 12 }, (_, i) => {
    const month = i + 1
    const season = hemisphere === 'north' ? i : (i + 6) % 12
    const [coldC, warmC] = monthRange(month, conditions, hemisphere)
    const plantNPerM = borne.leafNPerM * LEAF[season]! + (borne.cropNPerM - borne.leafNPerM) * CROP[season]!
    const at = (temperatureC: number, verticalNPerM: number) =>
      stateUnder(line, { temperatureC, verticalNPerM, windNPerM: 0, permanentStrain })
    const warm = at(warmC, plantNPerM)
    return {
      month,
      coldC,
      warmC,
      coldTensionN: at(coldC, plantNPerM).tensionN,
      warmTensionN: warm.tensionN,
      sagM: warm.sagM,
    }
  })
}

/**
 * The bare pull of the wire at a temperature: what to strain it to today so that at the design's own
 * temperature it has the pull that the design asks for, or, after permanent stretch, what is left of it.
 */
export function tensionToday(line: WireLine, todayC: number, permanentStrain = 0): number {
  return stateUnder(line, { temperatureC: todayC, verticalNPerM: 0, windNPerM: 0, permanentStrain }).tensionN
}
