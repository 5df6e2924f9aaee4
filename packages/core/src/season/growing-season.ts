import { dateOfDay, dayNumber, yearOf, yearOfDay, yearStart } from './calendar.ts'
import type { CalendarDate } from './calendar.ts'

export type Hemisphere = 'north' | 'south'
/** Where nobody has said the latitude, in degrees, it is the north. */
export const hemisphereAt = (latitudeDeg: number | null | undefined): Hemisphere =>
  (latitudeDeg ?? 0) < 0 ? 'south' : 'north'

/** Half a year: the south's seasons are the north's, this many days later. */
const HALF_YEAR_DAYS = 182
/**
 * Wood thickens from about early April, fastest in July, until about mid-October (north); a default for cool
 * climates.
 */
const GROWTH_START_DAY = 95
const GROWTH_DAYS = 190
/** From leaf fall on, this summer's shoot counts as one-year wood. */
const LEAF_FALL_MONTH_DAY = '-11-01'

/**
 * Seasons of thickening that have passed since year 0, as a rising number with fractions: its difference over
 * two days is the share of a year's thickening between them. Within a year it follows u − sin(2πu)/2π, slow
 * at both ends.
 */
export function seasonsOfGrowth(date: CalendarDate, hemisphere: Hemisphere, allYear: boolean): number {
  return seasonsAtDay(dayNumber(date), hemisphere, allYear)
}

/** As `seasonsOfGrowth`, for a day number with fractions. */
export function seasonsAtDay(day: number, hemisphere: Hemisphere, allYear: boolean): number {
  const shifted = hemisphere === 'north' ? day : day - HALF_YEAR_DAYS
  const year = yearOfDay(shifted)
  const start = yearStart(year)
  if (allYear) return year + (shifted - start) / (yearStart(year + 1) - start)
  const u = Math.min(1, Math.max(0, (shifted - start - GROWTH_START_DAY) / GROWTH_DAYS))
  return year + u - Math.sin(2 * Math.PI * u) / (2 * Math.PI)
}

/** Halvings of a season that bring a day to less than a second. */
const HALVINGS = 28

/** The first day, with its fraction, at which so many seasons have passed: what `seasonsAtDay` is read the other way. */
export function dayAtSeasons(seasons: number, hemisphere: Hemisphere, allYear: boolean): number {
  const year = Math.ceil(seasons) - 1
  const share = seasons - year
  const start = yearStart(year) + (hemisphere === 'north' ? 0 : HALF_YEAR_DAYS)
  if (allYear) return start + share * (yearStart(year + 1) - yearStart(year))
  let [low, high] = [0, 1]
  for (let i = 0; i < HALVINGS; i++) {
    const u = (low + high) / 2
    if (u - Math.sin(2 * Math.PI * u) / (2 * Math.PI) < share) low = u
    else high = u
  }
  return start + GROWTH_START_DAY + high * GROWTH_DAYS
}

/**
 * The growing season that a day belongs to: it ends at leaf fall, and the days after it count towards the
 * next.
 */
export function woodYear(date: CalendarDate, hemisphere: Hemisphere): number {
  const shifted = hemisphere === 'north' ? date : dateOfDay(dayNumber(date) - HALF_YEAR_DAYS)
  const year = yearOf(shifted)
  return shifted >= `${year}${LEAF_FALL_MONTH_DAY}` ? year + 1 : year
}
