import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { folded, goOn, timelineOf } from '../fold/index.ts'
import { frameLogProjection } from '../frame-log/index.ts'
import { idOf, someJournal as journal } from '../../test/journal.ts'
import { living, woodProjection } from '../wood/index.ts'
import type { WoodState } from '../wood/index.ts'
import type { JournalEntry } from './index.ts'
import { isNewer, replayFrames, replayWood } from './index.ts'

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

  it('is told where an entry stands in the place of one that came after the fold too', () => {
    fc.assert(
      fc.property(journal, fc.nat(39), fc.nat(), (entries, cut, n) => {
        const [before, after] = [entries.slice(0, cut), entries.slice(cut)]
        fc.pre(after.length > 0)
        const { id: supersedes } = after[n % after.length]!
        const undone = { ...after[0]!, id: idOf(999), at: '2026-04-01', kind: 'entry.withdrawn', supersedes }
        const all = [...after, undone as JournalEntry]
        const from = folded(woodProjection, before)
        const gone = goOn(woodProjection, from, all)!
        expect(gone.state).toEqual(replayWood([...before, ...all]))
        // And what takes back the taking back is told from there only with what it speaks of.
        const again = { ...undone, id: idOf(1000), supersedes: undone.id } as JournalEntry
        expect(goOn(woodProjection, gone, [again])).toBeNull()
        expect(goOn(woodProjection, from, [...all, again])!.state).toEqual(replayWood(entries))
      }),
    )
  })

  it('holds what a later release wrote: it counts nowhere, and what it took the place of does not come back', () => {
    fc.assert(
      fc.property(journal, fc.nat(39), fc.nat(40), (entries, n, cut) => {
        fc.pre(entries.length > 0)
        const old = entries[n % entries.length]!
        const newer = {
          ...old,
          id: idOf(999),
          at: '2027-01-01',
          supersedes: old.id,
          body: { ...old.body, v: 99, more: { than: 'is known' } },
        } as unknown as JournalEntry
        const unknown = {
          ...newer,
          id: idOf(1000),
          kind: 'graft.taken',
          supersedes: null,
        } as unknown as JournalEntry
        const withdrawn = { ...newer, kind: 'entry.withdrawn', body: { v: 1 } } as JournalEntry
        const all = [...entries, newer, unknown]
        expect(replayWood(all)).toEqual(replayWood([...entries, withdrawn]))
        expect(replayFrames(all)).toEqual(replayFrames([...entries, withdrawn]))
        expect(all.filter(isNewer)).toEqual([newer, unknown])
        const gone = goOn(woodProjection, folded(woodProjection, entries), [unknown])
        expect(gone!.state).toEqual(replayWood(entries))
        const timeline = timelineOf(woodProjection, entries.slice(0, cut)).with(all)
        expect(timeline.now).toEqual(replayWood(all))
      }),
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
