import 'fake-indexeddb/auto'
import type { StoredEntry } from '@klados/contract'
import { replayWood } from '@klados/core/journal'
import type { JournalEntry, WoodState } from '@klados/core/journal'
import { foldPart, keptFold } from '@klados/core/part-fold'
import { living } from '@klados/core/wood'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { grewBody, tieBody } from '../../../../packages/core/test/bodies.ts'
import { createCopyStore } from './copy/copy-store.ts'
import {
  MOST_PLACES,
  begun,
  brought,
  foldedUp,
  isAmong,
  journalReducer,
  opened,
  received,
} from './journal.ts'
import type { JournalState, WithJournal } from './journal.ts'
import { plantKey } from './parts.ts'
import { selectPartsOfPlants, selectShort, selectWoodByPlant } from './readings.ts'
import type { Item } from './sync/items.ts'
import { runs } from '../../../../packages/core/test/runs.ts'

const PLANTS = ['pear', 'rose'] as const
/** One deed on a plant: which, how many days after the first, and whether it takes another back. */
const deed = fc.record({
  plant: fc.constantFrom(...PLANTS),
  what: fc.constantFrom('grow', 'tie', 'look', 'remove', 'note', 'undo'),
  n: fc.nat(5),
  // Most are written on the day that they happen, some are told late.
  late: fc.oneof({ weight: 5, arbitrary: fc.constant(0) }, fc.nat(4)),
})

/** An id that no other entry of the whole file has: one is never another under its id, in any garden. */
let ids = 0
const nextId = () => `00000000-0000-7000-8000-${String(++ids).padStart(12, '0')}`

function entriesOf(deeds: readonly (typeof deed extends fc.Arbitrary<infer D> ? D : never)[]): StoredEntry[] {
  const made: StoredEntry[] = []
  for (const [i, { plant, what, n, late }] of deeds.entries()) {
    const seq = i + 1
    const day = Math.max(1, seq - late)
    const head = {
      seq,
      id: nextId(),
      placeId: plant === 'pear' ? 'wall' : 'gable',
      plantId: plant,
      at: new Date(Date.UTC(2026, 0, day)).toISOString().slice(0, 10),
      recordedAt: '2026-03-01T09:00:00.000Z',
      supersedes: null,
      by: '',
    }
    const [pieceId, tieId] = [`${plant}-piece-${n}`, `${plant}-tie-${n}`]
    const earlier = made.filter(({ plantId, kind }) => plantId === plant && kind !== 'entry.withdrawn')
    const bodies = {
      grow: {
        kind: 'piece.grew',
        body: grewBody(pieceId, {
          parent:
            n === 0
              ? { on: 'crown', leadId: null }
              : { on: 'piece', pieceId: `${plant}-piece-0`, alongM: 0.5 },
        }),
      },
      tie: {
        kind: 'tie.made',
        body: tieBody(tieId, pieceId),
      },
      look: { kind: 'tie.checked', body: { v: 1, tieId } },
      remove: { kind: 'piece.removed', body: { v: 1, pieceId, reason: '' } },
      note: { kind: 'note.written', body: { v: 1, text: 'seen' } },
      undo: {
        kind: 'entry.withdrawn',
        body: { v: 1 },
        supersedes: earlier[n % Math.max(1, earlier.length)]?.id,
      },
    }[what]
    if (what === 'undo' && earlier.length === 0) continue
    // What was made once is not made again under its name; the undone one is.
    if (what === 'grow' && made.some(({ body }) => (body as { pieceId?: string }).pieceId === pieceId))
      continue
    if (what === 'tie' && made.some(({ body }) => (body as { tieId?: string }).tieId === tieId)) continue
    made.push({ ...head, ...bodies, seq: made.length + 1 } as unknown as StoredEntry)
  }
  return made
}

const stateOf = (journal: JournalState, unsent: readonly JournalEntry[] = []): WithJournal => ({
  journal,
  sync: {
    accountId: 'anna',
    items: unsent.map(
      (entry) =>
        ({
          kind: 'entry',
          key: entry.id,
          accountId: 'anna',
          gardenId: 'g',
          entry,
          state: { is: 'waiting' },
        }) as unknown as Item,
    ),
    isKept: true,
    unkept: 0,
    lanes: { againAt: null, photos: {} },
    skewMs: 0,
    ownVersions: {},
  },
})

