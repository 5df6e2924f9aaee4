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

/** The stage of the year on a day, from month, latitude and whether the kind grows all year. */
export function stageOn(
  on: CalendarDate,
  latitudeDeg: number | null,
  hemisphere: Hemisphere,
  growsAllYear: boolean,
): SeasonStage {
  if (growsAllYear) return 'all-year'
  const day = hemisphere === 'north' ? dayNumber(on) : dayNumber(on) - HALF_YEAR_DAYS
  const degrees = Math.min(MOST_DEG, Math.max(LEAST_DEG, Math.abs(latitudeDeg ?? AT_DEG)))
  const shift = (degrees - AT_DEG) * DAYS_PER_DEGREE
  const year = yearOf(dateOfDay(day))
  let stage: SeasonStage = 'dormant'
  for (const [index, [monthDay, next]] of FROM.entries()) {
    // Up to midsummer the north waits; from then on it is early.
    const later = index < FROM.length / 2 ? shift : -shift
    if (day >= dayNumber(`${year}-${monthDay}`) + Math.round(later)) stage = next
  }
  return stage
}
