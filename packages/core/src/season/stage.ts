import { dateOfDay, dayNumber, yearOf } from './calendar.ts'
import type { CalendarDate } from './calendar.ts'
import type { Hemisphere } from './growing-season.ts'

/** Where a woody plant outdoors stands in its year; `all-year` for what never rests. */
export const seasonStages = [
  'dormant',
  'bud-swell',
  'young-shoots',
  'growing',
  'ripening',
  'leaf-fall',
  'all-year',
] as const
export type SeasonStage = (typeof seasonStages)[number]

/** First days of the stages at 50° from the equator near the sea, north; a default until warmth is counted. */
const FROM: readonly (readonly [monthDay: string, stage: SeasonStage])[] = [
  ['03-16', 'bud-swell'],
  ['04-21', 'young-shoots'],
  ['06-16', 'growing'],
  ['08-16', 'ripening'],
  ['10-16', 'leaf-fall'],
  ['11-16', 'dormant'],
]
/** Spring comes so many days later, and autumn earlier, for each degree away from the equator (Hopkins 1918, rounded). */
const DAYS_PER_DEGREE = 3
const AT_DEG = 50
const HALF_YEAR_DAYS = 182
/** Nearer to the equator than this one goes by what grows there in its own way: the figures end. */
const LEAST_DEG = 30
const MOST_DEG = 62

/** The first day of a stage that begins in a northern year, as a day number. */
function firstDay(index: number, year: number, latitudeDeg: number | null): number {
  const degrees = Math.min(MOST_DEG, Math.max(LEAST_DEG, Math.abs(latitudeDeg ?? AT_DEG)))
  const shift = (degrees - AT_DEG) * DAYS_PER_DEGREE
  // Up to midsummer the north waits; from then on it is early.
  return dayNumber(`${year}-${FROM[index]![0]}`) + Math.round(index < FROM.length / 2 ? shift : -shift)
}

const northern = (on: CalendarDate, hemisphere: Hemisphere): number =>
  dayNumber(on) - (hemisphere === 'north' ? 0 : HALF_YEAR_DAYS)

/** The stage of the year on a day, from month, latitude and whether the kind grows all year. */
export function stageOn(
  on: CalendarDate,
  latitudeDeg: number | null,
  hemisphere: Hemisphere,
  growsAllYear: boolean,
): SeasonStage {
  if (growsAllYear) return 'all-year'
  const day = northern(on, hemisphere)
  const year = yearOf(dateOfDay(day))
  let stage: SeasonStage = 'dormant'
  for (const [index, [, next]] of FROM.entries()) if (day >= firstDay(index, year, latitudeDeg)) stage = next
  return stage
}

/** From the first day of one stage to the last of another, over the turn of the year where the second comes before. */
export interface StageWindow {
  readonly from: SeasonStage
  readonly to: SeasonStage
}

const placeInYear = (stage: SeasonStage): number => FROM.findIndex(([, name]) => name === stage)

/** Whether a stage lies in a window; what never rests is always in it. */
export function isWithin(stage: SeasonStage, { from, to }: StageWindow): boolean {
  if (stage === 'all-year' || from === 'all-year') return true
  const [at, first, last] = [placeInYear(stage), placeInYear(from), placeInYear(to)]
  return first <= last ? at >= first && at <= last : at >= first || at <= last
}

/**
 * The days of a window that a day lies in, else of the next one; `null` for what has no stages.
 */
export function windowDays(
  { from, to }: StageWindow,
  on: CalendarDate,
  latitudeDeg: number | null,
  hemisphere: Hemisphere,
): { readonly from: CalendarDate; readonly to: CalendarDate } | null {
  const [first, last] = [placeInYear(from), placeInYear(to)]
  if (first < 0 || last < 0) return null
  const day = northern(on, hemisphere)
  const back = hemisphere === 'north' ? 0 : HALF_YEAR_DAYS
  const thisYear = yearOf(dateOfDay(day))
  for (const year of [thisYear - 1, thisYear, thisYear + 1]) {
    const begins = firstDay(first, year, latitudeDeg)
    const next = (last + 1) % FROM.length
    const nextYear = year + (first <= last ? 0 : 1) + (next === 0 ? 1 : 0)
    const ends = firstDay(next, nextYear, latitudeDeg) - 1
    if (day <= ends) return { from: dateOfDay(begins + back), to: dateOfDay(ends + back) }
  }
  return null
}
