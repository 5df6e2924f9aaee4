import { CoreError, requirePositive, requireRange, requireWhole } from '../errors/index.ts'
import { makeBoundTable, mayHold } from './rolls-bound.ts'
import { countRolls } from './rolls-count.ts'
import { cutByMultiples, materialBound } from './rolls-multiples.ts'
import { fillRolls } from './rolls-fill.ts'
import type { FillOrder, FillPiece, FillResult, FilledRoll } from './rolls-fill.ts'

export interface PieceDemand {
  readonly lengthM: number
  readonly quantity: number
}

export interface RollSize {
  readonly lengthM: number
  /** Money per roll; without prices every roll counts one, so that the plan takes the fewest rolls. */
  readonly price?: number
}

export interface CutRoll {
  /** Index into the roll sizes given. */
  readonly size: number
  readonly lengthM: number
  /** Pieces in the order of cutting, as indices into the demands given. */
  readonly cuts: readonly number[]
  readonly offcutM: number
}

export interface CuttingPlan {
  readonly rolls: readonly CutRoll[]
  readonly cost: number
  readonly wasteM: number
  /**
   * True when no cheaper plan exists; otherwise `leastCost` says how much cheaper one could be at the most.
   */
  readonly isProvenLeast: boolean
  readonly leastCost: number
}

const UNITS_PER_M = 1e6
/**
 * Search steps for one mix of rolls: a quick look at each mix first, then a thorough one, in another
 * order, at those cheaper than the best found. Steps, not seconds, so that a plan can be repeated.
 */
const QUICK_STEPS = 40_000
const THOROUGH_STEPS = 150_000
/** Mixes that may end a round of quick looks undecided, and rounds before the search is content. */
const MAX_UNDECIDED = 8
const MAX_ROUNDS = 3
const MAX_MIXES = 20_000
/** Numbers of rolls that are looked at for listing them. */
const MAX_LOOKED = 400_000

/**
 * `quick`: what a keystroke has time for. Orders that take a search are then cut by first fit, and say that they
 * may not be the cheapest.
 */
export type Effort = 'quick' | 'thorough'

/**
 * The cheapest set of rolls to cut the pieces from, and what to cut from each; nothing is lost per cut. A few
 * different lengths are counted out by dynamic programming; large orders of few lengths are cut as multiples
 * of a smaller one and held against the material bound. Otherwise mixes of rolls are tried in order of cost,
 * those that a bound rules out are skipped, the rest are filled by an exact search (Gilmore and Gomory 1961
 * for the problem). An empty demand needs no rolls. Throws `materials/piece-longer-than-roll`,
 * `materials/no-rolls` or `core/*`.
 */
export function cutFromRolls(
  demands: readonly PieceDemand[],
  sizes: readonly RollSize[],
  effort: Effort = 'thorough',
): CuttingPlan {
  const problem = readProblem(demands, sizes)
  if (problem.pieces.length === 0) return { rolls: [], cost: 0, wasteM: 0, isProvenLeast: true, leastCost: 0 }
  const fit = firstFit(problem)
  const least = leastConceivable(problem)
  // Most small orders end here: what first fit takes is no more than the metres must cost.
  if (costOf(problem, fit) <= least + 1e-9) return toPlan(problem, demands, sizes, fit, Infinity)
  const counted = countRolls(problem.pieces, problem.lengths, problem.prices, effort)
  if (counted) return toPlan(problem, demands, sizes, counted, Infinity)
  const repeated = cutByMultiples(problem.pieces, problem.lengths, problem.prices)
  if (repeated || effort === 'quick') return toPlan(problem, demands, sizes, repeated ?? fit, least)
  const found = searchMixes(problem, fit, least)
  return toPlan(problem, demands, sizes, found.rolls, found.firstUnknownCost)
}

interface Searched {
  readonly rolls: readonly FilledRoll[]
  /** Cost of the cheapest mix of which it is not known whether it holds the pieces; Infinity where none is. */
  readonly firstUnknownCost: number
}

