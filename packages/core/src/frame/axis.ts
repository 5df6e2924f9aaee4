/**
 * Things of a frame that stand in order along a line: posts, supports, ribs, levels of a net. Their ids are
 * what the rest of the frame's ids are made of, so an axis that keeps its ids keeps everything on it.
 */
export interface Axis {
  readonly positionsM: readonly number[]
  readonly ids: readonly string[]
}

/** Ids of the axes of a design, where they are not simply 0, 1, 2 and so on from the left or from below. */
export type AxisIds = Readonly<Record<string, readonly string[]>>

/**
 * Ids for the things along an axis: those that the design keeps, or their numbers. A list that does not fit
 * their count was made for another revision; its ends stay the ends and what is over or missing is in
 * between.
 */
export function idsAlong(kept: readonly string[] | undefined, count: number): readonly string[] {
  if (kept === undefined) return Array.from({ length: count }, (_, i) => String(i))
  if (kept.length === count) return kept
  if (kept.length > count) return [...kept.slice(0, count - 1), kept.at(-1)!].slice(-count)
  const taken = new Set(kept)
  const extra: string[] = []
  for (let n = 0; extra.length < count - kept.length; n++) if (!taken.has(`x${n}`)) extra.push(`x${n}`)
  return kept.length === 0 ? extra : [...kept.slice(0, -1), ...extra, kept.at(-1)!]
}

/** A thing that moved by more than this share of the step between its neighbours is another thing. */
const SAME_WITHIN = 0.5

/**
 * Ids of the things along an axis after a revision. The ends stay the ends. In between, two things are the
 * same when each is the nearest to the other and they are less than half a step apart; what is new gets a
 * fresh id. In one dimension such pairs never cross, so the order of what is kept is kept.
 */
export function carryIds(before: Axis, afterM: readonly number[], fresh: () => string): readonly string[] {
  const [n, m] = [before.positionsM.length, afterM.length]
  if (n === m && afterM.every((at, i) => Math.abs(at - before.positionsM[i]!) < 1e-9)) return before.ids
  const reachM = SAME_WITHIN * Math.min(stepOf(before.positionsM), stepOf(afterM))
  const nearestBefore = afterM.map((at) => nearest(before.positionsM, at))
  const nearestAfter = before.positionsM.map((at) => nearest(afterM, at))
  return afterM.map((at, j) => {
    if (j === 0 && n > 0) return before.ids[0]!
    if (j === m - 1 && n > 1) return before.ids[n - 1]!
    const i = nearestBefore[j]!
    const isEnd = i <= 0 || i === n - 1
    const isSame = !isEnd && nearestAfter[i] === j && Math.abs(before.positionsM[i]! - at) < reachM
    return isSame ? before.ids[i]! : fresh()
  })
}

function stepOf(positionsM: readonly number[]): number {
  if (positionsM.length < 2) return Infinity
  return Math.abs(positionsM.at(-1)! - positionsM[0]!) / (positionsM.length - 1)
}

/** Index of the nearest of sorted positions, the lower one where two are as near; -1 where there is none. */
function nearest(sortedM: readonly number[], at: number): number {
  let [low, high] = [0, sortedM.length - 1]
  if (high < 0) return -1
  // Axes count from the left or from the viewing end: either way they are in order.
  const isRising = sortedM[high]! >= sortedM[0]!
  while (low < high) {
    const middle = (low + high) >> 1
    if (isRising ? sortedM[middle]! < at : sortedM[middle]! > at) low = middle + 1
    else high = middle
  }
  return low > 0 && Math.abs(sortedM[low - 1]! - at) <= Math.abs(sortedM[low]! - at) ? low - 1 : low
}
