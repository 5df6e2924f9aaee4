/** Whole-number lengths throughout: a micrometre is one, so that sums are exact. */
export interface FillPiece {
  readonly length: number
  readonly quantity: number
}

/** How many of each piece (in the order given) go on one roll of a size. */
export interface FilledRoll {
  readonly stock: number
  readonly counts: readonly number[]
}

export type FillResult =
  | { readonly kind: 'filled'; readonly rolls: readonly FilledRoll[] }
  | { readonly kind: 'impossible' }
  | { readonly kind: 'unknown' }

/**
 * Which filling of a roll is tried first: the one that wastes least, or the one with the longest pieces that
 * wastes no more than its share, which keeps the short pieces for the last rolls. Where one fails the other
 * often does not.
 */
export type FillOrder = 'least-waste' | 'long-first'

/** Steps left to the search. */
export interface Budget {
  steps: number
}

/**
 * Fillings looked at for one roll before the search is content with the best so far (and no longer a proof).
 */
const STEPS_PER_ROLL = 4000
const FILLINGS_PER_ROLL = 60

interface Search {
  readonly lengths: readonly number[]
  readonly rollLengths: readonly number[]
  readonly left: number[]
  readonly rolls: number[]
  readonly budget: Budget
  readonly order: FillOrder
  readonly filled: FilledRoll[]
  isProof: boolean
}

/**
 * Whether the pieces (longest first) fit on `rollCounts[s]` rolls of `rollLengths[s]`, and how. Bin
 * completion (Martello and Toth 1990; Korf 2002): the longest piece left must lie on some roll; try each size
 * for it, complete that roll by every maximal filling in order of waste, and give up a branch once the waste
 * so far exceeds what the total allows.
 */
export function fillRolls(
  pieces: readonly FillPiece[],
  rollLengths: readonly number[],
  rollCounts: readonly number[],
  order: FillOrder,
  budget: Budget,
): FillResult {
  const search: Search = {
    lengths: pieces.map((p) => p.length),
    rollLengths,
    left: pieces.map((p) => p.quantity),
    rolls: [...rollCounts],
    budget,
    order,
    filled: [],
    isProof: true,
  }
  const need = pieces.reduce((sum, p) => sum + p.length * p.quantity, 0)
  const room = rollLengths.reduce((sum, length, s) => sum + length * rollCounts[s]!, 0)
  if (complete(search, room - need)) return { kind: 'filled', rolls: search.filled }
  return search.isProof ? { kind: 'impossible' } : { kind: 'unknown' }
}

function complete(search: Search, wasteLeft: number): boolean {
  if (wasteLeft < 0) return false
  const first = search.left.findIndex((n) => n > 0)
  if (first < 0) return true
  for (let s = 0; s < search.rolls.length; s++) {
    if (search.rolls[s]! === 0 || search.rollLengths[s]! < search.lengths[first]!) continue
    search.rolls[s]!--
    for (const filling of fillingsOf(search, s, first, wasteLeft)) {
      if (search.budget.steps <= 0) {
        search.isProof = false
        break
      }
      filling.counts.forEach((n, i) => (search.left[i]! -= n))
      search.filled.push({ stock: s, counts: filling.counts })
      if (complete(search, wasteLeft - filling.waste)) return true
      search.filled.pop()
      filling.counts.forEach((n, i) => (search.left[i]! += n))
    }
    search.rolls[s]!++
  }
  return false
}

/** Fillings in the order in which the search tries them. */
function inOrder(found: readonly Filling[], search: Search, wasteLeft: number): Filling[] {
  const byWaste = (a: Filling, b: Filling) => a.waste - b.waste
  if (search.order === 'least-waste') return [...found].sort(byWaste)
  // As found, long pieces come before short ones; kept so while a filling wastes no more than this roll's
  // share.
  const share = wasteLeft / search.rolls.reduce((sum, n) => sum + n, 1)
  const fair = found.filter((filling) => filling.waste <= share)
  return [...fair, ...found.filter((filling) => filling.waste > share).sort(byWaste)]
}

interface Filling {
  readonly counts: number[]
  readonly waste: number
}

/**
 * Maximal fillings of one roll that hold the piece `first`, least waste first, none wasting more than is
 * left.
 */
function fillingsOf(search: Search, stock: number, first: number, wasteLeft: number): Filling[] {
  const { lengths, left } = search
  const found: Filling[] = []
  const counts = left.map(() => 0)
  counts[first] = 1
  let steps = 0
  // Sum of all that is left from each piece on: when everything still fits, there is nothing to choose.
  const tail = new Array<number>(lengths.length + 1).fill(0)
  for (let i = lengths.length - 1; i >= 0; i--) tail[i] = tail[i + 1]! + lengths[i]! * left[i]!
  const smallest = lengths.reduce(
    (least, length, i) => (left[i]! > 0 ? Math.min(least, length) : least),
    Infinity,
  )

  const extend = (i: number, room: number): void => {
    if (steps++ > STEPS_PER_ROLL || found.length >= FILLINGS_PER_ROLL * 4) {
      search.isProof = false
      return
    }
    if (room < smallest || i === lengths.length) {
      if (room <= wasteLeft && isMaximal(room)) found.push({ counts: [...counts], waste: room })
      return
    }
    // What remains cannot bring the waste down to what is allowed.
    if (room - (tail[i]! - (i <= first ? lengths[first]! : 0)) > wasteLeft) return
    const free = left[i]! - counts[i]!
    const most = Math.min(free, Math.floor(room / lengths[i]!))
    const already = counts[i]!
    for (let n = most; n >= 0; n--) {
      counts[i] = already + n
      extend(i + 1, room - n * lengths[i]!)
    }
    counts[i] = already
  }
  const isMaximal = (room: number) => lengths.every((length, i) => length > room || left[i]! === counts[i]!)

  extend(first, search.rollLengths[stock]! - lengths[first]!)
  search.budget.steps -= steps
  const ordered = inOrder(found, search, wasteLeft)
  if (ordered.length > FILLINGS_PER_ROLL) {
    search.isProof = false
    ordered.length = FILLINGS_PER_ROLL
  }
  return ordered
}
