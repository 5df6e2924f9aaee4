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
const PATIENCE = 40
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
  program: Program,
  open: Open,
  from: Float64Array,
  target: number,
  steps: number,
  firstScale = 1,
): Bound {
  const { flat } = program
  const { count, atZero, min, max, low, high, start, index, amount, cost } = flat
  const { stretches, runs, from: runFrom, to: runTo, times } = flat
  const slopes = Float64Array.from(from)
  const kept = Float64Array.from(from)
  const [way, sums] = [new Float64Array(count), new Float64Array(count)]
  // Prices of the stretches added up from the first: what a run of them costs is one difference.
  const upTo = new Float64Array(stretches + 1)
  // Options still open, one after the other, by their place among all columns.
  const columns = open.map((options, c) => Int32Array.from(options, (o) => flat.first[c]! + o))
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
      const to = slopes[r]! + length * way[r]!
      slopes[r] = to < low[r]! ? low[r]! : to > high[r]! ? high[r]! : to
    }
  }
  return told()

  /** What the rows give at these slopes: the sum of what each cost lies under its line. */
  function rowsAt(): number {
    let value = 0
    for (let r = 0; r < count; r++) {
      const slope = slopes[r]!
      value -= slope > 0 ? slope * max[r]! : slope * min[r]!
    }
    return value
  }

  /** The bound at these slopes; `sums` then holds what the cheapest options bring to each row. */
  function valueAt(): number {
    let value = rowsAt()
    sums.fill(0)
    addUp()
    for (let c = 0; c < columns.length; c++) {
      const options = columns[c]!
      let [least, of] = [Infinity, options[0]!]
      for (let k = 0; k < options.length; k++) {
        const price = priceOf(options[k]!)
        if (price < least) {
          least = price
          of = options[k]!
        }
      }
      value += least
      for (let i = runs[of]!; i < runs[of + 1]!; i++)
        for (let r = runFrom[i]!; r < runTo[i]!; r++) sums[r]! += times[i]!
      for (let i = start[of]!; i < start[of + 1]!; i++) sums[index[i]!]! += amount[i]!
    }
    return value
  }

  function addUp(): void {
    for (let r = 0; r < stretches; r++) upTo[r + 1] = upTo[r]! + slopes[r]!
  }

  function priceOf(column: number): number {
    let price = cost[column]!
    for (let i = runs[column]!; i < runs[column + 1]!; i++)
      price += times[i]! * (upTo[runTo[i]!]! - upTo[runFrom[i]!]!)
    for (let i = start[column]!; i < start[column + 1]!; i++) price += slopes[index[i]!]! * amount[i]!
    return price
  }

  /** How the bound rises with each price, where it may, and the way to go: that with some of the last. */
  function turn(): number {
    let norm = 0
    for (let r = 0; r < count; r++) {
      const sum = sums[r]!
      const now = slopes[r]!
      const [least, most] = [min[r]!, max[r]!]
      let rise: number
      if (atZero[r] === 1) rise = sum - most
      else if (now > 0) rise = sum - most
      else if (now < 0) rise = sum - least
      else rise = sum > most ? sum - most : sum < least ? sum - least : 0
      const isLow = now <= low[r]!
      const isHigh = now >= high[r]!
      if ((rise < 0 && isLow) || (rise > 0 && isHigh)) rise = 0
      const on = rise + GOES_ON * way[r]!
      const to = (on < 0 && isLow) || (on > 0 && isHigh) ? 0 : on
      way[r] = to
      norm += to * to
    }
    return norm
  }

  function told(): Bound {
    slopes.set(kept)
    addUp()
    let value = rowsAt()
    const cheapest: number[] = []
    const reduced = columns.map((options) => {
      const prices = Array.from(options, priceOf)
      let least = 0
      for (let k = 1; k < prices.length; k++) if (prices[k]! < prices[least]!) least = k
      cheapest.push(least)
      value += prices[least]!
      return prices.map((price) => price - prices[least]!)
    })
    return { value, slopes: kept, reduced, cheapest }
  }
}
