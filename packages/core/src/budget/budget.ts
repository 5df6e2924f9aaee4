import { requireRange } from '../errors/index.ts'

/** Exact by definition of the international pound. */
const KG_PER_POUND = 0.45359237

/** Named by the buds for the first pound of prunings and for each further one. */
export const budFormulas = [
  { id: '30+10', first: 30, further: 10 },
  { id: '20+20', first: 20, further: 20 },
  { id: '20+10', first: 20, further: 10 },
] as const
export type BudFormulaId = (typeof budFormulas)[number]['id']

/** How many buds a plant is to keep: a plain number with what is near enough, or by what was cut off it. */
export type BudGoal =
  | { readonly by: 'plain'; readonly aim: number; readonly min: number; readonly max: number }
  | {
      readonly by: 'balanced'
      readonly formula: BudFormulaId
      /** Where the formula gives less or more; and where it does not hold, the plain target. */
      readonly min: number
      readonly max: number
      readonly plain: number
    }

export interface BudTarget {
  readonly aim: number
  readonly min: number
  readonly max: number
  /** `plain` also where a balanced formula has nothing to go by: see `why`. */
  readonly by: 'plain' | BudFormulaId
  readonly why: 'chosen' | 'weighed' | 'not-weighed' | 'under-a-pound'
}

/** A share either way of the figure is near enough: a vine cannot be cut to the bud. */
const NEAR_ENOUGH = 0.1

/**
 * Buds by balanced pruning: `first` for a pound of prunings, `further` for each one more (Partridge 1925; Shaulis),
 * not rounded. `null` under one pound, where the rule does not hold. Throws `core/*`.
 */
export function balancedBuds(first: number, further: number, pruningsKg: number): number | null {
  requireRange('first', first, 0, 1000)
  requireRange('further', further, 0, 1000)
  const pounds = requireRange('pruningsKg', pruningsKg, 0, 1000) / KG_PER_POUND
  return pounds < 1 ? null : first + further * (pounds - 1)
}

/** The buds to keep, from the mass of this winter's prunings where that was weighed. Throws `core/*`. */
export function budTarget(goal: BudGoal, pruningsKg: number | null): BudTarget {
  if (goal.by === 'plain') return { ...goal, by: 'plain', why: 'chosen' }
  const { first, further } = budFormulas.find(({ id }) => id === goal.formula)!
  const buds = pruningsKg === null ? null : balancedBuds(first, further, pruningsKg)
  if (buds === null) return around(goal.plain, 'plain', pruningsKg === null ? 'not-weighed' : 'under-a-pound')
  return around(Math.round(Math.min(goal.max, Math.max(goal.min, buds))), goal.formula, 'weighed')
}

const around = (aim: number, by: BudTarget['by'], why: BudTarget['why']): BudTarget => ({
  aim,
  min: Math.floor(aim * (1 - NEAR_ENOUGH)),
  max: Math.ceil(aim * (1 + NEAR_ENOUGH)),
  by,
  why,
})

/** What a bud comes to by harvest, as ranges from the garden's own records or the kind's default. */
export interface BudYield {
  /** Share of buds that break. */
  readonly burst: readonly [low: number, high: number]
  readonly clustersPerShoot: readonly [low: number, high: number]
  readonly clusterKg: readonly [low: number, high: number]
}

export interface CropForecast {
  readonly shoots: readonly [low: number, high: number]
  readonly clusters: readonly [low: number, high: number]
  readonly cropKg: readonly [low: number, high: number]
}

/** Crop = buds × burst × clusters a shoot × mass of a cluster, at both ends of what is known. Throws `core/*`. */
export function cropForecast(buds: number, yields: BudYield): CropForecast {
  requireRange('buds', buds, 0, 1e6)
  const { burst, clustersPerShoot, clusterKg } = yields
  const times = (
    a: readonly [number, number],
    [low, high]: readonly [number, number],
    most: number,
  ): readonly [number, number] => [
    a[0] * requireRange('low', low, 0, most),
    a[1] * requireRange('high', high, low, most),
  ]
  const shoots = times([buds, buds], burst, 1)
  const clusters = times(shoots, clustersPerShoot, 100)
  return { shoots, clusters, cropKg: times(clusters, clusterKg, 100) }
}

/** Fruit to prunings, kilograms a kilogram (Ravaz): 5 to 10 is in balance. `null` where nothing was cut off. */
export function yieldToPrunings(fruitKg: number, pruningsKg: number): number | null {
  requireRange('fruitKg', fruitKg, 0, 1e6)
  return requireRange('pruningsKg', pruningsKg, 0, 1e6) === 0 ? null : fruitKg / pruningsKg
}
export const IN_BALANCE = [5, 10] as const
