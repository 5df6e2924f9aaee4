import { loosening } from '../cable/index.ts'
import type { TensionLog } from '../frame-log/index.ts'
import { addDays, dateOfDay, dayNumber, daysBetween, soonest } from '../season/index.ts'
import type { CalendarDate, DateRange, Due } from '../season/index.ts'
import { cableOf, loadsOn, stateUnder } from './wires.ts'
import type { WireLine, WireLoads } from './wires.ts'

/** `slack`: it falls below what it needs; `yearly`: wires are looked at each year, whatever the sums say. */
export type StrainReason = 'slack' | 'yearly'

/** A wire that sags by more than this share of its span under wet crop in the heat wants straining. */
export const SAG_SHARE = 1 / 30
/** From one reading alone a wire may stretch half or half as much again as its kind does. */
const GUESS = [0.5, 1.5] as const
const YEAR_DAYS = 365
const HORIZON_DAYS = 3650
/** No wire stretches further than this and stays a wire. */
const MOST_STRAIN = 0.02
const STEPS = 40

/**
 * The day on which a wire has to be strained again: when its permanent stretch lets it sag too far under its crop in
 * the greatest heat. From the day that it was set alone as a range, the trade's figure for its kind halved and half
 * as much again; from two readings or more by the stretch that they betray. `null` for a wire that nobody has set.
 */
export function strainDue(
  line: WireLine,
  log: readonly TensionLog[],
  { loads, hottestC }: { readonly loads: WireLoads; readonly hottestC: number },
): Due<StrainReason> | null {
  const setAt = log.findLastIndex(({ what }) => what === 'set')
  const [set, ...found] = log.slice(Math.max(0, setAt))
  if (!set || !(set.tensionN > 0)) return null
  const yearly: Due<StrainReason> = {
    dueOn: addDays(found.at(-1)?.on ?? set.on, YEAR_DAYS),
    reason: 'yearly',
    range: null,
  }
  const strain = strainItBears(line, set, loadsOn(line.role, loads).cropNPerM, hottestC)
  const readings = found.map(({ on, tensionN, temperatureC }) => ({
    afterDays: Math.max(0, daysBetween(set.on, on)),
    tensionN,
    temperatureC,
  }))
  const installed = {
    spansM: line.spansM,
    horizontalTensionN: set.tensionN,
    temperatureC: set.temperatureC,
  }
  const daysFor = (share: number) =>
    loosening(cableOf(line.wire), installed, line.wire.firstYearStrain * share, readings).daysUntil(strain)
  const days = found.length > 0 ? [daysFor(1), daysFor(1)] : [daysFor(GUESS[1]), daysFor(GUESS[0])]
  const slack = slackFrom(set.on, days[0]!, days[1]!)
  return slack ? soonest([slack, yearly]) : yearly
}

function slackFrom(on: CalendarDate, soonDays: number, lateDays: number): Due<StrainReason> | null {
  if (soonDays > HORIZON_DAYS) return null
  const dayAfter = (days: number) => dateOfDay(dayNumber(on) + Math.floor(days))
  const range: DateRange = {
    earliestOn: dayAfter(soonDays),
    latestOn: lateDays > HORIZON_DAYS ? null : dayAfter(lateDays),
  }
  return { dueOn: range.earliestOn, reason: 'slack', range }
}

/** Permanent strain at which its longest span sags as far as it may, by halving; 0 where it does already. */
function strainItBears(line: WireLine, set: TensionLog, cropNPerM: number, hottestC: number): number {
  const limitM = line.spansM.reduce((most, spanM) => Math.max(most, spanM), 0) * SAG_SHARE
  const asSet = { ...line, setTensionN: set.tensionN, setC: set.temperatureC }
  const isSlack = (permanentStrain: number) =>
    stateUnder(asSet, {
      temperatureC: hottestC,
      verticalNPerM: cropNPerM,
      windNPerM: 0,
      permanentStrain,
    }).sagM > limitM
  if (isSlack(0)) return 0
  let [holds, slack] = [0, MOST_STRAIN]
  for (let step = 0; step < STEPS; step++) {
    const middle = (holds + slack) / 2
    if (isSlack(middle)) slack = middle
    else holds = middle
  }
  return holds
}
