import { afterEach, describe, expect, it } from 'vitest'
import { dayAt, formatDate, monthName, readDate, setTimeZone, todayHere } from '../data/dates.ts'
import { UNITS } from '../ui/units.tsx'
import {
  currentLanguage,
  formatNumber,
  listPlain,
  listWords,
  nearestLanguage,
  setLanguage,
} from './language.ts'

const atFirst = currentLanguage()
afterEach(() => setLanguage(atFirst))

describe('the language of a browser', () => {
  it.each([
    [['en-US', 'de'], 'en-US'],
    [['de-AT', 'en-US'], 'en-US'],
    [['en-AU'], 'en-GB'],
    [['de'], 'en-GB'],
    [[], 'en-GB'],
  ])('of %j is %s', (wished, language) => expect(nearestLanguage(wished)).toBe(language))
})

describe('a chosen language', () => {
  it.each([
    ['en-GB', '5 February 2026', 'Feb', '1.5', '1.65 m', 'ivy, hop and fig', 'ivy, hop, fig'],
    ['en-US', 'February 5, 2026', 'Feb', '1.5', '1.65 m', 'ivy, hop, and fig', 'ivy, hop, fig'],
    ['de-DE', '5. Februar 2026', 'Feb', '1,5', '1,65 m', 'ivy, hop und fig', 'ivy, hop und fig'],
  ])(
    '%s writes dates, numbers, lengths and lists in its own way',
    (language, date, month, number, length, list, plain) => {
      setLanguage(language)
      expect(formatDate('2026-02-05', 'long')).toBe(date)
      expect(monthName(2)).toBe(month)
      expect(formatNumber(1.5, 1)).toBe(number)
      expect(UNITS.metric.length(1.65)).toBe(length)
      expect(listWords(['ivy', 'hop', 'fig'])).toBe(list)
      expect(listPlain(['ivy', 'hop', 'fig'])).toBe(plain)
    },
  )
})

describe('a day', () => {
  afterEach(() => void setTimeZone(null))

  it('is the garden’s: what is saved late in the evening in Honolulu is of that evening', () => {
    const lateThere = '2026-12-03T09:57:00.000Z'
    setTimeZone('Pacific/Honolulu')
    const there = todayHere()
    expect(setTimeZone('Pacific/Honolulu')).toBe(false)
    // The days of the two are never the same.
    expect(setTimeZone('Pacific/Kiritimati')).toBe(true)
    expect(todayHere() > there).toBe(true)
    setTimeZone('Pacific/Honolulu')
    expect(dayAt(lateThere)).toBe('2026-12-02')
    expect(todayHere(new Date(lateThere))).toBe('2026-12-02')
    setTimeZone('Pacific/Auckland')
    expect(dayAt(lateThere)).toBe('2026-12-03')
    expect(dayAt('2026-12-03T11:30:00.000Z')).toBe('2026-12-04')
  })

  it('is the reader’s own where the garden says nothing, or what this browser does not know', () => {
    const now = new Date(2026, 0, 9, 23, 59)
    expect(todayHere(now)).toBe('2026-01-09')
    setTimeZone('Middle/Earth')
    expect(todayHere(now)).toBe('2026-01-09')
  })
})

describe('a day that is typed', () => {
  it.each([
    ['en-GB', '5/2/2026', '2026-02-05'],
    ['en-US', '2/5/2026', '2026-02-05'],
    ['en-GB', '5 Feb 2026', '2026-02-05'],
    ['en-GB', '5 february 2026', '2026-02-05'],
    ['en-US', 'Feb 5, 2026', '2026-02-05'],
    ['en-GB', '2026-02-05', '2026-02-05'],
    ['en-US', '2026-2-5', '2026-02-05'],
    ['en-GB', '31/2/2026', null],
    ['en-GB', '5 Foo 2026', null],
    ['en-GB', '', null],
    ['en-GB', '5/2', null],
  ])('in %s as "%s" is %s', (language, typed, day) => {
    setLanguage(language)
    expect(readDate(typed)).toBe(day)
  })

  it.each(['en-GB', 'en-US', 'de-DE'])('is read as %s writes it', (language) => {
    setLanguage(language)
    for (let month = 1; month <= 12; month++) {
      const day = `2025-${String(month).padStart(2, '0')}-17`
      expect(readDate(formatDate(day))).toBe(day)
      expect(readDate(formatDate(day, 'long'))).toBe(day)
    }
  })
})
