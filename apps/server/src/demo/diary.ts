import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import type { Point } from '@klados/core/geometry'
import { usualLoopMm } from '@klados/core/ties'
import type { Hitch, StemPart } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'

/** Writes the demo's journal as its growers would have, leaving out what lies after today. */
export class Diary {
  constructor(
    private readonly today: string,
    private readonly placeId: string,
    private readonly plantId: string | null,
    readonly entries: JournalEntry[] = [],
  ) {}

  /** The same diary, about another plant. */
  about(placeId: string, plantId: string | null): Diary {
    return new Diary(this.today, placeId, plantId, this.entries)
  }

  write<K extends EntryKind>(at: string, kind: K, body: EntryBodies[K]): void {
    if (at > this.today) return
    const head = {
      id: uuidv7(),
      placeId: this.placeId,
      plantId: this.plantId,
      at,
      recordedAt: `${at}T12:00:00.000Z`,
      supersedes: null,
    }
    // The generic pair (kind, body) is right by its signature; the union cannot be told so.
    this.entries.push({ ...head, kind, body } as JournalEntry)
  }

  draw(
    at: string,
    stem: { part: StemPart; parent: string | null; points: Point[]; age: number; mm: number },
  ): string {
    const stemId = uuidv7()
    const { part, parent, points, age, mm } = stem
    this.write(at, 'stem.drawn', {
      v: 1,
      stemId,
      part,
      parentStemId: parent,
      points,
      ageSeasons: age,
      diameterMm: mm,
    })
    return stemId
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
    this.write(at, 'tie.made', {
      v: 1,
      tieId,
      stemId: tie.stem,
      at: tie.at,
      materialId: tie.material,
      hitch: tie.hitch,
      supportDiameterMm: tie.supportMm,
      stemDiameterMm: tie.stemMm,
      loopLengthMm: usualLoopMm(tie.hitch, tie.stemMm, tie.supportMm) + (tie.slackMm ?? 0),
    })
    return tieId
  }

  note(at: string, text: string): void {
    this.write(at, 'note.written', { v: 1, text })
  }
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
