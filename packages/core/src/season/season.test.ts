import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  dateOfDay,
  dayAtSeasons,
  dayNumber,
  isCalendarDate,
  seasonStages,
  seasonsAtDay,
  seasonsOfGrowth,
  stageOn,
  woodYear,
} from './index.ts'

const dayArb = fc.integer({ min: dayNumber('1900-01-01'), max: dayNumber('2150-12-31') })

describe('calendar', () => {
  it('counts days as the platform does, leap years included', () => {
    fc.assert(
      fc.property(dayArb, (day) => {
        const date = dateOfDay(day)
        expect(dayNumber(date)).toBe(day)
        expect(Date.parse(`${date}T00:00:00Z`) / 86_400_000).toBe(day)
      }),
    )
  })

  it('knows a date from what only looks like one', () => {
    expect(isCalendarDate('2024-02-29')).toBe(true)
    for (const text of ['2026-02-29', '2026-13-01', '2026-1-1', 'today', ''])
      expect(isCalendarDate(text)).toBe(false)
    expect(addDays('2026-12-30', 3)).toBe('2027-01-02')
  })
})

describe('stages of the year', () => {
  it('follow each other through the year, half a year apart in the south', () => {
    const at = (on: string, hemisphere: 'north' | 'south') => stageOn(on, 50, hemisphere, false)
    expect(
      ['2026-01-15', '2026-03-20', '2026-05-10', '2026-07-01', '2026-09-15', '2026-10-25'].map((on) =>
        at(on, 'north'),
      ),
    ).toEqual(['dormant', 'bud-swell', 'young-shoots', 'growing', 'ripening', 'leaf-fall'])
    expect(at('2026-07-20', 'south')).toBe('dormant')
    expect(at('2026-01-05', 'south')).toBe('growing')
  })

  it('come later in spring and earlier in autumn the farther from the equator, and never indoors', () => {
    const firstDay = (latitude: number, stage: string) => {
      for (let day = dayNumber('2026-01-01'); ; day++)
        if (stageOn(dateOfDay(day), latitude, 'north', false) === stage) return day
    }
    expect(firstDay(58, 'young-shoots')).toBeGreaterThan(firstDay(44, 'young-shoots'))
    expect(firstDay(58, 'leaf-fall')).toBeLessThan(firstDay(44, 'leaf-fall'))
    expect(stageOn('2026-01-15', 50, 'north', true)).toBe('all-year')
  })

  it('are one of those that there are on any day, at any latitude', () => {
    fc.assert(
      fc.property(dayArb, fc.double({ min: -90, max: 90, noNaN: true }), (day, latitude) => {
        expect(seasonStages).toContain(
          stageOn(dateOfDay(day), latitude, latitude < 0 ? 'south' : 'north', false),
        )
      }),
    )
  })
})

describe('seasons of growth', () => {
  it('never fall, and gain one each year in both hemispheres', () => {
    fc.assert(
      fc.property(
        dayArb,
        fc.constantFrom('north' as const, 'south' as const),
        fc.boolean(),
        (day, hemisphere, allYear) => {
          const at = (d: number) => seasonsOfGrowth(dateOfDay(d), hemisphere, allYear)
          expect(at(day + 1)).toBeGreaterThanOrEqual(at(day) - 1e-12)
          expect(at(day + 1461) - at(day)).toBeCloseTo(4, 1)
        },
      ),
    )
  })

  it('are reached first on the day that is asked for', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1900, max: 2150, noNaN: true }),
        fc.constantFrom('north' as const, 'south' as const),
        fc.boolean(),
        (seasons, hemisphere, allYear) => {
          const day = dayAtSeasons(seasons, hemisphere, allYear)
          const at = (d: number) => seasonsAtDay(d, hemisphere, allYear)
          expect(at(day + 0.01)).toBeGreaterThanOrEqual(seasons)
          expect(at(day - 0.01)).toBeLessThanOrEqual(seasons)
          // Through the winter they are the same: it is autumn's end that counts.
          expect(at(day - 1)).toBeLessThan(seasons)
        },
      ),
    )
  })

  it('stand still in the winter of the hemisphere', () => {
    const gained = (hemisphere: 'north' | 'south') =>
      seasonsOfGrowth('2027-02-01', hemisphere, false) - seasonsOfGrowth('2026-11-15', hemisphere, false)
    expect(gained('north')).toBe(0)
    expect(gained('south')).toBeGreaterThan(0.4)
  })

  it('make one-year wood of a summer shoot at leaf fall', () => {
    expect(woodYear('2026-10-31', 'north')).toBe(2026)
    expect(woodYear('2026-11-01', 'north')).toBe(2027)
    expect(woodYear('2027-03-01', 'north')).toBe(2027)
    expect(woodYear('2026-05-15', 'south')).toBe(woodYear('2026-03-01', 'south') + 1)
  })
})
