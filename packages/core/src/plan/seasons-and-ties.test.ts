import { leafyOutline, monthRange, tiesPerYear } from '../loads/index.ts'
import { usualConditions } from '../design/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { options, rowLevel, siteOf } from '../../test/frames.ts'
import { makeFrame } from '../frame/index.ts'
import type { RowPattern } from '../frame/index.ts'
import { findKind } from '../kinds/index.ts'

const months = Array.from({ length: 12 }, (_, i) => i + 1)

describe('the warmth of a month', () => {
  const climateArb = fc.record({
    coldestC: fc.integer({ min: -30, max: 12 }),
    overC: fc.integer({ min: 4, max: 70 }),
  })
  it('reaches the coldest night and the hottest day of the place in its own months, and no further', () => {
    fc.assert(
      fc.property(
        climateArb,
        fc.constantFrom('north' as const, 'south' as const),
        ({ coldestC, overC }, hemisphere) => {
          const conditions = { ...usualConditions, coldestC, hottestC: coldestC + overC }
          const ranges = months.map((month) => monthRange(month, conditions, hemisphere))
          expect(Math.min(...ranges.map(([cold]) => cold))).toBeCloseTo(coldestC, 9)
          expect(Math.max(...ranges.map(([, warm]) => warm))).toBeCloseTo(coldestC + overC, 9)
          const warmest = ranges.reduce((best, range, i) => (range[1] > ranges[best]![1] ? i : best), 0) + 1
          expect(warmest).toBe(hemisphere === 'north' ? 7 : 1)
          for (const [cold, warm] of ranges) expect(warm).toBeGreaterThan(cold)
        },
      ),
    )
  })
})

describe('what a frame asks of the grower in a year', () => {
  const row = (form: 'single' | 'pair'): RowPattern => ({
    kind: 'row',
    maxPostSpacingM: 5,
    postHeightM: 1.9,
    postBuriedM: 0.7,
    postStockId: 'post-round-100',
    endStockId: 'post-round-140',
    endBuriedM: 0.9,
    endLeanDeg: 0,
    endSlabM: 0,
    end: { kind: 'free' },
    armStockId: 'batten-20x30',
    levels: [rowLevel(0, 0.8), rowLevel(1, 1.3, { form, spreadM: 0.4 })],
    waterHeightM: null,
    plantSpacingM: 1.2,
    roomBeyondM: null,
  })
  const site = siteOf(20, 2.1)

  it('is fewer ties where wires come in pairs, and where plants hold on by themselves', () => {
    const [single, pair] = [makeFrame(site, row('single'), options), makeFrame(site, row('pair'), options)]
    const vine = findKind('wine-grape')
    expect(tiesPerYear(pair, vine)).toBeLessThan(tiesPerYear(single, vine))
    expect(tiesPerYear(single, findKind('ivy'))).toBeLessThan(tiesPerYear(single, findKind('pear')))
  })

  it('counts leaf from the lowest wire to the top of the posts, along the whole row', () => {
    const outline = leafyOutline(makeFrame(site, row('single'), options))
    expect(outline.widthM).toBeCloseTo(20, 1)
    expect(outline.heightM).toBeCloseTo(1.9 - 0.8, 2)
    expect(outline.areaM2).toBeCloseTo(outline.widthM * outline.heightM, 9)
  })

  it('covers a whole wall with diamonds', () => {
    const wall = siteOf(8, 1.6)
    const frame = makeFrame(
      wall,
      {
        kind: 'diamonds',
        cell: { by: 'count', count: 10, halfAtEnd: false },
        cellHeightM: null,
        rows: 1,
        closeCutEnd: false,
      },
      options,
    )
    expect(leafyOutline(frame)).toMatchObject({
      widthM: expect.closeTo(8, 6),
      heightM: expect.closeTo(1.6, 6),
    })
  })
})
