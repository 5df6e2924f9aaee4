import type { FillPiece, FilledRoll } from './rolls-fill.ts'

/** States times patterns beyond which counting is slower than searching. */
const MAX_WORK = { quick: 300_000, thorough: 3_000_000 } as const
const MAX_PATTERNS = 600
/** With more lengths than this, trying mixes of rolls is quicker. */
const MAX_LENGTHS = 10

interface CutPattern {
  readonly stock: number
  readonly price: number
  readonly counts: readonly number[]
  /** How far the state falls when this pattern is cut in full. */
  readonly stride: number
}

/**
 * The cheapest rolls for few different lengths, by counting: for every number of pieces of each length still
 * to cut, the least cost from there on (dynamic programming over what is left; each roll is cut to a pattern
 * to which no further piece can be added, and one may cut more than is needed). Exact. `null` when there are
 * too many states or patterns.
 */
export function countRolls(
  pieces: readonly FillPiece[],
  lengths: readonly number[],
  prices: readonly number[],
  effort: 'quick' | 'thorough' = 'thorough',
): FilledRoll[] | null {
  if (pieces.length > MAX_LENGTHS) return null
  let states = 1
  const strides = pieces.map((piece) => {
    const stride = states
    states *= piece.quantity + 1
    return stride
  })
  if (states > MAX_WORK[effort]) return null
  const patterns: CutPattern[] = []
  for (const [stock, length] of lengths.entries()) {
    const full = fullPatterns(pieces, length)
    if (!full) return null
    for (const counts of full)
      patterns.push({
        stock,
        price: prices[stock]!,
        counts,
        stride: counts.reduce((sum, n, i) => sum + n * strides[i]!, 0),
      })
  }
  if (states * patterns.length > MAX_WORK[effort]) return null
  const least = new Float64Array(states).fill(Infinity)
  const chosen = new Int32Array(states).fill(-1)
  least[0] = 0
  const left = pieces.map(() => 0)
  for (let state = 1; state < states; state++) {
    increment(left, pieces)
    for (let p = 0; p < patterns.length; p++) {
      const pattern = patterns[p]!
      let next = state - pattern.stride
      let isUseful = false
      for (let i = 0; i < left.length; i++) {
        const cut = pattern.counts[i]!
        if (cut > 0 && left[i]! > 0) isUseful = true
        // More cut than is left: the surplus does not count.
        if (cut > left[i]!) next += (cut - left[i]!) * strides[i]!
      }
      if (!isUseful) continue
      const cost = pattern.price + least[next]!
      if (cost < least[state]! - 1e-12) {
        least[state] = cost
        chosen[state] = p
      }
    }
  }
  return Number.isFinite(least[states - 1]!) ? readBack(pieces, strides, patterns, chosen, states - 1) : null
}

/** Counts up in mixed radix, the first length fastest, in step with the number of the state. */
function increment(left: number[], pieces: readonly FillPiece[]): void {
  for (let i = 0; i < left.length; i++) {
    if (left[i]! < pieces[i]!.quantity) {
      left[i]!++
      return
    }
    left[i] = 0
  }
}

function readBack(
  pieces: readonly FillPiece[],
  strides: readonly number[],
  patterns: readonly CutPattern[],
  chosen: Int32Array,
  last: number,
): FilledRoll[] {
  const rolls: FilledRoll[] = []
  const left = pieces.map((piece) => piece.quantity)
  for (let state = last; state > 0; ) {
    const pattern = patterns[chosen[state]!]!
    const counts = pattern.counts.map((n, i) => Math.min(n, left[i]!))
    counts.forEach((n, i) => (left[i]! -= n))
    state -= counts.reduce((sum, n, i) => sum + n * strides[i]!, 0)
    rolls.push({ stock: pattern.stock, counts })
  }
  return rolls
}

/** Ways to cut looked at before a length counts as having too many patterns. */
const MAX_LEAVES = 6000

/**
 * Every way to cut one roll, no more of a length than is wanted, to which no wanted piece can be added;
 * `null` when there are too many.
 */
function fullPatterns(pieces: readonly FillPiece[], length: number): number[][] | null {
  const found: number[][] = []
  const counts = pieces.map(() => 0)
  let leaves = 0
  const fill = (i: number, room: number): void => {
    if (leaves > MAX_LEAVES) return
    if (i === pieces.length) {
      leaves++
      const canAdd = pieces.some((piece, k) => counts[k]! < piece.quantity && piece.length <= room)
      if (!canAdd && counts.some((n) => n > 0)) found.push([...counts])
      return
    }
    const { length: own, quantity } = pieces[i]!
    for (let n = Math.min(quantity, Math.floor(room / own)); n >= 0; n--) {
      counts[i] = n
      fill(i + 1, room - n * own)
    }
    counts[i] = 0
  }
  fill(0, length)
  return leaves > MAX_LEAVES || found.length > MAX_PATTERNS ? null : found
}

/** How many patterns there are for all sizes together; infinite when there are too many to count by. */
export function patternCount(pieces: readonly FillPiece[], lengths: readonly number[]): number {
  return lengths.reduce((sum, length) => sum + (fullPatterns(pieces, length)?.length ?? Infinity), 0)
}
