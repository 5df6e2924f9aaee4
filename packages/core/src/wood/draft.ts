import { cutPolyline, pointAlong, polylineLengthM } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'
import type { Cut, Piece, Tie } from './wood.ts'

/** An entry that says something impossible of the state it met: kept and shown, never dropped. */
export interface Misfit {
  readonly entryId: string
  readonly why:
    | 'no-such-wood'
    | 'wood-gone'
    | 'no-such-tie'
    | 'tie-ended'
    | 'longer-than-wood'
    | 'already-there'
    | 'own-ancestor'
}

/**
 * Wood and ties while the journal is folded. Positions along a piece are kept within it by everything here.
 */
export interface WoodDraft {
  readonly pieces: Map<string, Piece>
  readonly ties: Map<string, Tie>
  readonly childrenOf: Map<string, string[]>
  readonly tiesOf: Map<string, string[]>
  /** Pieces and ties of the first releases, whose place along their piece follows from where they are. */
  readonly byNearness: Set<string>
  readonly misfits: Misfit[]
}

export const emptyDraft = (): WoodDraft => ({
  pieces: new Map(),
  ties: new Map(),
  childrenOf: new Map(),
  tiesOf: new Map(),
  byNearness: new Set(),
  misfits: [],
})

const listsOf = (lists: ReadonlyMap<string, readonly string[]>): Map<string, string[]> =>
  new Map([...lists].map(([id, list]) => [id, [...list]]))

/** The draft once more; pieces and ties are never changed in place, lists of them are. */
export const copyOf = ({ pieces, ties, childrenOf, tiesOf, byNearness, misfits }: WoodDraft): WoodDraft => ({
  pieces: new Map(pieces),
  ties: new Map(ties),
  childrenOf: listsOf(childrenOf),
  tiesOf: listsOf(tiesOf),
  byNearness: new Set(byNearness),
  misfits: [...misfits],
})

/** What stands and what is on, without the wood and the ties that are gone: enough to go on from. */
export function living({ pieces, ties, childrenOf, tiesOf, byNearness }: WoodDraft): WoodDraft {
  const stands = new Map([...pieces].filter(([, { removedOn }]) => removedOn === null))
  const on = new Map([...ties].filter(([, { endedOn }]) => endedOn === null))
  const only = (lists: ReadonlyMap<string, readonly string[]>, there: ReadonlyMap<string, unknown>) =>
    new Map(
      [...lists].flatMap(([id, list]) => {
        const left = list.filter((one) => there.has(one))
        return stands.has(id) && left.length > 0 ? [[id, left] as const] : []
      }),
    )
  return {
    pieces: stands,
    ties: on,
    childrenOf: only(childrenOf, stands),
    tiesOf: only(tiesOf, on),
    byNearness: new Set([...byNearness].filter((id) => stands.has(id) || on.has(id))),
    misfits: [],
  }
}

/** Lengths nearer than this are the same. */
export const SAME_M = 1e-9

export const lengthOf = (piece: Piece): number => polylineLengthM(piece.path)
export const childrenOf = (draft: WoodDraft, id: string): Piece[] =>
  (draft.childrenOf.get(id) ?? []).map((child) => draft.pieces.get(child)!)
export const tiesOf = (draft: WoodDraft, id: string): Tie[] =>
  (draft.tiesOf.get(id) ?? []).map((tie) => draft.ties.get(tie)!)

export function addPiece(draft: WoodDraft, piece: Piece): void {
  draft.pieces.set(piece.id, piece)
  if (piece.parent.on === 'piece') push(draft.childrenOf, piece.parent.pieceId, piece.id)
}

export function addTie(draft: WoodDraft, tie: Tie): void {
  draft.ties.set(tie.id, tie)
  push(draft.tiesOf, tie.pieceId, tie.id)
}

export function endTie(draft: WoodDraft, tie: Tie, on: CalendarDate, why: Tie['endedWhy']): void {
  if (tie.endedOn === null) draft.ties.set(tie.id, { ...tie, endedOn: on, endedWhy: why })
}

/** Takes a piece away with all that sits on it, however deep; ties on it end. */
export function removeSubtree(draft: WoodDraft, pieceId: string, on: CalendarDate, why: string): void {
  // Walked with a stack of its own: a long chain of pieces must not overflow the machine's.
  const open = [pieceId]
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const piece = draft.pieces.get(id)!
    if (piece.removedOn !== null) continue
    draft.pieces.set(id, { ...piece, removedOn: on, removedWhy: why })
    for (const tie of tiesOf(draft, id)) endTie(draft, tie, on, 'wood-gone')
    open.push(...(draft.childrenOf.get(id) ?? []))
  }
}

