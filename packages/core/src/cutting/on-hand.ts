import { requirePositive, requireRange } from '../errors/index.ts'
import type { PieceDemand } from './rolls.ts'

/** A roll, bar or offcut that lies in the shed. */
export interface LengthOnHand {
  readonly lengthM: number
  readonly quantity: number
}

export interface CutOnHand {
  /** Index into the lengths given. */
  readonly length: number
  /** Pieces, as indices into the demands given. */
  readonly cuts: readonly number[]
  readonly offcutM: number
}

export interface FromStores {
  readonly cut: readonly CutOnHand[]
  /** What is left to cut from new rolls, demand by demand. */
  readonly rest: readonly PieceDemand[]
}

const PER_M = 1000

/**
 * Cuts from what is on hand first, the shortest length first, each filled as full as the pieces left can fill
 * it (exact subset sum over millimetres, pieces rounded up). So small offcuts go before whole rolls, and what
 * is left to buy for is small; it need not be the least that could be bought. A length that fits no piece is
 * left alone.
 */
export function cutFromStores(demands: readonly PieceDemand[], lengths: readonly LengthOnHand[]): FromStores {
  const left = demands.map((demand) => requireRange('quantity', demand.quantity, 0, 100_000))
  const sizes = demands.map((demand) =>
    Math.ceil(requirePositive('pieceLengthM', demand.lengthM, 10_000) * PER_M - 1e-6),
  )
  const cut: CutOnHand[] = []
  const order = lengths.map((_, i) => i).sort((a, b) => lengths[a]!.lengthM - lengths[b]!.lengthM)
  for (const length of order) {
    const { lengthM, quantity } = lengths[length]!
    const room = Math.floor(requireRange('lengthM', lengthM, 0, 10_000) * PER_M + 1e-6)
    for (let n = 0; n < Math.floor(quantity); n++) {
      const cuts = fullest(sizes, left, room)
      if (cuts.length === 0) break
      for (const demand of cuts) left[demand]!--
      cut.push({ length, cuts, offcutM: (room - cuts.reduce((sum, d) => sum + sizes[d]!, 0)) / PER_M })
    }
  }
  return { cut, rest: demands.map((demand, i) => ({ lengthM: demand.lengthM, quantity: left[i]! })) }
}

/**
 * The pieces that fill `room` best, longest first. Which piece last reached each sum is kept, so that they
 * can be read back.
 */
function fullest(sizes: readonly number[], left: readonly number[], room: number): number[] {
  const reachedBy = new Int32Array(room + 1).fill(-1)
  const used = new Int32Array(room + 1)
  let best = 0
  sizes.forEach((size, demand) => {
    if (left[demand] === 0 || size > room) return
    used.fill(0)
    for (let sum = size; sum <= room; sum++) {
      const from = sum - size
      if (reachedBy[sum] !== -1 || (from > 0 && reachedBy[from] === -1) || used[from]! >= left[demand]!)
        continue
      reachedBy[sum] = demand
      used[sum] = (from > 0 && reachedBy[from] === demand ? used[from]! : 0) + 1
      best = Math.max(best, sum)
    }
  })
  const cuts: number[] = []
  for (let sum = best; sum > 0; ) {
    const demand = reachedBy[sum]!
    cuts.push(demand)
    sum -= sizes[demand]!
  }
  return cuts.sort((a, b) => sizes[b]! - sizes[a]!)
}
