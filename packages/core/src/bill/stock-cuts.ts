import { cutFromRolls } from '../cutting/index.ts'
import { findStock } from '../catalogue/index.ts'
import type { Catalogue, Stock } from '../catalogue/index.ts'
import type { CuttingPlan, Effort } from '../cutting/index.ts'
import type { Attempt } from './wires.ts'
import type { Frame } from '../frame/index.ts'

/** Posts, canes and bars of one stock: what to buy, and what to cut from each. */
export interface StockPlan {
  readonly stock: Stock
  /** Members of one frame. */
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
    lengths.set(member.stockId, [...(lengths.get(member.stockId) ?? []), member.cutLengthM])
  return [...lengths].flatMap(([stockId, lengthsM]) => {
    const stock = findStock(catalogue, stockId)
    if (!stock) return []
    // Alike lengths are one demand, or a hundred posts would be a hundred pieces to try in every order.
    const byMm = new Map<number, number>()
    for (const lengthM of lengthsM)
      byMm.set(Math.ceil(lengthM * 1000 - 1e-6), (byMm.get(Math.ceil(lengthM * 1000 - 1e-6)) ?? 0) + 1)
    const demands = [...byMm].map(([mm, count]) => ({ lengthM: mm / 1000, quantity: count * repeat }))
    const cutting = attempt(() => cutFromRolls(demands, stock.lengths, effort))
    return cutting ? [{ stock, pieces: lengthsM.length, lengthsM, cutting }] : []
  })
}
