import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runs } from '../../test/runs.ts'
import { addDays, daysBetween, isWithin, stageOn, windowDays } from './index.ts'
import type { Hemisphere, SeasonStage } from './index.ts'

const ORDER = ['bud-swell', 'young-shoots', 'growing', 'ripening', 'leaf-fall', 'dormant'] as const
const stageArb = fc.constantFrom(...ORDER)
const dayArb = fc.nat(3 * 365).map((n) => addDays('2025-01-01', n))

describe('a window of stages', () => {
  it.each([
    ['leaf-fall', 'bud-swell', ['leaf-fall', 'dormant', 'bud-swell']],
    ['young-shoots', 'growing', ['young-shoots', 'growing']],
    ['ripening', 'ripening', ['ripening']],
    ['dormant', 'young-shoots', ['dormant', 'bud-swell', 'young-shoots']],
  ] as const)('from %s to %s holds its stages and no other', (from, to, within) => {
    expect(ORDER.filter((stage) => isWithin(stage, { from, to })).sort()).toEqual([...within].sort())
  })

  it('is always open for what never rests', () => {
    expect(isWithin('all-year', { from: 'ripening', to: 'ripening' })).toBe(true)
    expect(isWithin('dormant', { from: 'all-year', to: 'all-year' })).toBe(true)
    expect(windowDays({ from: 'all-year', to: 'all-year' }, '2026-05-01', 50, 'north')).toBeNull()
    expect(windowDays({ from: 'growing', to: 'all-year' }, '2026-05-01', 50, 'north')).toBeNull()
  })

  it('has its days by the year, over New Year too', () => {
    const winter = { from: 'leaf-fall', to: 'bud-swell' } as const
    const days = { from: '2025-10-16', to: '2026-04-20' }
    expect(windowDays(winter, '2026-02-01', 50, 'north')).toEqual(days)
    expect(windowDays(winter, '2025-06-01', 50, 'north')).toEqual(days)
    expect(windowDays(winter, '2026-04-20', 50, 'north')).toEqual(days)
    expect(windowDays(winter, '2026-04-21', 50, 'north')!.from).toBe('2026-10-16')
    expect(windowDays({ from: 'growing', to: 'growing' }, '2026-07-01', 50, 'north')).toEqual({
      from: '2026-06-16',
      to: '2026-08-15',
    })
    expect(windowDays({ from: 'dormant', to: 'dormant' }, '2026-12-24', 50, 'north')).toEqual({
      from: '2026-11-16',
      to: '2027-03-15',
    })
  })

  it('opens and closes on the days on which its stages do, at any latitude, north and south', () => {
    fc.assert(
      fc.property(
        stageArb,
        stageArb,
        dayArb,
        fc.double({ min: 36, max: 59, noNaN: true }),
        fc.constantFrom<Hemisphere>('north', 'south'),
        (from, to, on, latitude, hemisphere) => {
          const stage = (day: string): SeasonStage => stageOn(day, latitude, hemisphere, false)
          const days = windowDays({ from, to }, on, latitude, hemisphere)!
          expect(stage(days.from)).toBe(from)
          expect(stage(addDays(days.from, -1))).not.toBe(from)
          expect(stage(days.to)).toBe(to)
          expect(stage(addDays(days.to, 1))).not.toBe(to)
          // It is the one that the day lies in, or the next.
          expect(daysBetween(on, days.to)).toBeGreaterThanOrEqual(0)
          if (isWithin(stage(on), { from, to })) expect(daysBetween(days.from, on)).toBeGreaterThanOrEqual(0)
          else expect(daysBetween(on, days.from)).toBeGreaterThan(0)
          expect(daysBetween(on, days.from)).toBeLessThanOrEqual(366)
        },
      ),
      { numRuns: runs(300) },
    )
  })
})
