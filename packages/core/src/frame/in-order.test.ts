import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { freeStretches, placeInOrder } from './index.ts'
import type { Stretch } from './index.ts'
import { runs } from '../../test/runs.ts'

/** Every placement on a grid of millimetres times ten, tried one by one. */
function bestByForce(
  ideals: readonly number[],
  free: readonly Stretch[],
  gaps: { min: number; max: number },
  tolerance: number,
): number | null {
  let best: number | null = null
  const walk = (i: number, before: number, sum: number): void => {
    if (best !== null && sum >= best) return
    if (i === ideals.length) {
      best = sum
      return
    }
    for (let at = ideals[i]! - tolerance; at <= ideals[i]! + tolerance; at++) {
      if (!free.some(([from, to]) => at >= from && at <= to)) continue
      if (i > 0 && (at - before < gaps.min || at - before > gaps.max)) continue
      walk(i + 1, at, sum + Math.abs(at - ideals[i]!))
    }
  }
  walk(0, 0, 0)
  return best
}

describe('things in a line that step aside', () => {
  it('never move more in total than a search through all places', () => {
    const spotsArb = fc.array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 9 })), {
      maxLength: 4,
    })
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 8, max: 14 }),
        fc.integer({ min: 0, max: 5 }),
        spotsArb,
        fc.integer({ min: 1, max: 6 }),
        (count, step, slack, spots, tolerance) => {
          const ideals = Array.from({ length: count }, (_, i) => 4 + i * step)
          const free = freeStretches(
            0,
            100,
            spots.map(([at, width]) => [at, at + width]),
          )
          const gaps = { min: Math.max(1, step - 4), max: step + slack }
          const placed = placeInOrder(
            ideals,
            ideals.map(() => free),
            { minGapM: gaps.min, maxGapM: gaps.max, toleranceM: tolerance },
          )
          const force = bestByForce(ideals, free, gaps, tolerance)
          expect(placed === null).toBe(force === null)
          if (!placed) return
          const moved = placed.reduce((sum, at, i) => sum + Math.abs(at - ideals[i]!), 0)
          expect(moved).toBeLessThanOrEqual(force! + 1e-6)
          placed.forEach((at, i) => {
            expect(free.some(([from, to]) => at >= from - 1e-6 && at <= to + 1e-6)).toBe(true)
            if (i > 0) expect(at - placed[i - 1]!).toBeLessThanOrEqual(gaps.max + 1e-6)
          })
        },
      ),
      { numRuns: runs(300) },
    )
  })

  it('is not fooled where stepping aside one by one runs into the next gap', () => {
    // The nearest way for the second alone is back to 9.2, but then the third would be out of reach: all go
    // on instead.
    const free = freeStretches(0, 40, [
      [9.2, 11],
      [18.5, 20.4],
    ])
    const placed = placeInOrder([0, 10, 20], [[[0, 0]], free, free], {
      minGapM: 1,
      maxGapM: 11,
      toleranceM: 2,
    })
    expect(placed).toEqual([0, 11, 20.4])
  })

  it('leaves all alone where nothing is in the way', () => {
    expect(
      placeInOrder([1, 2, 3], [[[0, 9]], [[0, 9]], [[0, 9]]], { minGapM: 0.5, maxGapM: 1.5, toleranceM: 0 }),
    ).toEqual([1, 2, 3])
    expect(placeInOrder([], [], { minGapM: 0, maxGapM: 1, toleranceM: 1 })).toEqual([])
  })
})
