import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import type { Frame } from '@klados/core/frame'
import { distanceM, nearestAlong, pointAlong, polylineLengthM } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import { usualLoopMm } from '@klados/core/ties'
import { supportAt } from '@klados/core/wood'
import type { Hitch, PieceRole } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'

/** A line of a piece from a day on. */
interface Line {
  readonly from: string
  readonly path: readonly Point[]
}

/** A line that begins where another ends goes on from it. */
const ON_LINE_M = 0.005

/** What the pages of all plants share: the entries, the lines of all wood, what stands at each place. */
interface Book {
  readonly today: string
  readonly entries: JournalEntry[]
  readonly lines: Map<string, Line[]>
  readonly frames: Map<string, { readonly frameId: string; readonly frame: Frame }>
}
export const newBook = (today: string): Book => ({
  today,
  entries: [],
  lines: new Map(),
  frames: new Map(),
})

/** Writes the demo's journal as its growers would have, leaving out what lies after today. */
export class Diary {
  constructor(
    private readonly book: Book,
    private readonly placeId: string,
    private readonly plantId: string | null,
  ) {}

  get entries(): readonly JournalEntry[] {
    return this.book.entries
  }

  /** The same diary, about another plant. */
  about(placeId: string, plantId: string | null): Diary {
    return new Diary(this.book, placeId, plantId)
  }

  /** What wood at a place can be tied to. */
  stands(placeId: string, frameId: string, frame: Frame): void {
    this.book.frames.set(placeId, { frameId, frame })
  }

  write<K extends EntryKind>(at: string, kind: K, body: EntryBodies[K]): void {
    if (at > this.book.today) return
    if (kind === 'piece.cut') this.shorten(at, body as EntryBodies['piece.cut'])
    const head = {
      id: uuidv7(),
      placeId: this.placeId,
      plantId: this.plantId,
      at,
      recordedAt: `${at}T12:00:00.000Z`,
      supersedes: null,
    }
    // The generic pair (kind, body) is right by its signature; the union cannot be told so.
    this.book.entries.push({ ...head, kind, body } as JournalEntry)
  }

  draw(
    at: string,
    piece: { role: PieceRole; parent: string | null; points: Point[]; age: number; mm: number },
  ): string {
    const pieceId = uuidv7()
    const { role, parent, points, age, mm } = piece
    this.write(at, 'piece.grew', {
      v: 1,
      pieceId,
      parent:
        parent === null
          ? { on: 'crown', leadId: null }
          : {
              on: 'piece',
              pieceId: parent,
              alongM: nearestAlong(this.pathOn(parent, at), points[0]!).alongM,
            },
      path: points,
      seasonsOld: age,
      baseMm: mm,
      tipMm: null,
      buds: null,
      side: null,
      role,
    })
    this.book.lines.set(pieceId, [{ from: at, path: points }])
    return pieceId
  }

  /** The wood has this line from now on: grown on from its tip, or laid along another. */
  grow(at: string, pieceId: string, points: readonly Point[]): void {
    const before = this.pathOn(pieceId, at)
    const tip = nearestAlong(points, before.at(-1)!)
    const isOn = tip.distanceM < ON_LINE_M && distanceM(before[0]!, points[0]!) < ON_LINE_M
    if (isOn) {
      const beyond = beyondOf(points, tip.alongM)
      this.write(at, 'piece.extended', { v: 1, pieceId, path: [before.at(-1)!, ...beyond] })
    } else this.write(at, 'piece.laid', { v: 1, pieceId, path: points })
    this.book.lines.get(pieceId)!.push({ from: at, path: points })
  }

  cut(at: string, pieceId: string, alongM: number, reason: string, aboveBuds: number | null = null): void {
    this.write(at, 'piece.cut', { v: 1, pieceId, alongM, aboveBuds, reason })
  }

  /** A piece that was drawn here ends at its cut from that day on. */
  private shorten(at: string, { pieceId, alongM }: EntryBodies['piece.cut']): void {
    const lines = this.book.lines.get(pieceId)
    if (!lines) return
    const path = this.pathOn(pieceId, at)
    const kept = [...path.slice(0, 1), ...path.slice(1).filter((p) => nearestAlong(path, p).alongM < alongM)]
    lines.push({ from: at, path: [...kept, pointAlong(path, alongM)] })
  }

  measure(at: string, pieceId: string, baseMm: number): void {
    this.write(at, 'piece.measured', { v: 1, pieceId, baseMm, tipMm: null, buds: null })
  }

  tie(
    at: string,
    tie: {
      stem: string
      at: Point
      material: string
      hitch: Hitch
      stemMm: number
      supportMm: number
      slackMm?: number
    },
  ): string {
    const tieId = uuidv7()
    const here = this.book.frames.get(this.placeId)
    this.write(at, 'tie.made', {
      v: 2,
      tieId,
      pieceId: tie.stem,
      alongM: nearestAlong(this.pathOn(tie.stem, at), tie.at).alongM,
      support: here ? supportAt(here.frameId, here.frame, tie.at) : null,
      materialId: tie.material,
      hitch: tie.hitch,
      supportDiameterMm: tie.supportMm,
      stemDiameterMm: tie.stemMm,
      loopLengthMm: usualLoopMm(tie.hitch, tie.stemMm, tie.supportMm) + (tie.slackMm ?? 0),
    })
    return tieId
  }

  private pathOn(pieceId: string, day: string): readonly Point[] {
    const lines = this.book.lines.get(pieceId)!.filter((line) => line.from <= day)
    return lines.reduce((latest, line) => (line.from >= latest.from ? line : latest)).path
  }

  note(at: string, text: string): void {
    this.write(at, 'note.written', { v: 1, text })
  }
}

/** Corners of a line beyond a place along it, its end at least. */
function beyondOf(path: readonly Point[], alongM: number): Point[] {
  const beyond = path.filter((_, i) => i > 0 && polylineLengthM(path.slice(0, i + 1)) > alongM + 1e-6)
  return beyond.length > 0 ? beyond : [path.at(-1)!]
}

/** Small differences between plants, the same in every garden: mulberry32 (T. Ettinger, public domain). */
export function seededRandom(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
