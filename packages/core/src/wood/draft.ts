import { alongPath, cutPath, distance3M, inSpace, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint, Point3 } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'
import { ledUpTo } from './way.ts'
import type { Led } from './way.ts'
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

export const lengthOf = (piece: Piece): number => pathLengthM(piece.path)
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
    path: cutPath(piece.path, cut.alongM),
    led: ledUpTo(piece.led, cut.alongM),
    cuts: [...piece.cuts, cut],
  })
}

/** Two drawings of one cane differ by less than this share of its length. */
const SAME_CANE = 0.15

/**
 * Gives a piece another line. Every place along it is kept as its share of the length, since a hand draws the
 * same cane a little longer or shorter; what sits on it goes along, turned as the wood under it has turned.
 */
export const layPiece = (
  draft: WoodDraft,
  piece: Piece,
  path: readonly DeepPoint[],
  led: readonly Led[] = NOT_LED,
): void => moveTo(draft, piece, path, () => false, led)

const NOT_LED: readonly Led[] = []

/** As `layPiece`, but for what stays where it is on the wall. */
export function moveTo(
  draft: WoodDraft,
  piece: Piece,
  path: readonly DeepPoint[],
  stays: (id: string) => boolean,
  led: readonly Led[] = NOT_LED,
): void {
  const [before, after] = [lengthOf(piece), pathLengthM(path)]
  // What is much longer than it was has grown at its tip, and everything on it is as far from the base as
  // before.
  const hasGrown = after > before * (1 + SAME_CANE)
  const scale = before > 0 && !hasGrown ? after / before : 1
  draft.pieces.set(piece.id, { ...piece, path, led })
  for (const tie of tiesOf(draft, piece.id)) {
    if (stays(tie.id)) continue
    const alongM = Math.min(after, tie.alongM * scale)
    draft.ties.set(tie.id, { ...tie, alongM, at: alongPath(path, alongM) })
  }
  for (const child of childrenOf(draft, piece.id)) {
    if (child.parent.on !== 'piece' || stays(child.id)) continue
    const was = child.parent.alongM
    const now = Math.min(after, was * scale)
    const [from, to] = [alongPath(piece.path, was), alongPath(path, now)]
    if (child.led.length > 0) rebase(draft, child, to)
    else {
      const turn = turnBetween(headingAt(piece.path, was), headingAt(path, now))
      moveSubtree(draft, child.id, (p) => turnAbout(p, from, to, turn))
    }
    const moved = draft.pieces.get(child.id)!
    draft.pieces.set(child.id, { ...moved, parent: { ...child.parent, alongM: now } })
  }
}

/** What is led along a frame stays on it, with all that grows there; what comes before that goes to its new base. */
function rebase(draft: WoodDraft, piece: Piece, base: DeepPoint): void {
  const first = piece.led[0]!
  const length = lengthOf(piece)
  const held: DeepPoint[] = [alongPath(piece.path, first.startM)]
  let run = 0
  piece.path.forEach((p, i) => {
    if (i > 0) run += distance3M(piece.path[i - 1]!, p)
    if (run > first.startM + SAME_M) held.push(p)
  })
  const path = distance3M(base, held[0]!) > SAME_M ? [base, ...held] : held
  const shift = pathLengthM(path) - length
  const led = piece.led.map((one) => ({ ...one, startM: one.startM + shift, endM: one.endM + shift }))
  draft.pieces.set(piece.id, { ...piece, path, led })
  const along = (alongM: number): number => Math.max(0, alongM + shift)
  for (const tie of tiesOf(draft, piece.id)) draft.ties.set(tie.id, { ...tie, alongM: along(tie.alongM) })
  for (const child of childrenOf(draft, piece.id))
    if (child.parent.on === 'piece')
      draft.pieces.set(child.id, {
        ...child,
        parent: { ...child.parent, alongM: along(child.parent.alongM) },
      })
}

function moveSubtree(draft: WoodDraft, pieceId: string, move: (p: DeepPoint) => DeepPoint): void {
  const open = [pieceId]
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const piece = draft.pieces.get(id)!
    draft.pieces.set(id, { ...piece, path: piece.path.map(move), led: NOT_LED })
    for (const tie of tiesOf(draft, id)) draft.ties.set(tie.id, { ...tie, at: move(tie.at) })
    open.push(...(draft.childrenOf.get(id) ?? []))
  }
}

/** Direction of a line at a place along it, as the step it takes there. */
function headingAt(path: readonly DeepPoint[], alongM: number): Point3 {
  const length = pathLengthM(path)
  const step = Math.max(length * 1e-3, 1e-6)
  const from = Math.min(Math.max(0, alongM - step / 2), Math.max(0, length - step))
  const [a, b] = [inSpace(alongPath(path, from)), inSpace(alongPath(path, from + step))]
  return { xM: b.xM - a.xM, yM: b.yM - a.yM, zM: b.zM - a.zM }
}

/** A turn about a direction, which is one unit long. */
interface Turn {
  readonly about: Point3
  readonly cos: number
  readonly sin: number
}
const IN_THE_PLANE: Point3 = { xM: 0, yM: 0, zM: 1 }

/** The least turn from one direction to another; in the plane of the wall, and for what turns right about, within it. */
function turnBetween(u: Point3, v: Point3): Turn {
  if (u.zM === 0 && v.zM === 0) {
    const angle = Math.atan2(v.yM, v.xM) - Math.atan2(u.yM, u.xM)
    return { about: IN_THE_PLANE, cos: Math.cos(angle), sin: Math.sin(angle) }
  }
  const about = {
    xM: u.yM * v.zM - u.zM * v.yM,
    yM: u.zM * v.xM - u.xM * v.zM,
    zM: u.xM * v.yM - u.yM * v.xM,
  }
  const across = Math.sqrt(about.xM ** 2 + about.yM ** 2 + about.zM ** 2)
  const dot = u.xM * v.xM + u.yM * v.yM + u.zM * v.zM
  const size = Math.sqrt(across ** 2 + dot ** 2)
  if (size === 0 || across <= size * 1e-9)
    return { about: IN_THE_PLANE, cos: size === 0 || dot > 0 ? 1 : -1, sin: 0 }
  return {
    about: { xM: about.xM / across, yM: about.yM / across, zM: about.zM / across },
    cos: dot / size,
    sin: across / size,
  }
}

/** A place as it goes along with a base that moved and turned (Rodrigues' formula). */
function turnAbout(p: DeepPoint, from: DeepPoint, to: DeepPoint, { about, cos, sin }: Turn): DeepPoint {
  const [dx, dy] = [p.xM - from.xM, p.yM - from.yM]
  if (about === IN_THE_PLANE) {
    const on = { xM: to.xM + dx * cos - dy * sin, yM: to.yM + dx * sin + dy * cos }
    if (p.zM === undefined && from.zM === undefined && to.zM === undefined) return on
    return { ...on, zM: (p.zM ?? 0) - (from.zM ?? 0) + (to.zM ?? 0) }
  }
  const dz = (p.zM ?? 0) - (from.zM ?? 0)
  const along = (about.xM * dx + about.yM * dy + about.zM * dz) * (1 - cos)
  return {
    xM: to.xM + dx * cos + (about.yM * dz - about.zM * dy) * sin + about.xM * along,
    yM: to.yM + dy * cos + (about.zM * dx - about.xM * dz) * sin + about.yM * along,
    zM: (to.zM ?? 0) + dz * cos + (about.xM * dy - about.yM * dx) * sin + about.zM * along,
  }
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