/** Tries mixes in order of cost until one holds the pieces and all cheaper ones are ruled out, or for so long. */
function searchMixes(problem: Problem, fit: readonly FilledRoll[], least: number): Searched {
  const table = makeBoundTable(problem.pieces, problem.lengths)
  const fitCost = costOf(problem, fit)
  const { mixes: all, isComplete } = mixesByCost(problem, fitCost)
  // What first fit costs is beaten only by a cheaper mix.
  const mixes = all.filter((mix) => mix.cost < fitCost - 1e-9 && mayHold(table, mix.counts))
  // Where there are too many mixes to list, the cheapest may be among those that were not.
  let unknown = isComplete ? Infinity : least
  let at = 0
  for (let round = 0; round < MAX_ROUNDS && at < mixes.length; round++) {
    const undecided: Mix[] = []
    let best: { readonly rolls: readonly FilledRoll[]; readonly cost: number } | null = null
    while (at < mixes.length && undecided.length < MAX_UNDECIDED && !best) {
      const mix = mixes[at++]!
      const result = look(problem, mix, 'least-waste', QUICK_STEPS)
      if (result.kind === 'filled') best = { rolls: result.rolls, cost: mix.cost }
      if (result.kind === 'unknown') undecided.push(mix)
    }
    for (const mix of undecided) {
      const result = look(problem, mix, 'long-first', THOROUGH_STEPS)
      if (result.kind === 'filled') return { rolls: result.rolls, firstUnknownCost: unknown }
      if (result.kind === 'unknown') unknown = Math.min(unknown, mix.cost)
    }
    if (best) return { rolls: best.rolls, firstUnknownCost: unknown }
  }
  // Nothing is known of what was not tried any more.
  return { rolls: fit, firstUnknownCost: Math.min(unknown, mixes[at]?.cost ?? Infinity) }
}

const look = (problem: Problem, mix: Mix, order: FillOrder, steps: number): FillResult =>
  fillRolls(problem.pieces, problem.lengths, mix.counts, order, { steps })

interface Problem {
  readonly pieces: readonly FillPiece[]
  /** For each distinct length, the demands that it serves. */
  readonly owners: readonly (readonly { demand: number; quantity: number }[])[]
  readonly lengths: readonly number[]
  readonly prices: readonly number[]
}

function readProblem(demands: readonly PieceDemand[], sizes: readonly RollSize[]): Problem {
  if (sizes.length === 0) throw new CoreError('materials/no-rolls', 'There is no roll size to cut from')
  const lengths = sizes.map((s) => Math.floor(requirePositive('rollLengthM', s.lengthM) * UNITS_PER_M + 1e-3))
  const prices = sizes.map((s) => requireRange('price', s.price ?? 1, 0))
  const longest = Math.max(...lengths)
  const byLength = new Map<number, { demand: number; quantity: number }[]>()
  demands.forEach((d, demand) => {
    const length = Math.round(requirePositive('pieceLengthM', d.lengthM) * UNITS_PER_M)
    const quantity = requireWhole('quantity', d.quantity, 0, 100_000)
    if (quantity === 0) return
    if (length > longest) {
      throw new CoreError('materials/piece-longer-than-roll', `A piece of ${d.lengthM} m fits no roll`, {
        pieceM: d.lengthM,
        rollM: longest / UNITS_PER_M,
      })
    }
    byLength.set(length, [...(byLength.get(length) ?? []), { demand, quantity }])
  })
  const sorted = [...byLength].sort(([a], [b]) => b - a)
  return {
    pieces: sorted.map(([length, owners]) => ({
      length,
      quantity: owners.reduce((n, o) => n + o.quantity, 0),
    })),
    owners: sorted.map(([, owners]) => owners),
    lengths,
    prices,
  }
}

/** Below this no plan can cost: the material bound, in whole rolls where there is one size. */
function leastConceivable({ pieces, lengths, prices }: Problem): number {
  const bound = materialBound(pieces, lengths, prices)
  return lengths.length === 1 && prices[0]! > 0 ? Math.ceil(bound / prices[0]! - 1e-9) * prices[0]! : bound
}

/**
 * First fit decreasing on each size that takes the longest piece; the cheapest of these is the plan to beat.
 */
