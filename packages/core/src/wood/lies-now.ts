import type { Frame } from '../frame/index.ts'
import { tracksOf } from '../frame/index.ts'
import type { Track } from '../frame/index.ts'
import { alongPath, distance3M, inSpace, partOfPath, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint, Point3 } from '../geometry/index.ts'
import { courseOn } from './winding.ts'
import type { Led } from './way.ts'
import type { Piece, Tie } from './wood.ts'

/** The tracks of frames, found by what they are a part of. */
export type TrackFinder = (frameId: string, part: Led['part']) => Track | undefined

const keyOf = (frameId: string, part: Led['part']): string =>
  part.on === 'line' ? `${frameId} line ${part.lineId}` : `${frameId} member ${part.memberId}`

/** What runs along which of a frame's parts. */
export function trackFinder(frames: ReadonlyMap<string, Frame>): TrackFinder {
  const byKey = new Map<string, Track>()
  for (const [frameId, frame] of frames)
    for (const track of tracksOf(frame)) byKey.set(keyOf(frameId, track.part), track)
  return (frameId, part) => byKey.get(keyOf(frameId, part))
}

/** Wood as it lies on the frames of now, and what of it has lost what it ran along. */
export interface Lying {
  readonly pieces: ReadonlyMap<string, Piece>
  readonly ties: ReadonlyMap<string, Tie>
  /** Pieces that hang loose somewhere: their wire or stake is no longer there, or is too short by then. */
  readonly loose: ReadonlySet<string>
}

/**
 * Wood where it is: what runs along a part of a frame goes with it, what is free stays, and what was written down before
 * wood had depth takes that of what it is tied to. Pieces that lie as they were written are the same objects.
 */
export function liesNow(
  { pieces, ties }: { readonly pieces: ReadonlyMap<string, Piece>; readonly ties: ReadonlyMap<string, Tie> },
  find: TrackFinder,
): Lying {
  const moved = new Map<string, Piece>()
  const loose = new Set<string>()
  const tiesOf = new Map<string, Tie[]>()
  for (const tie of ties.values())
    if (tie.endedOn === null && tie.support !== null)
      tiesOf.set(tie.pieceId, [...(tiesOf.get(tie.pieceId) ?? []), tie])
  for (const piece of inOrder(pieces)) {
    if (piece.removedOn !== null) continue
    const base = baseNow(piece, pieces, moved)
    const now =
      piece.led.length > 0
        ? fromItsBase(ledNow(piece, find, loose), base)
        : withItsBase(atItsTies(piece, tiesOf, base, find), base)
    if (now !== piece) moved.set(piece.id, now)
  }
  if (moved.size === 0) return { pieces, ties, loose }
  const placed = new Map(ties)
  for (const tie of ties.values()) {
    const piece = moved.get(tie.pieceId)
    if (piece) placed.set(tie.id, { ...tie, at: alongPath(piece.path, lengthOn(piece, pieces, tie.alongM)) })
  }
  return {
    pieces: new Map([...pieces].map(([id, piece]) => [id, moved.get(id) ?? piece])),
    ties: placed,
    loose,
  }
}

/** Parents before what grows on them. */
function* inOrder(pieces: ReadonlyMap<string, Piece>): Generator<Piece> {
  const done = new Set<string>()
  for (const piece of pieces.values()) {
    const chain: Piece[] = []
    for (let at: Piece | undefined = piece; at && !done.has(at.id); ) {
      chain.push(at)
      done.add(at.id)
      at = at.parent.on === 'piece' ? pieces.get(at.parent.pieceId) : undefined
    }
    yield* chain.reverse()
  }
}

/** Where a piece begins now that what it grows on lies elsewhere; `null` where that lies as it was written. */
function baseNow(
  { parent }: Piece,
  pieces: ReadonlyMap<string, Piece>,
  moved: ReadonlyMap<string, Piece>,
): DeepPoint | null {
  const under = parent.on === 'piece' ? moved.get(parent.pieceId) : undefined
  if (!under || parent.on !== 'piece') return null
  return alongPath(under.path, lengthOn(under, pieces, parent.alongM))
}

/** What is free goes along with what it grows on: nothing hangs in the air. */
function withItsBase(piece: Piece, base: DeepPoint | null): Piece {
  const from = piece.path[0]!
  if (!base || distance3M(from, base) <= SAME_M) return piece
  const [dx, dy, dz] = [base.xM - from.xM, base.yM - from.yM, (base.zM ?? 0) - (from.zM ?? 0)]
  return {
    ...piece,
    path: piece.path.map(({ xM, yM, zM }) => ({
      xM: xM + dx,
      yM: yM + dy,
      ...(zM === undefined ? {} : { zM: zM + dz }),
    })),
  }
}

/** What is led keeps to what it is led by; the way there begins where it grows from now. */
function fromItsBase(piece: Piece, base: DeepPoint | null): Piece {
  const first = piece.led[0]!
  if (!base || first.startM <= SAME_M || distance3M(piece.path[0]!, base) <= SAME_M) return piece
  const path = [base, ...piece.path.slice(1)]
  const shift = pathLengthM(path) - pathLengthM(piece.path)
  const led = piece.led.map((one) => ({ ...one, startM: one.startM + shift, endM: one.endM + shift }))
  return { ...piece, path, led }
}

