import { nearestAlong, polylineLengthM } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'
import type { EntryOf } from '../fold/index.ts'
import { addPiece, addTie, childrenOf, cutPiece, lengthOf, moveTo, removeSubtree, tiesOf } from './draft.ts'
import type { WoodDraft } from './draft.ts'
import type { woodEntries } from './entries.ts'
import { changePiece, misfit } from './live.ts'
import { NOT_SEEN } from './wood.ts'
import type { Piece } from './wood.ts'

type FirstEntry<
  K extends 'stem.drawn' | 'stem.redrawn' | 'stem.measured' | 'stem.shortened' | 'stem.removed',
> = EntryOf<Pick<typeof woodEntries, K>>
type FirstTie = Extract<EntryOf<Pick<typeof woodEntries, 'tie.made'>>['body'], { v: 1 }>

/** A child of the first releases sits on its parent when its base is this near. */
const ATTACHED_M = 0.03

/**
 * Reads wood entries of the first releases as they were meant: a stem hung together with the wood that it was
 * drawn on by being near to it, and a tie was a place on the wall. Nearness is resolved when the entry is
 * folded, so an entry that arrives late from an old phone means what it meant there.
 */
export function readFirstEntry(
  draft: WoodDraft,
  entry: FirstEntry<'stem.drawn' | 'stem.redrawn' | 'stem.measured' | 'stem.shortened' | 'stem.removed'>,
): void {
  switch (entry.kind) {
    case 'stem.drawn':
      return drawn(draft, entry)
    case 'stem.redrawn':
      return changePiece(draft, entry, entry.body.stemId, (piece) => redraw(draft, piece, entry.body.points))
    case 'stem.measured':
      return changePiece(draft, entry, entry.body.stemId, (piece) => {
        draft.pieces.set(piece.id, { ...piece, baseMm: entry.body.diameterMm, measuredOn: entry.at })
      })
    case 'stem.shortened':
      return changePiece(draft, entry, entry.body.stemId, (piece) => shorten(draft, entry, piece))
    case 'stem.removed':
      return changePiece(draft, entry, entry.body.stemId, (piece) =>
        removeSubtree(draft, piece.id, entry.at, entry.body.reason),
      )
  }
}

function drawn(draft: WoodDraft, entry: FirstEntry<'stem.drawn'>): void {
  const { body } = entry
  const parent = body.parentStemId === null ? undefined : draft.pieces.get(body.parentStemId)
  if (draft.pieces.has(body.stemId)) return misfit(draft, entry, 'already-there')
  if (body.parentStemId !== null && !parent) return misfit(draft, entry, 'no-such-wood')
  if (parent && parent.removedOn !== null) return misfit(draft, entry, 'wood-gone')
  draft.byNearness.add(body.stemId)
  addPiece(draft, {
    id: body.stemId,
    plantId: entry.plantId ?? '',
    parent: parent
      ? { on: 'piece', pieceId: parent.id, alongM: nearestAlong(parent.path, body.points[0]!).alongM }
      : { on: 'crown', leadId: null },
    path: body.points,
    led: [],
    drawnOn: entry.at,
    seasonsThen: body.ageSeasons,
    baseMm: body.diameterMm,
    measuredOn: entry.at,
    tipMm: null,
    buds: null,
    side: null,
    ...NOT_SEEN,
    isTypical: false,
    calledRole: body.part,
    cuts: [],
    marks: [],
    nodeCounts: [],
    removedOn: null,
    removedWhy: null,
  })
}

/**
 * Then wood was drawn anew and what sat on it stayed where it was; what is addressed along it moves as it
 * does now.
 */
function redraw(draft: WoodDraft, piece: Piece, path: readonly Point[]): void {
  moveTo(draft, piece, path, (id) => draft.byNearness.has(id))
  const { parent } = piece
  if (parent.on === 'piece' && draft.byNearness.has(piece.id)) {
    const on = draft.pieces.get(parent.pieceId)!
    const moved = draft.pieces.get(piece.id)!
    const { alongM } = nearestAlong(on.path, path[0]!)
    draft.pieces.set(piece.id, { ...moved, parent: { ...parent, alongM } })
  }
  for (const child of childrenOf(draft, piece.id)) readdress(draft, child, path)
  for (const tie of tiesOf(draft, piece.id)) {
    if (draft.byNearness.has(tie.id))
      draft.ties.set(tie.id, { ...tie, alongM: nearestAlong(path, tie.at).alongM })
  }
}

/** Where a child of the first releases sits on its parent's line as that is now. */
function readdress(draft: WoodDraft, child: Piece, path: readonly Point[]): void {
  if (child.parent.on !== 'piece' || !draft.byNearness.has(child.id)) return
  const { alongM } = nearestAlong(path, child.path[0]!)
  draft.pieces.set(child.id, { ...child, parent: { ...child.parent, alongM } })
}

function shorten(draft: WoodDraft, entry: FirstEntry<'stem.shortened'>, piece: Piece): void {
  const { toLengthM, reason } = entry.body
  if (toLengthM >= lengthOf(piece)) return misfit(draft, entry, 'longer-than-wood')
  cutPiece(draft, piece, { on: entry.at, reason, alongM: toLengthM, aboveBuds: null }, (child) => {
    if (child.parent.on !== 'piece' || child.parent.alongM <= toLengthM + 1e-9) return false
    // What was drawn further off hung on it by name alone, and stayed.
    const isNear = nearestAlong(piece.path, child.path[0]!).distanceM <= ATTACHED_M
    return isNear || !draft.byNearness.has(child.id)
  })
  const { path } = draft.pieces.get(piece.id)!
  for (const child of childrenOf(draft, piece.id)) readdress(draft, child, path)
}

/** A tie of the first releases: a place, from which follows where along the wood it is. */
export function addFirstTie(
  draft: WoodDraft,
  entry: { readonly at: string; readonly id: string },
  tie: FirstTie,
): void {
  const piece = draft.pieces.get(tie.stemId)
  if (draft.ties.has(tie.tieId)) return misfit(draft, entry, 'already-there')
  if (!piece) return misfit(draft, entry, 'no-such-wood')
  if (piece.removedOn !== null) return misfit(draft, entry, 'wood-gone')
  draft.byNearness.add(tie.tieId)
  addTie(draft, {
    id: tie.tieId,
    pieceId: tie.stemId,
    plantId: piece.plantId,
    alongM: Math.min(polylineLengthM(piece.path), nearestAlong(piece.path, tie.at).alongM),
    at: tie.at,
    support: null,
    materialId: tie.materialId,
    hitch: tie.hitch,
    supportDiameterMm: tie.supportDiameterMm,
    stemDiameterMm: tie.stemDiameterMm,
    loopLengthMm: tie.loopLengthMm,
    madeOn: entry.at,
    setOn: entry.at,
    lookedOn: null,
    postponedUntil: null,
    endedOn: null,
    endedWhy: null,
  })
}
