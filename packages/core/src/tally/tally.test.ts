import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { budState, countOfWinter, readTallyLine, rowTotals } from './index.ts'
import type { RowPlant } from './index.ts'

const nothing = { canes: null, spurs: null, buds: null, ties: null, minutes: null, pruningsKg: null }
const thirty = { aim: 30, min: 27, max: 33 }
const vine = (n: number, buds: number | null, is: RowPlant['is'] = 'counted', target = thirty): RowPlant => ({
  id: `v${n}`,
  is,
  target,
  counted: buds === null ? null : { ...nothing, canes: 2, spurs: 2, buds, ties: 6, minutes: 4 },
})

describe('a line called out in a row', () => {
  it('is canes, spurs, buds, ties and minutes, with what was cut off in its unit', () => {
    expect(readTallyLine('2 2 28')).toMatchObject({
      ok: true,
      counted: { canes: 2, spurs: 2, buds: 28, ties: null },
    })
    expect(readTallyLine('- - 30 6 5 0,6kg')).toMatchObject({
      ok: true,
      counted: { canes: null, buds: 30, pruningsKg: 0.6 },
    })
    const pounds = readTallyLine('2 2 28 1.5lb')
    expect(pounds.ok && pounds.counted.pruningsKg).toBeCloseTo(0.6804, 4)
  })
  it.each([
    ['', 'empty'],
    ['two', 'unknown-word'],
    ['2 2 28 6 5 9', 'not-a-count'],
    ['99999', 'not-a-count'],
    ['2 2 28 9999kg', 'not-a-count'],
    ['2.5', 'unknown-word'],
  ])('"%s" is refused: %s', (text, reason) => {
    expect(readTallyLine(text)).toMatchObject({ ok: false, reason })
  })
})

describe('a row of forty against thirty buds each', () => {
  // Three exceptions drawn, one missing, two young with a budget of their own.
  const row = Array.from({ length: 40 }, (_, i) => {
    if (i === 5) return vine(i, null, 'missing')
    if (i === 6 || i === 7) return vine(i, 8, 'young', { aim: 8, min: 6, max: 10 })
    if (i >= 37) return vine(i, 36, 'portrait')
    return vine(i, i < 20 ? 30 : i < 30 ? 24 : null)
  })
  const totals = rowTotals(row)

  it('counts neither the missing nor the young towards the budget', () => {
    expect(totals).toMatchObject({ plants: 40, missing: 1, young: 2, portraits: 3, wanted: 37 * 30 })
    expect(totals.known).toBe(17 + 10 + 3)
    expect(totals.buds).toBe(17 * 30 + 10 * 24 + 3 * 36)
    expect(totals.wantedOfKnown).toBe(30 * 30)
    expect(totals).toMatchObject({ short: 10, over: 3 })
  })

  it('adds up canes, ties and minutes of all that stand', () => {
    const counted = row.filter((plant) => plant.counted !== null).length
    expect(totals).toMatchObject({ canes: 2 * counted, ties: 6 * counted, minutes: 4 * counted })
  })

  it('says of each how it stands, the young by their own budget', () => {
    expect(row.map(budState).slice(4, 9)).toEqual(['within', 'not-counted', 'within', 'within', 'within'])
    expect(budState(row[35]!)).toBe('unknown')
  })
})

describe('totals', () => {
  it('of two parts of a row are those of the row', () => {
    const plant = fc
      .record({
        n: fc.integer({ min: 0, max: 1e6 }),
        buds: fc.option(fc.integer({ min: 0, max: 90 }), { nil: null }),
      })
      .chain(({ n, buds }) =>
        fc
          .constantFrom('counted' as const, 'portrait' as const, 'young' as const, 'missing' as const)
          .map((is) => vine(n, buds, is)),
      )
    fc.assert(
      fc.property(fc.array(plant), fc.array(plant), (a, b) => {
        const [one, other, both] = [rowTotals(a), rowTotals(b), rowTotals([...a, ...b])]
        for (const key of Object.keys(both) as (keyof typeof both)[])
          expect(both[key]).toBeCloseTo(one[key] + other[key], 6)
      }),
    )
  })

  it('go by the count of this winter and not of the last', () => {
    const count = (on: string) => ({ ...nothing, on })
    expect(countOfWinter([count('2025-02-01'), count('2026-02-03')], '2026-03-01')?.on).toBe('2026-02-03')
    expect(countOfWinter([count('2025-02-01')], '2026-02-01')).toBeNull()
    expect(countOfWinter([count('2026-02-03')], '2026-02-01')).toBeNull()
  })
})
