import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { exactCost } from '../../test/exact-cutting.ts'
import { cutFromRolls } from './index.ts'
import type { PieceDemand, RollSize } from './index.ts'
import { runs, within } from '../../test/runs.ts'

const sizesArb = (most: number) =>
  fc.uniqueArray(
    fc.record({ lengthM: fc.integer({ min: 10, max: 70 }), price: fc.integer({ min: 0, max: 60 }) }),
    { minLength: 1, maxLength: most, selector: (size) => size.lengthM },
  )
const ordersOf = (sizes: fc.Arbitrary<RollSize[]>, lengths: number, pieces: number) =>
  sizes.chain((rolls) => {
    const longestCm = Math.max(...rolls.map((roll) => roll.lengthM)) * 100
    const piece = fc.record({
      lengthM: fc.integer({ min: 200, max: longestCm }).map((cm) => cm / 100),
      quantity: fc.integer({ min: 1, max: Math.ceil((2 * pieces) / lengths) }),
    })
    const demands = fc
      .array(piece, { minLength: 1, maxLength: lengths })
      .filter((all) => all.reduce((sum, { quantity }) => sum + quantity, 0) <= pieces)
    return fc.record({ sizes: fc.constant(rolls), demands })
  })

interface Order {
  readonly sizes: readonly RollSize[]
  readonly demands: readonly PieceDemand[]
}

/** What is called proven is the least there is; what is not says truly how much cheaper it could be. */
function holdAgainst({ sizes, demands }: Order, exact: number): void {
  const plan = cutFromRolls(demands, sizes)
  expect(plan.cost).toBeGreaterThanOrEqual(exact - 1e-6)
  expect(plan.leastCost).toBeLessThanOrEqual(exact + 1e-6)
  if (plan.isProvenLeast) expect(plan.cost).toBeCloseTo(exact, 6)
}

describe('cutFromRolls against an exact solver of integer programs', () => {
  it(
    'costs the same for small orders, and proves it',
    () => {
      fc.assert(
        fc.property(ordersOf(sizesArb(3), 4, 8), (order) => {
          const exact = exactCost(order.demands, order.sizes)
          fc.pre(exact !== null)
          holdAgainst(order, exact!)
          expect(cutFromRolls(order.demands, order.sizes).isProvenLeast).toBe(true)
        }),
        { numRuns: runs(60) },
      )
    },
    within(60_000),
  )

  it(
    'never calls proven what is not the least, for up to 40 pieces of 8 lengths from 4 sizes at any price',
    () => {
      fc.assert(
        fc.property(ordersOf(sizesArb(4), 8, 40), (order) => {
          const exact = exactCost(order.demands, order.sizes)
          fc.pre(exact !== null)
          holdAgainst(order, exact!)
        }),
        { numRuns: runs(120) },
      )
    },
    within(120_000),
  )

  it(
    'goes on after many mixes that end undecided: sizes that are dear by the metre and cheap by the roll',
    () => {
      const sizes = [
        { lengthM: 16, price: 7 },
        { lengthM: 33, price: 10 },
        { lengthM: 62, price: 37 },
      ]
      const piece = fc.record({
        lengthM: fc.integer({ min: 400, max: 6000 }).map((cm) => cm / 100),
        quantity: fc.integer({ min: 1, max: 3 }),
      })
      const order = fc.array(piece, { minLength: 15, maxLength: 18 }).map((demands) => ({ sizes, demands }))
      fc.assert(
        fc.property(order, (one) => {
          const exact = exactCost(one.demands, one.sizes)
          fc.pre(exact !== null)
          holdAgainst(one, exact!)
        }),
        { numRuns: runs(8) },
      )
    },
    within(120_000),
  )

  it(
    'in the time of a keystroke never says more than it knows',
    () => {
      fc.assert(
        fc.property(ordersOf(sizesArb(4), 8, 40), ({ sizes, demands }) => {
          const [quick, thorough] = [cutFromRolls(demands, sizes, 'quick'), cutFromRolls(demands, sizes)]
          expect(quick.cost).toBeGreaterThanOrEqual(thorough.leastCost - 1e-6)
          expect(quick.leastCost).toBeLessThanOrEqual(thorough.cost + 1e-6)
          if (quick.isProvenLeast) expect(quick.cost).toBeCloseTo(thorough.cost, 6)
        }),
        { numRuns: runs(100) },
      )
    },
    within(60_000),
  )
})
