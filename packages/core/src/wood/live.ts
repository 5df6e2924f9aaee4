import type { CalendarDate } from '../season/index.ts'
import type { Misfit, WoodDraft } from './draft.ts'
import type { Piece, Tie } from './wood.ts'

interface Written {
  readonly id: string
}
interface WrittenOfTie extends Written {
  readonly at: CalendarDate
  readonly kind: string
}

export function misfit(draft: WoodDraft, entry: Written, why: Misfit['why']): void {
  draft.misfits.push({ entryId: entry.id, why })
}

/** Does something to a piece that is there; of any other the entry is a misfit. */
export function changePiece(
  draft: WoodDraft,
  entry: Written,
  pieceId: string,
  change: (piece: Piece) => void,
): void {
  const piece = draft.pieces.get(pieceId)
  if (!piece) return misfit(draft, entry, 'no-such-wood')
  if (piece.removedOn !== null) return misfit(draft, entry, 'wood-gone')
  change(piece)
}

/**
 * Does something to a tie that holds. Two people who go the same round come to the same ties: what the second says of
 * one that ended that day is no misfit, but for a tie that was put in its place, which is not there twice.
 */
export function changeTie(
  draft: WoodDraft,
  entry: WrittenOfTie,
  tieId: string,
  change: (tie: Tie) => void,
): void {
  const tie = draft.ties.get(tieId)
  if (!tie) return misfit(draft, entry, 'no-such-tie')
  if (tie.endedOn === null) return change(tie)
  if (tie.endedOn !== entry.at || entry.kind === 'tie.replaced') misfit(draft, entry, 'tie-ended')
}
