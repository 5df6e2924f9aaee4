import { countRolls, patternCount } from './rolls-count.ts'
import type { FillPiece, FilledRoll } from './rolls-fill.ts'

/** Pieces from which on an order is cut as so many times a smaller one. */
const LARGE_ORDER = 400
/**
 * Largest factor tried: beyond it the smaller order is a handful of pieces and no longer like the large one.
 */
const MAX_FACTOR = 400

/**
 * Large orders of few lengths, such as posts for a hundred rows: the order over a factor, rounded up, is cut
 * exactly and repeated; the factor is the least for which the smaller order can be counted out. Good, but not
 * proven: what is rounded up may be too much by a roll or two of each. `null` for orders that are not like
 * that.
 */
export function cutByMultiples(
  pieces: readonly FillPiece[],
  lengths: readonly number[],
  prices: readonly number[],
): FilledRoll[] | null {
  const total = pieces.reduce((sum, piece) => sum + piece.quantity, 0)
  if (total < LARGE_ORDER) return null
  const patterns = patternCount(pieces, lengths)
  const workAt = (factor: number) =>
    pieces.reduce((states, piece) => states * (Math.ceil(piece.quantity / factor) + 1), patterns)
  for (let factor = 2; factor <= Math.min(MAX_FACTOR, total); factor++) {
    if (workAt(factor) > QUICK_WORK) continue
    const smaller = pieces.map((piece) => ({ ...piece, quantity: Math.ceil(piece.quantity / factor) }))
    const once = countRolls(smaller, lengths, prices)
    return once && Array.from({ length: factor }, () => once).flat()
  }
  return null
}

/** States times patterns of the smaller order: a few milliseconds, since this runs at every keystroke. */
const QUICK_WORK = 120_000

/**
 * The least that any cutting can cost: every metre at the price of the cheapest metre that its piece can be
 * cut from (the material bound; a longer piece fits fewer sizes).
 */
export function materialBound(
  pieces: readonly FillPiece[],
  lengths: readonly number[],
  prices: readonly number[],
): number {
  return pieces.reduce((sum, piece) => {
    const perUnit = lengths.reduce(
      (least, length, s) => (length >= piece.length ? Math.min(least, prices[s]! / length) : least),
      Infinity,
    )
    return sum + piece.quantity * piece.length * perUnit
  }, 0)
}
