/** A calendar day as `YYYY-MM-DD`, in the garden's own time. Text sorts as time does. */
export type CalendarDate = string

const DATE = /^(\d{4})-(\d{2})-(\d{2})$/

/**
 * Days since 1970-01-01 (proleptic Gregorian; H. Hinnant, "chrono-compatible low-level date algorithms",
 * 2013). NaN for text that is no date.
 */
export function dayNumber(date: CalendarDate): number {
  const match = DATE.exec(date)
  if (!match) return Number.NaN
  return dayOf(Number(match[1]), Number(match[2]), Number(match[3]))
}

function dayOf(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year
  const era = Math.floor(y / 400)
  const yearOfEra = y - era * 400
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear
  return era * 146097 + dayOfEra - 719468
}

/** The day number of a year's first day. */
export const yearStart = (year: number): number => dayOf(year, 1, 1)

/** The date of a day number; fractions fall back to the day they lie in. */
export function dateOfDay(number: number): CalendarDate {
  const { year, month, day } = civilOf(number)
  return `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`
}

/** The year that a day number lies in. */
export const yearOfDay = (number: number): number => civilOf(number).year

function civilOf(number: number): { year: number; month: number; day: number } {
  const z = Math.floor(number) + 719468
  const era = Math.floor(z / 146097)
  const dayOfEra = z - era * 146097
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) /
      365,
  )
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100))
  const shifted = Math.floor((5 * dayOfYear + 2) / 153)
  const day = dayOfYear - Math.floor((153 * shifted + 2) / 5) + 1
  const month = shifted < 10 ? shifted + 3 : shifted - 9
  return { year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0), month, day }
}

export function isCalendarDate(text: string): boolean {
  return dateOfDay(dayNumber(text)) === text
}

export function addDays(date: CalendarDate, days: number): CalendarDate {
  return dateOfDay(dayNumber(date) + days)
}

/** Days from a to b; negative when b is earlier. */
export function daysBetween(a: CalendarDate, b: CalendarDate): number {
  return dayNumber(b) - dayNumber(a)
}

export function yearOf(date: CalendarDate): number {
  return Number(date.slice(0, 4))
}
