import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { budState, countOfWinter, readTallyLine, rowTotals, sampleBudget, sampleVines } from './index.ts'
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
    const count = (on: string, rest: object = {}) => ({ ...nothing, ...rest, on })
    const both = [count('2025-02-01', { buds: 20 }), count('2026-02-03', { buds: 28 })]
    expect(countOfWinter(both, '2026-03-01')?.buds).toBe(28)
    expect(countOfWinter([count('2025-02-01')], '2026-02-01')).toBeNull()
    expect(countOfWinter([count('2026-02-03')], '2026-02-01')).toBeNull()
    // Weighed after it was counted: both hold.
    const weighed = countOfWinter([...both, count('2026-02-09', { pruningsKg: 0.6 })], '2026-03-01')
    expect(weighed).toMatchObject({ buds: 28, pruningsKg: 0.6 })
  })
})

describe('sample vines of a row', () => {
  const row = Array.from({ length: 60 }, (_, i) =>
    vine(i, 30, i % 10 === 3 ? 'missing' : i % 10 === 7 ? 'young' : 'counted'),
  )

  it('are five to ten, spread over it, none of them missing, young or at its ends', () => {
    const ids = sampleVines(row)
    expect(ids.length).toBe(6)
    const at = ids.map((id) => row.findIndex((one) => one.id === id))
    expect(at.every((i) => row[i]!.is === 'counted' && i > 0 && i < 59)).toBe(true)
    const gaps = at.slice(1).map((i, k) => i - at[k]!)
    expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThanOrEqual(4)
    expect(sampleVines(row.slice(0, 3)).length).toBeLessThan(5)
    expect(sampleVines([...row, ...row, ...row, ...row]).length).toBe(10)
  })

  it('give a budget by the formula at their mean, with how far the row may lie from it', () => {
    const kg = [0.5, 0.6, 0.7, 0.6, 0.6]
    const found = sampleBudget(kg, '30+10', { min: 12, max: 90 })!
    expect(found.meanKg).toBeCloseTo(0.6, 9)
    expect(found.buds).toBe(Math.round(30 + 10 * (0.6 / 0.45359237 - 1)))
    // 0.0707 kg of spread, over the root of five, times 2.776: 0.088 kg, two buds either way.
    expect(found.range).toEqual([31, 35])
    expect(sampleBudget(kg.slice(0, 4), '30+10', { min: 12, max: 90 })).toBeNull()
    expect(sampleBudget([0.2, 0.2, 0.3, 0.3, 0.2], '30+10', { min: 12, max: 90 })).toMatchObject({
      buds: null,
    })
  })
})
