import type { CalendarDate } from '@klados/core/season'

/** Today on the grower's own calendar. */
export function todayHere(now = new Date()): CalendarDate {
  const pad = (n: number) => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}`
}

// To make one of these takes as long as a hundred dates in its words.
const inWords = (month: 'short' | 'long') =>
  new Intl.DateTimeFormat(undefined, { day: 'numeric', month, year: 'numeric', timeZone: 'UTC' })
const dateWords = { short: inWords('short'), long: inWords('long') }
const monthWords = new Intl.DateTimeFormat(undefined, { month: 'short', timeZone: 'UTC' })

/**
 * A calendar date in words of the reader's language. Read as UTC, or a western clock would show the day
 * before.
 */
export const formatDate = (date: CalendarDate, style: 'short' | 'long' = 'short'): string =>
  dateWords[style].format(new Date(`${date}T00:00:00Z`))

/** A month of the year, 1 to 12, short and in the reader's language. */
export const monthName = (month: number): string => monthWords.format(Date.UTC(2000, month - 1))

const timeWords = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' })
const momentWords = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const DAY_MS = 86_400_000

/** An instant of this device's clock as the time of day, with its date where it is not of these last hours. */
export const formatTime = (ms: number, now = Date.now()): string =>
  (Math.abs(now - ms) < DAY_MS / 2 ? timeWords : momentWords).format(ms)