function firstFit(problem: Problem): FilledRoll[] {
  const plans = problem.lengths.flatMap((length, stock) => {
    if (length < problem.pieces[0]!.length) return []
    const rolls: { room: number; counts: number[] }[] = []
    problem.pieces.forEach((piece, i) => {
      // A roll that is too full for one piece stays so for the next of that length.
      let at = 0
      for (let n = 0; n < piece.quantity; n++) {
        while (at < rolls.length && rolls[at]!.room < piece.length) at++
        if (at === rolls.length) rolls.push({ room: length, counts: problem.pieces.map(() => 0) })
        const roll = rolls[at]!
        roll.room -= piece.length
        roll.counts[i]!++
      }
    })
    return [
      rolls.map(
        (r): FilledRoll => ({
          stock: cheapestThatHolds(problem, length - r.room, stock),
          counts: r.counts,
        }),
      ),
    ]
  })
  return plans.reduce((best, plan) => (costOf(problem, plan) < costOf(problem, best) ? plan : best))
}

function cheapestThatHolds(problem: Problem, used: number, stock: number): number {
  let best = stock
  problem.lengths.forEach((length, s) => {
    if (length >= used && problem.prices[s]! < problem.prices[best]!) best = s
  })
  return best
}

function costOf(problem: Problem, rolls: readonly FilledRoll[]): number {
  return rolls.reduce((sum, roll) => sum + problem.prices[roll.stock]!, 0)
}

interface Mix {
  readonly counts: readonly number[]
  readonly cost: number
}

/**
 * Numbers of rolls of each size that cost no more than `limit` and are long enough in total, cheapest first; not
 * complete where there are too many of them.
 */
function mixesByCost(
  problem: Problem,
  limit: number,
): { readonly mixes: readonly Mix[]; readonly isComplete: boolean } {
  const need = problem.pieces.reduce((sum, p) => sum + p.length * p.quantity, 0)
  const pieceCount = problem.pieces.reduce((sum, p) => sum + p.quantity, 0)
  const mixes: (Mix & { room: number })[] = []
  const counts = problem.lengths.map(() => 0)
  let isComplete = true
  let looked = 0
  const add = (s: number, cost: number, room: number, rolls: number): void => {
    if (++looked > MAX_LOOKED || mixes.length >= MAX_MIXES) {
      isComplete = false
      return
    }
    if (s === counts.length) {
      if (room >= need) mixes.push({ counts: [...counts], cost, room })
      return
    }
    const price = problem.prices[s]!
    // No plan needs more rolls than pieces; free rolls are bounded by that alone.
    for (let n = 0; n + rolls <= pieceCount && cost + n * price <= limit + 1e-9; n++) {
      counts[s] = n
      add(s + 1, cost + n * price, room + n * problem.lengths[s]!, rolls + n)
      if (s === counts.length - 1 && room + n * problem.lengths[s]! >= need && n >= pieceCount) break
    }
    counts[s] = 0
  }
  add(0, 0, 0, 0)
  return { mixes: mixes.sort((a, b) => a.cost - b.cost || a.room - b.room), isComplete }
}

function toPlan(
  problem: Problem,
  demands: readonly PieceDemand[],
  sizes: readonly RollSize[],
  filled: readonly FilledRoll[],
  firstUnknownCost: number,
): CuttingPlan {
  const queues = problem.owners.map((owners) =>
    owners.flatMap((o) => new Array<number>(o.quantity).fill(o.demand)),
  )
  const rolls = filled
    .map((roll): CutRoll => {
      const cuts = roll.counts.flatMap((n, i) => queues[i]!.splice(0, n))
      const lengthM = sizes[roll.stock]!.lengthM
      const usedM = cuts.reduce((sum, demand) => sum + demands[demand]!.lengthM, 0)
      return { size: roll.stock, lengthM, cuts, offcutM: Math.max(0, lengthM - usedM) }
    })
    .filter((roll) => roll.cuts.length > 0)
  const cost = rolls.reduce((sum, roll) => sum + problem.prices[roll.size]!, 0)
  return {
    rolls,
    cost,
    wasteM: rolls.reduce((sum, roll) => sum + roll.offcutM, 0),
    isProvenLeast: firstUnknownCost >= cost - 1e-9,
    leastCost: Math.min(cost, firstUnknownCost),
  }
}
