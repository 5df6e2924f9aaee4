import { balancedBuds, budFormulas } from '../budget/index.ts'
import type { BudFormulaId } from '../budget/index.ts'
import type { RowPlant } from './tally.ts'

/** So many vines of a row are weighed, and no fewer say anything of it (craft: 5 to 10). */
export const SAMPLE = { least: 5, most: 10 } as const
/** One vine in so many, where a row is long enough for more than the least. */
const ONE_IN = 8

/**
 * Ids of the vines to weigh for a whole row: spread evenly over those that bear, away from its ends, which have more
 * light and more room than the rest.
 */
export function sampleVines(row: readonly RowPlant[]): readonly string[] {
  const bearing = row.filter(({ is }) => is === 'counted' || is === 'portrait')
  const count = Math.min(
    bearing.length,
    Math.max(SAMPLE.least, Math.min(SAMPLE.most, Math.round(bearing.length / ONE_IN))),
  )
  return Array.from(
    { length: count },
    (_, i) => bearing[Math.floor(((i + 0.5) / count) * bearing.length)]!.id,
  )
}

export interface SampleBudget {
  readonly weighed: number
  readonly meanKg: number
  /** Buds a vine by the formula at the mean; `null` under one pound, where the rule does not hold. */
  readonly buds: number | null
  /** The same where the row's true mean may lie (95 %, Student's t on these vines). */
  readonly range: readonly [low: number, high: number] | null
}

/** Student's t for 95 % to both sides, by degrees of freedom 1 to 10 (standard table); beyond, near enough to 2.1. */
const T95 = [12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228] as const
const T95_MORE = 2.1

/** What the prunings of sample vines say of a row's budget; `null` until enough were weighed. Throws `core/*`. */
export function sampleBudget(
  weighedKg: readonly number[],
  formula: BudFormulaId,
  limits: { readonly min: number; readonly max: number },
): SampleBudget | null {
  const n = weighedKg.length
  if (n < SAMPLE.least) return null
  const { first, further } = budFormulas.find(({ id }) => id === formula)!
  const meanKg = weighedKg.reduce((sum, kg) => sum + kg, 0) / n
  const spread = weighedKg.reduce((sum, kg) => sum + (kg - meanKg) ** 2, 0) / (n - 1)
  const eitherWayKg = (T95[n - 2] ?? T95_MORE) * Math.sqrt(spread / n)
  const held = (buds: number) => Math.round(Math.min(limits.max, Math.max(limits.min, buds)))
  const at = (kg: number) => balancedBuds(first, further, Math.max(0, kg))
  const buds = at(meanKg)
  return {
    weighed: n,
    meanKg,
    buds: buds === null ? null : held(buds),
    range:
      buds === null
        ? null
        : [held(at(meanKg - eitherWayKg) ?? limits.min), held(at(meanKg + eitherWayKg) ?? limits.min)],
  }
}
