/** A closed stretch in which something may stand, metres. */
export type Stretch = readonly [fromM: number, toM: number]

export interface InOrderLimits {
  /** Neighbours stand at least so far apart, and at most. */
  readonly minGapM: number
  readonly maxGapM: number
  readonly toleranceM: number
}

/** Lengths nearer than this are the same: candidates that differ by less are one, gaps are kept to it. */
const SAME_M = 1e-9

/**
 * Puts things that stand in a line, such as posts, as near to their ideal places as the free stretches allow:
 * the total movement is the least possible with the order kept, neighbours within the gaps and nothing moved
 * beyond the tolerance. `null` when that cannot be. Stretches are given for each thing.
 *
 * Exact: the sum of distances is piecewise linear, so some best placement has every thing at its own ideal or
 * at an edge of a stretch, or a chain of tight gaps away from another that is. All those places are
 * candidates; a dynamic program over them picks the least sum.
 */
export function placeInOrder(
  idealsM: readonly number[],
  stretches: readonly (readonly Stretch[])[],
  limits: InOrderLimits,
): number[] | null {
  if (isFine(idealsM, stretches, limits)) return [...idealsM]
  const sources = idealsM.map((ideal, j) => [
    ideal,
    ideal - limits.toleranceM,
    ideal + limits.toleranceM,
    ...stretches[j]!.flat().filter((edge) => Math.abs(edge - ideal) <= limits.toleranceM + SAME_M),
  ])
  const candidates = idealsM.map((_, i) => candidatesFor(i, idealsM, stretches, limits, (j) => sources[j]!))
  let costs: number[] = []
  const cameFrom: number[][] = []
  for (let i = 0; i < idealsM.length; i++) {
    const own = candidates[i]!.map((at) => Math.abs(at - idealsM[i]!))
    if (i === 0) {
      costs = own
      cameFrom.push(own.map(() => -1))
      continue
    }
    const before = candidates[i - 1]!
    const from: number[] = []
    costs = candidates[i]!.map((at, k) => {
      let best = Infinity
      let bestJ = -1
      for (let j = 0; j < before.length; j++) {
        const gap = at - before[j]!
        if (gap < limits.minGapM - SAME_M || gap > limits.maxGapM + SAME_M) continue
        if (costs[j]! < best) {
          best = costs[j]!
          bestJ = j
        }
      }
      from.push(bestJ)
      return best + own[k]!
    })
    cameFrom.push(from)
  }
  let k = -1
  costs.forEach((cost, i) => {
    if (Number.isFinite(cost) && (k < 0 || cost < costs[k]!)) k = i
  })
  if (k < 0) return idealsM.length === 0 ? [] : null
  const placed: number[] = []
  for (let i = idealsM.length - 1; i >= 0; i--) {
    placed[i] = candidates[i]![k]!
    k = cameFrom[i]![k]!
  }
  return placed
}

/** Nothing has to move: most rows have nothing to avoid. */
function isFine(
  idealsM: readonly number[],
  stretches: readonly (readonly Stretch[])[],
  limits: InOrderLimits,
): boolean {
  return idealsM.every((at, i) => {
    const gap = i === 0 ? limits.minGapM : at - idealsM[i - 1]!
    const isInGap = gap >= limits.minGapM - SAME_M && gap <= limits.maxGapM + SAME_M
    return isInGap && stretches[i]!.some(([from, to]) => at >= from - SAME_M && at <= to + SAME_M)
  })
}

function candidatesFor(
  i: number,
  idealsM: readonly number[],
  stretches: readonly (readonly Stretch[])[],
  { minGapM, maxGapM, toleranceM }: InOrderLimits,
  sourcesOf: (j: number) => readonly number[],
): number[] {
  const [low, high] = [idealsM[i]! - toleranceM - SAME_M, idealsM[i]! + toleranceM + SAME_M]
  const isAllowed = (at: number) =>
    at >= low && at <= high && stretches[i]!.some(([from, to]) => at >= from - SAME_M && at <= to + SAME_M)
  const found: number[] = []
  const difference = maxGapM - minGapM
  for (let j = 0; j < idealsM.length; j++) {
    const steps = Math.abs(i - j)
    const way = i >= j ? 1 : -1
    for (const source of sourcesOf(j)) {
      // A chain of so many tight gaps of which `wide` are the greatest: only those that end near thing i are
      // worth a look.
      const reachA = (way * (low - source) - steps * minGapM) / difference
      const reachB = (way * (high - source) - steps * minGapM) / difference
      const from = difference > 0 ? Math.max(0, Math.ceil(Math.min(reachA, reachB))) : 0
      const to = difference > 0 ? Math.min(steps, Math.floor(Math.max(reachA, reachB))) : 0
      for (let wide = from; wide <= to; wide++) {
        const at = source + way * (wide * maxGapM + (steps - wide) * minGapM)
        if (isAllowed(at)) found.push(at)
      }
    }
  }
  found.sort((a, b) => a - b)
  return found.filter((at, n) => n === 0 || at - found[n - 1]! > SAME_M)
}

/** What is left of [from, to] when the open stretches in `taken` are cut out of it. */
export function freeStretches(from: number, to: number, taken: readonly Stretch[]): Stretch[] {
  const free: Stretch[] = []
  let at = from
  for (const [start, end] of [...taken].sort((a, b) => a[0] - b[0])) {
    if (end <= at) continue
    if (start >= to) break
    if (start > at) free.push([at, start])
    at = end
  }
  if (at <= to) free.push([at, to])
  return free
}