const plain = (wood: WoodState) => {
  const { pieces, ties } = living(wood)
  const sorted = (map: ReadonlyMap<string, unknown>) => [...map].sort(([a], [b]) => (a < b ? -1 : 1))
  return { pieces: sorted(pieces), ties: sorted(ties) }
}
const told = (state: WithJournal) => {
  const woods = selectWoodByPlant(state)
  // What is kept up by plant, tap after tap, is what the states themselves say.
  const byPlant = [...selectPartsOfPlants(state)].filter(([, parts]) => parts.length > 0)
  expect(new Map(byPlant)).toEqual(new Map([...woods].map(([key, part]) => [key, [part]])))
  return Object.fromEntries([...woods].map(([key, wood]) => [key, plain(wood.now())]))
}
const wanted = (entries: readonly JournalEntry[]) =>
  Object.fromEntries(
    [...new Set(entries.map(plantKey))].map((key) => [
      key,
      plain(replayWood(entries.filter((one) => plantKey(one) === key))),
    ]),
  )

const fold = (part: string, entries: readonly StoredEntry[]) =>
  keptFold(foldPart(part, entries), { kindId: null, hemisphere: 'north' })
let stores = 0

describe('a journal of which this window holds the folds', () => {
  it('tells what stands as all of its entries would, however they came and whatever is on its way', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(deed, { minLength: 1, maxLength: 40 }),
        fc.nat(100),
        fc.nat(100),
        fc.nat(100),
        async (deeds, a, b, c) => {
          const entries = entriesOf(deeds)
          const at = [a, b, c].map((n) => n % (entries.length + 1)).sort((x, y) => x - y)
          const [folded, kept, stored] = at as [number, number, number]
          const copy = createCopyStore(`lean-${++stores}`)
          await copy.keepEntries('anna', 'g', 0, entries.slice(0, folded))
          await copy.foldUp('anna', 'g', fold)
          await copy.keepEntries('anna', 'g', folded, entries.slice(folded, kept))
          let journal = journalReducer(journalReducer(undefined, { type: '' }), opened('g'))
          journal = journalReducer(journal, begun(await copy.journal('anna', 'g', 0)))
          const page = { entries: entries.slice(kept, stored), last: stored, isWhole: true }
          if (page.entries.length > 0) journal = journalReducer(journal, received(page))
          const unsent = entries.slice(stored)
          const short = selectShort(stateOf(journal, unsent))
          if (folded === 0) expect(short).toEqual([])
          await copy.keepEntries('anna', 'g', kept, page.entries)
          const parts = (await copy.parts('anna', 'g', short, folded))!
          journal = journalReducer(journal, brought({ parts }))
          expect(selectShort(stateOf(journal, unsent))).toEqual([])
          expect(told(stateOf(journal, unsent))).toEqual(wanted(entries))

          // Folded further, or with a place brought here, it tells the same.
          const before = journal
          if (before.partsAtHand !== 'all') {
            const done = (await copy.foldUp('anna', 'g', fold))!
            journal = journalReducer(before, foldedUp(done))
            expect(told(stateOf(journal))).toEqual(wanted(entries.slice(0, stored)))
          }
          const history = (await copy.place('anna', 'g', 'wall', 0))!
          journal = journalReducer(
            journal,
            brought({ parts: history.parts, place: { id: 'wall', entries: history.entries } }),
          )
          expect(told(stateOf(journal))).toEqual(wanted(entries.slice(0, stored)))
          expect(journal.byPlace.get('wall') ?? []).toEqual(
            entries.slice(0, stored).filter(({ placeId }) => placeId === 'wall'),
          )
        },
      ),
      { numRuns: runs(80) },
    )
  })

  it('lets go of entries that are folded, and keeps those of plants that are at hand', async () => {
    const copy = createCopyStore(`lean-${++stores}`)
    const entries = entriesOf(
      [0, 1, 2, 3].flatMap((n) => PLANTS.map((plant) => ({ plant, what: 'grow' as const, n, late: 0 }))),
    )
    await copy.keepEntries('anna', 'g', 0, entries.slice(0, 4))
    await copy.foldUp('anna', 'g', fold)
    await copy.keepEntries('anna', 'g', 4, entries.slice(4))
    let journal = journalReducer(journalReducer(undefined, { type: '' }), opened('g'))
    journal = journalReducer(journal, begun(await copy.journal('anna', 'g', 0)))
    expect([...journal.byPlant.values()].flat()).toHaveLength(4)
    journal = journalReducer(journal, brought({ parts: (await copy.parts('anna', 'g', ['pear'], 4))! }))
    journal = journalReducer(journal, foldedUp((await copy.foldUp('anna', 'g', fold))!))
    expect(journal.byPlant.has('rose')).toBe(false)
    expect(journal.byPlant.get('pear')).toHaveLength(4)
    expect(told(stateOf(journal))).toEqual(wanted(entries))
  })

  it('holds the histories of a few places at a time, in whatever order they are opened, and tells the same of all', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(MOST_PLACES + 3), fc.boolean()), { minLength: 6, maxLength: 30 }),
        async (steps) => {
          const copy = createCopyStore(`lean-${++stores}`)
          const head = (n: number, seq: number) => ({
            seq,
            id: nextId(),
            placeId: `place ${n}`,
            plantId: `plant ${n}`,
            recordedAt: '2026-03-01T09:00:00.000Z',
            supersedes: null,
            by: '',
          })
          const grew = (n: number, seq: number, at: string) =>
            ({ ...head(n, seq), at, kind: 'piece.grew', body: grewBody(`piece ${seq}`) }) as StoredEntry
          const all = Array.from({ length: MOST_PLACES + 4 }, (_, n) => grew(n, n + 1, '2026-03-01'))
          await copy.keepEntries('anna', 'g', 0, all)
          await copy.foldUp('anna', 'g', fold)
          let journal = journalReducer(journalReducer(undefined, { type: '' }), opened('g'))
          journal = journalReducer(journal, begun(await copy.journal('anna', 'g', 0)))
          for (const [n, isNews] of steps) {
            if (isNews) {
              // Told late, so that a fold alone does not go on from it.
              const entry = grew(n, all.length + 1, '2026-02-01')
              await copy.keepEntries('anna', 'g', all.length, [entry])
              all.push(entry)
              journal = journalReducer(
                journal,
                received({ entries: [entry], last: all.length, isWhole: true }),
              )
            } else if (!isAmong(journal.placesAtHand, `place ${n}`)) {
              const { entries, parts } = (await copy.place('anna', 'g', `place ${n}`, journal.foldedTo))!
              journal = journalReducer(journal, brought({ parts, place: { id: `place ${n}`, entries } }))
              expect(isAmong(journal.placesAtHand, `place ${n}`)).toBe(true)
            }
            const short = selectShort(stateOf(journal))
            const parts = (await copy.parts('anna', 'g', short, journal.foldedTo))!
            journal = journalReducer(journal, brought({ parts }))
            expect(told(stateOf(journal))).toEqual(wanted(all))
            const held = (journal.placesAtHand as ReadonlySet<string>).size
            expect(held).toBeLessThanOrEqual(MOST_PLACES)
            expect([...journal.byPlace.keys()]).toHaveLength(held)
            for (const entries of journal.byPlant.values())
              expect(
                isAmong(journal.placesAtHand, entries[0]!.placeId) ||
                  entries.some(({ seq }) => seq > journal.foldedTo),
              ).toBe(true)
          }
          // Of what is folded as much is held as there is at those places.
          journal = journalReducer(journal, foldedUp((await copy.foldUp('anna', 'g', fold))!))
          for (const n of Array.from({ length: MOST_PLACES + 4 }, (_, one) => one))
            if (!isAmong(journal.placesAtHand, `place ${n}`)) {
              const { entries, parts } = (await copy.place('anna', 'g', `place ${n}`, journal.foldedTo))!
              journal = journalReducer(journal, brought({ parts, place: { id: `place ${n}`, entries } }))
            }
          expect(told(stateOf(journal))).toEqual(wanted(all))
        },
      ),
      { numRuns: runs(20) },
    )
  })
})