/** Cuts a piece to a length; `isTaken` says which of its children go with what is cut off. */
export function cutPiece(draft: WoodDraft, piece: Piece, cut: Cut, isTaken: (child: Piece) => boolean): void {
  for (const child of childrenOf(draft, piece.id))
    if (isTaken(child)) removeSubtree(draft, child.id, cut.on, cut.reason)
  for (const tie of tiesOf(draft, piece.id))
    if (tie.alongM > cut.alongM + SAME_M) endTie(draft, tie, cut.on, 'wood-gone')
  draft.pieces.set(piece.id, {
    ...piece,
    path: cutPolyline(piece.path, cut.alongM),
    cuts: [...piece.cuts, cut],
  })
}

/** Two drawings of one cane differ by less than this share of its length. */
const SAME_CANE = 0.15

/**
 * Gives a piece another line. Every place along it is kept as its share of the length, since a hand draws the
 * same cane a little longer or shorter; what sits on it goes along, turned as the wood under it has turned.
 */
export const layPiece = (draft: WoodDraft, piece: Piece, path: readonly Point[]): void =>
  moveTo(draft, piece, path, () => false)

/** As `layPiece`, but for what stays where it is on the wall. */
export function moveTo(
  draft: WoodDraft,
  piece: Piece,
  path: readonly Point[],
  stays: (id: string) => boolean,
): void {
  const [before, after] = [lengthOf(piece), polylineLengthM(path)]
  // What is much longer than it was has grown at its tip, and everything on it is as far from the base as
  // before.
  const hasGrown = after > before * (1 + SAME_CANE)
  const scale = before > 0 && !hasGrown ? after / before : 1
  draft.pieces.set(piece.id, { ...piece, path })
  for (const tie of tiesOf(draft, piece.id)) {
    if (stays(tie.id)) continue
    const alongM = Math.min(after, tie.alongM * scale)
    draft.ties.set(tie.id, { ...tie, alongM, at: pointAlong(path, alongM) })
  }
  for (const child of childrenOf(draft, piece.id)) {
    if (child.parent.on !== 'piece' || stays(child.id)) continue
    const was = child.parent.alongM
    const now = Math.min(after, was * scale)
    const turn = headingAt(path, now) - headingAt(piece.path, was)
    const [from, to] = [pointAlong(piece.path, was), pointAlong(path, now)]
    moveSubtree(draft, child.id, (p) => turnAbout(p, from, to, turn))
    const moved = draft.pieces.get(child.id)!
    draft.pieces.set(child.id, { ...moved, parent: { ...child.parent, alongM: now } })
  }
}

function moveSubtree(draft: WoodDraft, pieceId: string, move: (p: Point) => Point): void {
  const open = [pieceId]
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const piece = draft.pieces.get(id)!
    draft.pieces.set(id, { ...piece, path: piece.path.map(move) })
    for (const tie of tiesOf(draft, id)) draft.ties.set(tie.id, { ...tie, at: move(tie.at) })
    open.push(...(draft.childrenOf.get(id) ?? []))
  }
}

/** Direction of a line at a place along it, radians. */
function headingAt(path: readonly Point[], alongM: number): number {
  const length = polylineLengthM(path)
  const step = Math.max(length * 1e-3, 1e-6)
  const from = Math.min(Math.max(0, alongM - step / 2), Math.max(0, length - step))
  const [a, b] = [pointAlong(path, from), pointAlong(path, from + step)]
  return Math.atan2(b.yM - a.yM, b.xM - a.xM)
}

function turnAbout(p: Point, from: Point, to: Point, turn: number): Point {
  const [dx, dy] = [p.xM - from.xM, p.yM - from.yM]
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
  return { xM: to.xM + dx * cos - dy * sin, yM: to.yM + dx * sin + dy * cos }
}

/** Everything that grows on a piece, itself included. */
export function subtree(draft: WoodDraft, pieceId: string): Piece[] {
  const found: Piece[] = []
  const open = [pieceId]
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    found.push(draft.pieces.get(id)!)
    open.push(...(draft.childrenOf.get(id) ?? []))
  }
  return found
}

function push<V>(map: Map<string, V[]>, key: string, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}
