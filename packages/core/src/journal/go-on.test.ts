import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { folded, goOn } from '../fold/index.ts'
import { frameLogProjection } from '../frame-log/index.ts'
import { living, woodProjection } from '../wood/index.ts'
import type { WoodState } from '../wood/index.ts'
import type { JournalEntry } from './index.ts'
import { replayFrames, replayWood } from './index.ts'

const PIECES = ['trunk', 'arm', 'cane', 'shoot'] as const
const TIES = ['t1', 't2', 't3'] as const
const path = [
  { xM: 0, yM: 0 },
  { xM: 1, yM: 0.5 },
]

/** Deeds as they come, sensible or not: most of what they speak of may not be there, or not any more. */
const deed = fc.oneof(
  fc.record({
    kind: fc.constant('piece.grew'),
    body: fc.record({
      v: fc.constant(1),
      pieceId: fc.constantFrom(...PIECES),
      parent: fc.constantFrom(
        { on: 'crown', leadId: null },
        { on: 'piece', pieceId: 'trunk', alongM: 0.4 },
        { on: 'piece', pieceId: 'arm', alongM: 0.2 },
      ),
      path: fc.constant(path),
      seasonsOld: fc.constant(1),
      baseMm: fc.constant(9),
      tipMm: fc.constant(null),
      buds: fc.constant(null),
      side: fc.constant(null),
      role: fc.constant(null),
    }),
  }),
  fc.record({
    kind: fc.constantFrom('piece.removed', 'piece.pulled'),
    body: fc.record({ v: fc.constant(1), pieceId: fc.constantFrom(...PIECES), reason: fc.constant('') }),
  }),
  fc.record({
    kind: fc.constant('piece.cut'),
    body: fc.record({
      v: fc.constant(1),
      pieceId: fc.constantFrom(...PIECES),
      alongM: fc.constantFrom(0.3, 0.8),
      aboveBuds: fc.constant(null),
      reason: fc.constant(''),
    }),
  }),
  fc.record({
    kind: fc.constant('tie.made'),
    body: fc.record({
      v: fc.constant(2),
      tieId: fc.constantFrom(...TIES),
      pieceId: fc.constantFrom(...PIECES),
      alongM: fc.constantFrom(0.1, 0.6),
      support: fc.constant(null),
      materialId: fc.constant('soft-jute'),
      hitch: fc.constant('belt'),
      supportDiameterMm: fc.constant(2),
      stemDiameterMm: fc.constant(9),
      loopLengthMm: fc.constant(60),
    }),
  }),
  fc.record({
    kind: fc.constantFrom('tie.checked', 'tie.removed'),
    body: fc.record({ v: fc.constant(1), tieId: fc.constantFrom(...TIES), reason: fc.constant('') }),
  }),
  fc.record({
    kind: fc.constant('cover.changed'),
    body: fc.record({
      v: fc.constant(1),
      frameId: fc.constantFrom('f1', 'f2'),
      is: fc.constantFrom('on', 'off'),
    }),
  }),
)

const idOf = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`
/** A journal in the order of its days. */
const journal = fc.array(fc.tuple(deed, fc.nat(1)), { maxLength: 40 }).map((deeds) => {
  let day = 1
  return deeds.map(([one, later], n) => {
    day += later
    const at = `2026-03-${String(Math.min(day, 31)).padStart(2, '0')}`
    return {
      ...one,
      id: idOf(n),
      placeId: 'place',
      plantId: 'plant',
      at,
      supersedes: null,
    } as unknown as JournalEntry
  })
})

const plain = ({ pieces, ties, childrenOf, tiesOf }: WoodState) => ({
  pieces: new Map([...pieces].sort(([a], [b]) => (a < b ? -1 : 1))),
  ties: new Map([...ties].sort(([a], [b]) => (a < b ? -1 : 1))),
  childrenOf,
  tiesOf,
})

describe('a fold that is gone on from', () => {
  it('is what all of the entries make at once, wherever it was begun, and leaves what it began from', () => {
    fc.assert(
      fc.property(journal, fc.nat(40), (entries, cut) => {
        const [before, after] = [entries.slice(0, cut), entries.slice(cut)]
        const [wood, frames] = [folded(woodProjection, before), folded(frameLogProjection, before)]
        const was = structuredClone([wood, frames])
        expect(goOn(woodProjection, wood, after)!.state).toEqual(replayWood(entries))
        expect(goOn(frameLogProjection, frames, after)!.state).toEqual(replayFrames(entries))
        expect([wood, frames]).toEqual(was)
      }),
    )
  })

  it('comes to what stands, also from what stood alone', () => {
    fc.assert(
      fc.property(journal, fc.nat(40), (entries, cut) => {
        // Ids are never given twice: what is gone does not grow or get tied again under its name.
        const made = new Set<string>()
        const sane = entries.filter(({ kind, body }) => {
          if (kind !== 'piece.grew' && kind !== 'tie.made') return true
          const id = 'tieId' in body ? body.tieId : (body as { pieceId: string }).pieceId
          return !made.has(id) && made.add(id)
        })
        const from = folded(woodProjection, sane.slice(0, cut))
        const gone = goOn(woodProjection, { ...from, state: living(from.state) }, sane.slice(cut))!
        expect(plain(living(gone.state))).toEqual(plain(living(replayWood(sane))))
      }),
    )
  })

  it('is not told where an entry is dated back, comes twice or stands in the place of another', () => {
    fc.assert(
      fc.property(
        journal.filter(({ length }) => length > 1),
        fc.nat(),
        (entries, n) => {
          const from = folded(woodProjection, entries)
          const old = entries[n % entries.length]!
          expect(goOn(woodProjection, from, [old])).toBeNull()
          const undo = {
            ...old,
            id: idOf(999),
            at: '2026-04-01',
            kind: 'entry.withdrawn',
            supersedes: old.id,
          }
          expect(goOn(woodProjection, from, [undo as JournalEntry])).toBeNull()
        },
      ),
    )
  })

  it('keeps its state, the same object, where what comes is of other kinds', () => {
    const from = folded(woodProjection, [])
    const note = {
      id: idOf(1),
      placeId: 'p',
      plantId: 'q',
      at: '2026-03-01',
      supersedes: null,
      kind: 'note.written',
    }
    const next = goOn(woodProjection, from, [note as unknown as JournalEntry])!
    expect(next.state).toBe(from.state)
    expect(next.last).toEqual({ at: '2026-03-01', id: idOf(1) })
  })
})
