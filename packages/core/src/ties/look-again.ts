import type { PlantKind } from '../kinds/index.ts'
import { addDays, dateOfDay, dayAtSeasons, dayNumber, seasonsAtDay, soonest } from '../season/index.ts'
import type { CalendarDate, DateRange, Due, Hemisphere } from '../season/index.ts'
import { pieceAge, thickeningMmPerYear } from '../wood/index.ts'
import type { Piece, ThickeningPace, Tie } from '../wood/index.ts'
import { tightDiameterMm } from './loop.ts'
import type { TieMaterial } from './materials.ts'

export type LookReason = 'spring-off' | 'soft-stem' | 'tight' | 'material' | 'yearly' | 'postponed'

export interface LookAgain extends Due<LookReason> {
  /**
   * When the loop becomes tight, at the fast and the slow end of the kind's thickening; `null` if not in ten
   * years.
   */
  readonly tight: DateRange | null
  readonly materialEnds: DateRange
}

/** Laid wood springs off a bad tie in the first days (craft: look after 1–3 days). */
const SPRING_OFF_DAYS = 2
/** A soft stem against its stake is looked at every other day while it grows away from a fresh tie (craft). */
const SOFT = { everyDays: 2, forDays: 14 } as const
/** One goes before the earliest day on which the loop could bite. */
const LEAD_DAYS = 7
const HORIZON_DAYS = 3650
/** When a look found a tie sound past its day, how soon to look again. */
const AGAIN_DAYS = { tight: 14, material: 60 } as const
const YEAR_DAYS = 365

/**
 * The day to look at a tie again and why: the first of spring-off after tying (of a soft stem on its stake every
 * other day of the first fortnight), the earliest day the loop can be tight, the earliest day its material can fail, and a year since the last look. A day that has been
 * looked at since moves on; a postponement moves the result, never forward in time.
 */
export function lookAgain(
  tie: Tie,
  piece: Piece,
  kind: PlantKind,
  material: TieMaterial,
  hemisphere: Hemisphere,
): LookAgain {
  const tight = tightRange(tie, piece, kind, material, hemisphere)
  const materialEnds = {
    earliestOn: addDays(tie.madeOn, material.lifeDays[0]),
    latestOn: addDays(tie.madeOn, material.lifeDays[1]),
  }
  const looked = tie.lookedOn
  const candidates: [Due<LookReason>, ...Due<LookReason>[]] = [
    {
      dueOn: afterLook(materialEnds.earliestOn, looked, AGAIN_DAYS.material),
      reason: 'material',
      range: materialEnds,
    },
    { dueOn: addDays(looked ?? tie.madeOn, YEAR_DAYS), reason: 'yearly', range: null },
  ]
  if (tight) {
    candidates.push({
      dueOn: afterLook(addDays(tight.earliestOn, -LEAD_DAYS), looked, AGAIN_DAYS.tight),
      reason: 'tight',
      range: tight,
    })
  }
  const softOn = addDays(looked ?? tie.madeOn, SOFT.everyDays)
  const isSoft = tie.support?.on === 'member' && pieceAge(piece, tie.madeOn, hemisphere) === 0
  if (isSoft && softOn <= addDays(tie.madeOn, SOFT.forDays))
    candidates.push({ dueOn: softOn, reason: 'soft-stem', range: null })
  else if (looked === null)
    candidates.push({ dueOn: addDays(tie.madeOn, SPRING_OFF_DAYS), reason: 'spring-off', range: null })
  const first = soonest(candidates)
  const isPutOff = tie.postponedUntil !== null && tie.postponedUntil > first.dueOn
  return {
    ...(isPutOff ? { dueOn: tie.postponedUntil!, reason: 'postponed' as const, range: null } : first),
    tight,
    materialEnds,
  }
}

function afterLook(day: CalendarDate, looked: CalendarDate | null, againDays: number): CalendarDate {
  return looked !== null && day <= looked ? addDays(looked, againDays) : day
}

function tightRange(
  tie: Tie,
  piece: Piece,
  kind: PlantKind,
  material: TieMaterial,
  hemisphere: Hemisphere,
): DateRange | null {
  const setDay = dayNumber(tie.setOn)
  const loop = {
    hitch: tie.hitch,
    supportDiameterMm: tie.supportDiameterMm,
    loopLengthMm: tie.loopLengthMm * (1 + material.stretch),
  }
  // A piece measured since tells more than the day of tying; the wood's age decides its rate.
  const isMeasuredSince = piece.measuredOn > tie.setOn
  const known = isMeasuredSince
    ? { diameterMm: piece.baseMm, day: dayNumber(piece.measuredOn) }
    : { diameterMm: tie.stemDiameterMm, day: setDay }
  const age = pieceAge(piece, dateOfDay(known.day), hemisphere)
  const toGrowMm = tightDiameterMm(loop) - known.diameterMm
  const seasonsThen = seasonsAtDay(known.day, hemisphere, kind.growsAllYear)
  /** Days after tying; `null` where it is not within the horizon. */
  const dayAt = (pace: ThickeningPace) => {
    if (toGrowMm <= 0) return 0
    const seasons = seasonsThen + toGrowMm / thickeningMmPerYear(kind, age, pace)
    const days = Number.isFinite(seasons)
      ? dayAtSeasons(seasons, hemisphere, kind.growsAllYear) - setDay
      : Infinity
    return days > HORIZON_DAYS ? null : Math.max(0, days)
  }
  const earliest = dayAt('fast')
  if (earliest === null) return null
  const latest = dayAt('slow')
  return {
    earliestOn: dateOfDay(setDay + earliest),
    latestOn: latest === null ? null : dateOfDay(setDay + latest),
  }
}
