import type { Misfit, WoodDraft } from './draft.ts'
import type { Piece, Tie } from './wood.ts'

interface Written {
  readonly id: string
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

/** Does something to a tie that holds. */
export function changeTie(draft: WoodDraft, entry: Written, tieId: string, change: (tie: Tie) => void): void {
  const tie = draft.ties.get(tieId)
  if (!tie) return misfit(draft, entry, 'no-such-tie')
  if (tie.endedOn !== null) return misfit(draft, entry, 'tie-ended')
  change(tie)
}
