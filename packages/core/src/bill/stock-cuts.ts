import { CoreError } from '../errors/index.ts'
import { cutFromRolls } from '../cutting/index.ts'
import { findStock } from '../catalogue/index.ts'
import type { Catalogue, Stock } from '../catalogue/index.ts'
import type { CuttingPlan, Effort, PieceDemand } from '../cutting/index.ts'
import type { Attempt } from './wires.ts'
import type { Frame } from '../frame/index.ts'

/** Posts, canes and bars of one stock: what to buy, and what to cut from each. */
export interface StockPlan {
  readonly stock: Stock
  /** Of one frame. */
  readonly pieces: number
  readonly lengthsM: readonly number[]
  readonly cutting: CuttingPlan
}

/** Every member cut from the cheapest lengths on sale, all repeats together. */
export function planStock(
  frame: Frame,
  catalogue: Catalogue,
  repeat: number,
  attempt: Attempt,
  effort: Effort = 'thorough',
): StockPlan[] {
  const lengths = new Map<string, number[]>()
  for (const member of frame.members)
    lengths.set(member.stockId, [
      ...(lengths.get(member.stockId) ?? []),
      ...Array<number>(member.pieces).fill(member.cutLengthM),
    ])
  return [...lengths].flatMap(([stockId, lengthsM]) => {
    const stock = findStock(catalogue, stockId)
    if (!stock) return []
    // Alike lengths are one demand, or a hundred posts would be a hundred pieces to try in every order.
    const counts = new Map<number, number>()
    for (const lengthM of lengthsM) {
      const cutM = sawnM(lengthM, stock)
      counts.set(cutM, (counts.get(cutM) ?? 0) + 1)
    }
    const demands = [...counts].map(([lengthM, count]) => ({ lengthM, quantity: count * repeat }))
    const cutting = attempt(() => cutSawn(demands, stock, effort))
    return cutting ? [{ stock, pieces: lengthsM.length, lengthsM, cutting }] : []
  })
}

/** A piece that misses a length on sale by less than this is that length, metres. */
const SAME_M = 1e-5

/** To the millimetre that a saw cuts, and no longer than a length on sale that it is all of: eight feet are cut from eight. */
function sawnM(lengthM: number, { lengths }: Stock): number {
  const whole = lengths.find((one) => Math.abs(one.lengthM - lengthM) < SAME_M)
  return whole ? whole.lengthM : Math.ceil(lengthM * 1000 - 1e-6) / 1000
}

/** What is sold in lengths and not on rolls says so where a piece is too long. */
function cutSawn(demands: readonly PieceDemand[], { lengths }: Stock, effort: Effort): CuttingPlan {
  try {
    return cutFromRolls(demands, lengths, effort)
  } catch (error) {
    if (error instanceof CoreError && error.code === 'materials/piece-longer-than-roll')
      throw new CoreError(error.code, error.message, { ...error.details, of: 'stock' })
    throw error
  }
}
