import type { CalendarDate } from '@klados/core/season'

/** Today on the grower's own calendar. */
export function todayHere(now = new Date()): CalendarDate {
  const pad = (n: number) => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}`
}

/**
 * A calendar date in words of the reader's language. Read as UTC, or a western clock would show the day
 * before.
 */
export function formatDate(date: CalendarDate, style: 'short' | 'long' = 'short'): string {
  const options: Intl.DateTimeFormatOptions =
    style === 'long'
      ? { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }
      : { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }
  return new Intl.DateTimeFormat(undefined, options).format(new Date(`${date}T00:00:00Z`))
}

/** A month of the year, 1 to 12, short and in the reader's language. */
export function monthName(month: number): string {
  return new Intl.DateTimeFormat(undefined, { month: 'short', timeZone: 'UTC' }).format(
    Date.UTC(2000, month - 1),
  )
}