/** A place along a piece as it is drawn now: of a wire that became longer, its share of the length. */
function lengthOn(now: Piece, pieces: ReadonlyMap<string, Piece>, alongM: number): number {
  const was = pathLengthM(pieces.get(now.id)!.path)
  return was > 0 ? (alongM * pathLengthM(now.path)) / was : alongM
}

/** Nearer than this wood lies where its track is, metres. */
const SAME_M = 1e-4

interface LedNow {
  readonly find: TrackFinder
  readonly piece: Piece
  readonly isLoose: boolean
}
const known = new WeakMap<Piece, LedNow>()

/** As it lies on the frames asked of last: a tap on one cane of hundreds does not lay the others anew. */
function ledNow(piece: Piece, find: TrackFinder, loose: Set<string>): Piece {
  const before = known.get(piece)
  const now = before?.find === find ? before : { find, ...alongItsTracks(piece, find) }
  if (now !== before) known.set(piece, now)
  if (now.isLoose) loose.add(piece.id)
  return now.piece
}

function alongItsTracks(piece: Piece, find: TrackFinder): Omit<LedNow, 'find'> {
  const path: DeepPoint[] = []
  const led: Led[] = []
  let [hasMoved, isLoose, at, run] = [false, false, 0, 0]
  const add = (points: readonly DeepPoint[]) => {
    for (const p of points) {
      if (path.length > 0) {
        const step = distance3M(path.at(-1)!, p)
        if (step < 1e-9) continue
        run += step
      }
      path.push(p)
    }
  }
  for (const one of piece.led) {
    if (one.startM > at + 1e-9) add(withoutEnd(partOfPath(piece.path, at, one.startM)))
    const lay = partOfPath(piece.path, one.startM, one.endM)
    const track = find(one.frameId, one.part)
    const now = track ? onTrack(track, one) : null
    isLoose ||= now === null
    if (now && (distance3M(now[0]!, lay[0]!) > SAME_M || distance3M(now.at(-1)!, lay.at(-1)!) > SAME_M))
      hasMoved = true
    // What is on its way there from the base reaches it first.
    const points = now ?? lay
    const startM = path.length === 0 ? 0 : run + distance3M(path.at(-1)!, points[0]!)
    add(points)
    led.push({ ...one, startM, endM: run })
    at = one.endM
  }
  if (!hasMoved) return { piece, isLoose }
  const end = piece.path.length > 0 ? pathLengthM(piece.path) : 0
  if (at < end - 1e-6) {
    // What is free beyond goes along with the last of what is led.
    const from = inSpace(alongPath(piece.path, at))
    const to = inSpace(path.at(-1)!)
    add(
      partOfPath(piece.path, at, end)
        .slice(1)
        .map((p) => shifted(inSpace(p), from, to)),
    )
  }
  return { piece: { ...piece, path, led }, isLoose }
}

const withoutEnd = (points: readonly DeepPoint[]): readonly DeepPoint[] => points.slice(0, -1)
const shifted = (p: Point3, from: Point3, to: Point3): Point3 => ({
  xM: p.xM + to.xM - from.xM,
  yM: p.yM + to.yM - from.yM,
  zM: p.zM + to.zM - from.zM,
})

/** How far beyond the end of a track wood may have been written to lie, metres. */
const BEYOND_M = 0.02

/** Where a stretch lies on its track now; `null` where that has become too short. */
const onTrack = (track: Track, led: Led): DeepPoint[] | null =>
  Math.max(led.fromM, led.toM) > track.lengthM + BEYOND_M ? null : courseOn(track.way, led)

/** Wood of before, whose depth nobody wrote down: at its ties that of what they hold on to, between them evenly. */
function atItsTies(
  piece: Piece,
  tiesOf: ReadonlyMap<string, readonly Tie[]>,
  base: DeepPoint | null,
  find: TrackFinder,
): Piece {
  if (piece.path.some(({ zM }) => zM !== undefined)) return piece
  const baseZM = base?.zM ?? 0
  const depths = (tiesOf.get(piece.id) ?? []).flatMap(({ support, alongM }) => {
    const part =
      support!.on === 'line'
        ? ({ on: 'line', lineId: support!.lineId } as const)
        : ({ on: 'member', memberId: support!.memberId } as const)
    const track = find(support!.frameId, part)
    return track ? [{ alongM, zM: alongPath(track.way, support!.alongM).zM ?? 0 }] : []
  })
  if (baseZM === 0 && depths.every(({ zM }) => Math.abs(zM) < 1e-9)) return piece
  const known = [{ alongM: 0, zM: baseZM }, ...depths.sort((a, b) => a.alongM - b.alongM)]
  let run = 0
  return {
    ...piece,
    path: piece.path.map((p, i) => {
      if (i > 0) run += distance3M(piece.path[i - 1]!, p)
      return { ...p, zM: depthAt(known, run) }
    }),
  }
}

function depthAt(known: readonly { readonly alongM: number; readonly zM: number }[], alongM: number): number {
  const next = known.findIndex((one) => one.alongM >= alongM)
  if (next < 0) return known.at(-1)!.zM
  if (next === 0) return known[0]!.zM
  const [a, b] = [known[next - 1]!, known[next]!]
  const span = b.alongM - a.alongM
  return span > 0 ? a.zM + ((b.zM - a.zM) * (alongM - a.alongM)) / span : b.zM
}
