import { conjugate } from './rows.ts'
import type { Program } from './rows.ts'

/** What is still open at a node of the search: for each candidate the options that may yet be chosen. */
export type Open = readonly (readonly number[])[]

/** A bound from below on everything that can still be chosen, with what it says of each option. */
export interface Bound {
  readonly value: number
  /** Prices of the rows at which it was found. */
  readonly slopes: Float64Array
  /** By candidate, in the order of what is open: how much worse the bound would be with that option. */
  readonly reduced: readonly (readonly number[])[]
  /** The option of each candidate that is cheapest at these prices, by its place among what is open. */
  readonly cheapest: readonly number[]
}

const SMALL = 1e-12
/** Steps without a better bound until they are halved. */
const PATIENCE = 15
/** So much of the last way is gone on with: it takes the swing out of the subgradient (Camerini et al., 1975). */
const GOES_ON = 0.7
const LEAST_SCALE = 1e-3

/**
 * Lagrange's bound: each row's convex cost is replaced by a line under it, of slope λ; then every candidate takes the
 * option that is cheapest by itself. Any λ within a row's slopes gives a bound; `steps` of the subgradient, with
 * Polyak's length towards `target`, look for a good one (Held and Karp, 1971). Never above the true optimum of what is
 * open.
 */
export function boundOf(
  { rows, columns }: Program,
  open: Open,
  from: Float64Array,
  target: number,
  steps: number,
  firstScale = 1,
): Bound {
  const count = rows.length
  const slopes = Float64Array.from(from)
  const kept = Float64Array.from(from)
  const [gradient, way, sums] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)]
  let best = valueAt()
  let [scale, since] = [firstScale, 0]
  for (let step = 0; step < steps && scale > LEAST_SCALE && best < target - SMALL; step++) {
    if (step > 0) {
      const value = valueAt()
      if (value > best + SMALL) {
        best = value
        kept.set(slopes)
        since = 0
      } else if (++since >= PATIENCE) {
        // Too long a step goes past: from the best prices on, with half of it.
        scale /= 2
        since = 0
        slopes.set(kept)
        way.fill(0)
        valueAt()
      }
    }
    const norm = turn()
    if (norm < SMALL) break
    const length = (scale * Math.max(target - best, Math.abs(target) * 1e-6 + 1e-6)) / norm
    for (let r = 0; r < count; r++) {
      const { slope } = rows[r]!
      slopes[r] = Math.min(slope[1], Math.max(slope[0], slopes[r]! + length * way[r]!))
    }
  }
  return told()

  /** The bound at these slopes; `sums` then holds what the cheapest options bring to each row. */
  function valueAt(): number {
    let value = 0
    for (let r = 0; r < count; r++) value -= conjugate(rows[r]!, slopes[r]!)
    sums.fill(0)
    for (let c = 0; c < open.length; c++) {
      const options = open[c]!
      let [least, of] = [Infinity, options[0]!]
      for (let k = 0; k < options.length; k++) {
        const price = priceOf(c, options[k]!)
        if (price < least) [least, of] = [price, options[k]!]
      }
      value += least
      const { rows: at, amounts } = columns[c]![of]!
      for (let i = 0; i < at.length; i++) sums[at[i]!]! += amounts[i]!
    }
    return value
  }

  function priceOf(c: number, o: number): number {
    const { cost, rows: at, amounts } = columns[c]![o]!
    let price = cost
    for (let i = 0; i < at.length; i++) price += slopes[at[i]!]! * amounts[i]!
    return price
  }

  /** How the bound rises with each price, where it may, and the way to go: that with some of the last. */
  function turn(): number {
    let norm = 0
    for (let r = 0; r < count; r++) {
      const { is, min, max, slope } = rows[r]!
      const [sum, now] = [sums[r]!, slopes[r]!]
      let rise: number
      if (is === 'stretch') rise = sum - 1
      else if (is === 'crossing' || now > 0) rise = sum - max
      else if (now < 0) rise = sum - min
      else rise = sum > max ? sum - max : sum < min ? sum - min : 0
      if ((rise < 0 && now <= slope[0]) || (rise > 0 && now >= slope[1])) rise = 0
      gradient[r] = rise
      const on = rise + GOES_ON * way[r]!
      way[r] = (on < 0 && now <= slope[0]) || (on > 0 && now >= slope[1]) ? 0 : on
      norm += way[r]! * way[r]!
    }
    return norm
  }

  function told(): Bound {
    slopes.set(kept)
    let value = 0
    for (let r = 0; r < count; r++) value -= conjugate(rows[r]!, slopes[r]!)
    const cheapest: number[] = []
    const reduced = open.map((options, c) => {
      const prices = options.map((o) => priceOf(c, o))
      let least = 0
      for (let k = 1; k < prices.length; k++) if (prices[k]! < prices[least]!) least = k
      cheapest.push(least)
      value += prices[least]!
      return prices.map((price) => price - prices[least]!)
    })
    return { value, slopes: kept, reduced, cheapest }
  }
}
