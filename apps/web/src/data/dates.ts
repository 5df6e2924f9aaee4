import type { CalendarDate } from '@klados/core/season'
import { currentLanguage, writers } from '../i18n/language.ts'

/** Of the garden that is open; undefined is this device's. */
let zone: string | undefined
/** Writes a date as `2026-12-02`, whatever the reader's language. */
let days = new Intl.DateTimeFormat('sv-SE')

/** Whose days count from now on; whether it is another day by them. */
export function setTimeZone(name: string | null | undefined): boolean {
  const next = name ?? undefined
  if (next === zone) return false
  const before = todayHere()
  zone = next
  try {
    days = new Intl.DateTimeFormat('sv-SE', { timeZone: zone })
  } catch {
    // Another browser's name for it, which this one does not know: then the days are this device's.
    days = new Intl.DateTimeFormat('sv-SE')
  }
  return todayHere() !== before
}

/** The garden's calendar day at an instant. */
export const dayAt = (instant: number | string | Date): CalendarDate => days.format(new Date(instant))

/** Today on the garden's calendar. */
export const todayHere = (now: number | Date = Date.now()): CalendarDate => dayAt(now)

/**
 * A calendar date in words of the reader's language. Read as UTC, or a western clock would show the day
 * before.
 */
export const formatDate = (date: CalendarDate, style: 'short' | 'long' = 'short'): string =>
  writers().dates[style].format(new Date(`${date}T00:00:00Z`))

/** A month of the year, 1 to 12, short and in the reader's language. */
export const monthName = (month: number): string => writers().months.format(Date.UTC(2000, month - 1))

const DAY_MS = 86_400_000

/** An instant of this device's clock as the time of day, with its date where it is not of these last hours. */
export const formatTime = (ms: number, now = Date.now()): string =>
  (Math.abs(now - ms) < DAY_MS / 2 ? writers().times : writers().moments).format(ms)

/**
 * A day as it was typed: in figures, in the order of the reader's language or with the year first, or with its month in
 * words. Null where it is none.
 */
export function readDate(typed: string): CalendarDate | null {
  const parts = typed.toLowerCase().match(/\p{L}+|\d+/gu) ?? []
  const [first] = parts
  if (parts.length !== 3 || first === undefined) return null
  const order = /^\d{4}$/.test(first) ? ['year', 'month', 'day'] : orderOfDate(parts)
  const figure = (of: string) => {
    const part = parts[order.indexOf(of)]!
    return of === 'month' && !/\d/.test(part) ? monthNamed(part) : Number(part)
  }
  const [year, month, day] = [figure('year'), figure('month'), figure('day')]
  const date = new Date(Date.UTC(year, month - 1, day))
  const isThere = year >= 1000 && date.getUTCMonth() === month - 1 && date.getUTCDate() === day
  return isThere ? date.toISOString().slice(0, 10) : null
}

/** What stands where: with its month in words the month says so itself, else as the language writes a date. */
function orderOfDate(parts: readonly string[]): readonly string[] {
  if (!/\d/.test(parts[0]!)) return ['month', 'day', 'year']
  if (!/\d/.test(parts[1]!)) return ['day', 'month', 'year']
  return new Intl.DateTimeFormat(currentLanguage())
    .formatToParts(0)
    .flatMap(({ type }) => (type === 'literal' ? [] : [type]))
}

/** 1 to 12; NaN where no month is called so. */
function monthNamed(word: string): number {
  const long = (n: number) => writers().dates.long.formatToParts(Date.UTC(2000, n - 1, 15))
  for (let n = 1; n <= 12; n++) {
    const name = long(n)
      .find(({ type }) => type === 'month')!
      .value.toLowerCase()
    if (word.length >= 3 && name.startsWith(word)) return n
  }
  return Number.NaN
}
