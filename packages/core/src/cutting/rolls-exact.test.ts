import fc from 'fast-check'
import highs from 'highs'
import { describe, expect, it } from 'vitest'
import { cutFromRolls } from './index.ts'
import type { PieceDemand, RollSize } from './index.ts'

const solver = await highs()

const sizesArb = fc.uniqueArray(
  fc.record({ lengthM: fc.integer({ min: 10, max: 60 }), price: fc.integer({ min: 5, max: 40 }) }),
  { minLength: 1, maxLength: 3, selector: (size) => size.lengthM },
)
/** Orders of up to eight pieces, none longer than the longest roll. */
const orderArb = sizesArb.chain((sizes) => {
  const longestCm = Math.max(...sizes.map((size) => size.lengthM)) * 100
  const pieceArb = fc.record({
    lengthM: fc.integer({ min: 200, max: longestCm }).map((cm) => cm / 100),
    quantity: fc.integer({ min: 1, max: 2 }),
  })
  return fc.record({ sizes: fc.constant(sizes), demands: fc.array(pieceArb, { minLength: 1, maxLength: 4 }) })
})

describe('cutFromRolls against an exact solver of integer programs', () => {
  it('costs the same for random orders from up to three sizes and prices', () => {
    fc.assert(
      fc.property(orderArb, ({ sizes, demands }) => {
        const plan = cutFromRolls(demands, sizes)
        const solution = solver.solve(asProgram(demands, sizes, plan.rolls.length + 1), { time_limit: 20 })
        fc.pre(solution.Status === 'Optimal')
        expect(plan.cost).toBeCloseTo(solution.ObjectiveValue, 6)
        expect(plan.isProvenLeast).toBe(true)
      }),
      { numRuns: 30 },
    )
  }, 60_000)
})

/**
 * Cutting as an integer program in LP format: roll `j` is bought in size `s` (`y`) or not at all, and `x`
 * pieces of demand `i` are cut from it. A roll more than our plan takes is offered, so that a cheaper plan of
 * more rolls is found.
 */
function asProgram(demands: readonly PieceDemand[], sizes: readonly RollSize[], rolls: number): string {
  const each = <T>(count: number, line: (i: number) => T) => Array.from({ length: count }, (_, i) => line(i))
  const x = (i: number, j: number) => `x${i}_${j}`
  const y = (j: number, s: number) => `y${j}_${s}`
  const bought = each(rolls, (j) => sizes.map((_, s) => y(j, s))).flat()
  const cost = each(rolls, (j) => sizes.map((size, s) => `${size.price} ${y(j, s)}`)).flat()
  const wanted = demands.map((demand, i) => `${each(rolls, (j) => x(i, j)).join(' + ')} = ${demand.quantity}`)
  const room = each(
    rolls,
    (j) =>
      `${demands.map((demand, i) => `${demand.lengthM} ${x(i, j)}`).join(' + ')} ${sizes.map((size, s) => `- ${size.lengthM} ${y(j, s)}`).join(' ')} <= 0`,
  )
  const oneSize = each(rolls, (j) => `${sizes.map((_, s) => y(j, s)).join(' + ')} <= 1`)
  const cuts = demands.flatMap((demand, i) => each(rolls, (j) => `0 <= ${x(i, j)} <= ${demand.quantity}`))
  const whole = demands.flatMap((_, i) => each(rolls, (j) => x(i, j)))
  return `Minimize\n ${cost.join(' + ')}\nSubject To\n ${[...wanted, ...room, ...oneSize].join('\n ')}\nBounds\n ${cuts.join('\n ')}\nGeneral\n ${whole.join(' ')}\nBinary\n ${bought.join(' ')}\nEnd\n`
}
