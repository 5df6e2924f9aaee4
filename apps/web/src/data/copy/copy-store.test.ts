import 'fake-indexeddb/auto'
import type { StoredEntry } from '@klados/contract'
import { upcastBody } from '@klados/contract/upcasts'
import fc from 'fast-check'
import { openDB } from 'idb'
import { describe, expect, it } from 'vitest'
import { MOST_SEEN, createCopyStore } from './copy-store.ts'
import { broughtUp } from './older-answers.ts'
import type { CopyStore } from './copy-store.ts'
import { FOLD_RULES } from './fold-rules.ts'
import { PART_FOLD_RULES, foldPart, keptFold } from '@klados/core/part-fold'
import { runs } from '../../../../../packages/core/test/runs.ts'

let stores = 0
const fold = (part: string, entries: readonly StoredEntry[]) =>
  keptFold(foldPart(part, entries), { kindId: null, hemisphere: 'north' })
const fresh = () => createCopyStore(`copy-${++stores}`)
const entry = (seq: number): StoredEntry =>
  ({
    seq,
    id: `entry-${seq}`,
    placeId: `place-${seq % 2}`,
    plantId: seq % 3 === 0 ? null : `plant-${seq % 3}`,
    at: '2026-03-01',
    supersedes: null,
    kind: 'note.written',
    body: { v: 1, text: String(seq) },
  }) as unknown as StoredEntry
const entriesOf = async (copy: CopyStore, account: string, garden: string) =>
  (await copy.journal(account, garden, 1e9)).entries
const page = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => entry(from + 1 + i))

describe('the copy on this device', () => {
  it('gives back answers by account and path, and nothing of what was never heard', async () => {
    const copy = fresh()
    await copy.keepAnswer('anna', '/gardens/g/places', 'g', [{ id: 'p' }])
    await copy.keepAnswer('ben', '/gardens/g/places', 'g', [])
    expect(await copy.answers('anna', ['/gardens/g/places', '/gardens/g/plants'])).toEqual([
      [{ id: 'p' }],
      undefined,
    ])
    expect(await copy.answers('ben', ['/gardens/g/places'])).toEqual([[]])
  })

  it('brings up what an earlier release has kept, as that release would be answered now', () => {
    const body = { kindId: 'pear', name: 'Pear' }
    const [plant] = broughtUp('/gardens/g/plants', [{ id: 'p', version: 3, body }]) as [{ body: object }]
    expect(plant).toEqual({ id: 'p', version: 3, body: upcastBody('plants', body) })
    expect(plant.body).toMatchObject({ budGoal: null, name: 'Pear' })
    for (const [path, data] of [
      ['/gardens/g', { name: 'Tarn Close' }],
      ['/gardens/g/plants', undefined],
      ['/session', { account: null }],
    ] as const)
      expect(broughtUp(path, data)).toBe(data)
  })

  it('keeps the journal in its order and without gaps, whatever pages come, twice or out of turn', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 1, max: 12 })), {
          maxLength: 12,
        }),
        async (pages) => {
          const copy = fresh()
          for (const [after, count] of pages)
            await copy.keepEntries('anna', 'g', after, page(after, after + count))
          const kept = (await entriesOf(copy, 'anna', 'g')).map(({ seq }) => seq)
          expect(kept).toEqual(kept.map((_, i) => i + 1))
        },
      ),
      { numRuns: runs(60) },
    )
  })

  it('folds what came, says how far, and then gives the folds and what came after them', async () => {
    const copy = fresh()
    await copy.keepEntries('anna', 'g', 0, page(0, 10))
    const first = (await copy.foldUp('anna', 'g', fold))!
    expect(first.upTo).toBe(10)
    expect(first.folds).toHaveLength(4)
    await copy.keepEntries('anna', 'g', 10, page(10, 12))
    const lean = await copy.journal('anna', 'g', 5)
    expect(lean).toMatchObject({ last: 12, foldedTo: 10 })
    expect(lean.entries.map(({ seq }) => seq)).toEqual([11, 12])
    expect(lean.folds.map(({ part }) => part).sort()).toEqual(first.folds.map(({ part }) => part).sort())
    // A small garden is given whole.
    expect((await copy.journal('anna', 'g', 100)).entries).toHaveLength(12)
    const next = (await copy.foldUp('anna', 'g', fold))!
    expect([next.upTo, next.folds.length]).toEqual([12, 2])
    // Folds of other rules are none, and are made anew.
    const db = await openDB(`copy-${stores}`)
    await db.put('folded', { upTo: 12, rules: 'of others' }, ['anna', 'g'])
    db.close()
    expect(await copy.journal('anna', 'g', 5)).toMatchObject({ last: 0, entries: [], isStale: true })
    expect(await copy.stale('anna', 'g')).toBe(12)
    // One that is read entry by entry is asked for no folds.
    expect(await copy.journal('anna', 'g', 100)).toMatchObject({ last: 12, isStale: false })
    expect((await copy.foldUp('anna', 'g', fold))!.folds).toHaveLength(4)
    expect(await copy.journal('anna', 'g', 5)).toMatchObject({ last: 12, foldedTo: 12, isStale: false })
    expect(await copy.stale('anna', 'g')).toBeNull()
    await copy.dropGarden('anna', 'g')
    expect(await copy.journal('anna', 'g', 5)).toMatchObject({
      last: 0,
      folds: [],
      entries: [],
      isStale: false,
    })
  })

  it('keeps the photos of the journal that were taken last, garden by garden, beside those of places', async () => {
    const copy = fresh()
    const idOf = (n: number) => `file-${String(n).padStart(4, '0')}`
    await copy.keepPhoto('anna', 'g', 'wall', new Blob(['wall']))
    await copy.keepSeen('anna', 'h', idOf(0), new Blob(['other']))
    for (let n = 0; n < MOST_SEEN + 5; n++) await copy.keepSeen('anna', 'g', idOf(n), new Blob([String(n)]))
    const isHere = async (garden: string, id: string) => !!(await copy.photo('anna', garden, id))
    expect(await Promise.all([4, 5, MOST_SEEN + 4].map((n) => isHere('g', idOf(n))))).toEqual([
      false,
      true,
      true,
    ])
    expect(await copy.photoIds('anna', 'g')).toEqual(['wall'])
    expect(await isHere('h', idOf(0))).toBe(true)
    await copy.dropGarden('anna', 'g')
    expect([await isHere('g', 'wall'), await isHere('g', idOf(20)), await isHere('h', idOf(0))]).toEqual([
      false,
      false,
      true,
    ])
  })

  it('goes on with the copy of the release that knew no photos of the journal', async () => {
    const name = `copy-${++stores}`
    const before = await openDB(name, 6, {
      upgrade: (db) => {
        for (const store of ['answers', 'folds', 'folded', 'photos', 'reach']) db.createObjectStore(store)
        const entries = db.createObjectStore('entries')
        entries.createIndex('place', ['accountId', 'gardenId', 'placeId'])
        entries.createIndex('last', ['accountId', 'gardenId', 'last'])
      },
    })
    await before.put('photos', new Blob(['wall']), ['anna', 'g', 'wall'])
    before.close()
    const copy = createCopyStore(name)
    await copy.keepSeen('anna', 'g', 'seen', new Blob(['bark']))
    expect([!!(await copy.photo('anna', 'g', 'wall')), !!(await copy.photo('anna', 'g', 'seen'))]).toEqual([
      true,
      true,
    ])
  })

  it('knows the rules of its folds by the versions of what folds', () => {
    expect(FOLD_RULES).toBe(PART_FOLD_RULES)
  })

  it('begins from what stands, and is whole once the history has come, in whatever turns', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 9 })), { maxLength: 20 }),
        async (turns) => {
          const [copy, made] = [fresh(), fresh()]
          await made.keepEntries('anna', 'g', 0, page(0, 20))
          await copy.begin('anna', 'g', (await made.foldUp('anna', 'g', fold))!)
          let last = 20
          for (const [isNews, count] of [...turns, ...turns.map(([, n]) => [false, n] as const)]) {
            const gap = await copy.gap('anna', 'g')
            const from = isNews ? last : (gap?.after ?? 0)
            await copy.keepEntries('anna', 'g', from, page(from, from + count))
            if (isNews) last += count
          }
          const { isWhole, foldedTo, entries, ...kept } = await copy.journal('anna', 'g', 5)
          expect([kept.last, foldedTo, kept.folds.length]).toEqual([last, 20, 4])
          expect(entries.map(({ seq }) => seq)).toEqual(page(20, last).map(({ seq }) => seq))
          const history = await copy.place('anna', 'g', 'place-0', 0)
          expect(history !== null).toBe(isWhole)
          await made.keepEntries('anna', 'g', 20, page(20, last))
          if (isWhole) expect(history).toEqual(await made.place('anna', 'g', 'place-0', 0))
          else expect(await copy.foldUp('anna', 'g', fold)).toBeNull()
        },
      ),
      { numRuns: runs(40) },
    )
  })

  it('begins no garden that it has, and anew one that was begun by other rules', async () => {
    const [copy, made] = [fresh(), fresh()]
    await made.keepEntries('anna', 'g', 0, page(0, 10))
    const folded = (await made.foldUp('anna', 'g', fold))!
    await copy.keepEntries('anna', 'g', 0, page(0, 4))
    await copy.begin('anna', 'g', folded)
    expect(await copy.journal('anna', 'g', 1)).toMatchObject({ last: 4, isWhole: true, foldedTo: 0 })
    await copy.begin('anna', 'h', folded)
    const db = await openDB(`copy-${stores - 1}`)
    await db.put('folded', { upTo: 10, rules: 'of others' }, ['anna', 'h'])
    db.close()
    expect(await copy.journal('anna', 'h', 1)).toMatchObject({ last: 0, folds: [] })
    await copy.begin('anna', 'h', folded)
    expect(await copy.journal('anna', 'h', 1)).toMatchObject({ last: 10, isWhole: false, foldedTo: 10 })
  })

  it('gives the entries of a place, and all of each plant that was written of there', async () => {
    const copy = fresh()
    await copy.keepEntries('anna', 'g', 0, page(0, 12))
    const { entries, parts } = (await copy.place('anna', 'g', 'place-0', 0))!
    expect(entries.map(({ seq }) => seq)).toEqual([2, 4, 6, 8, 10, 12])
    expect([...parts.keys()].sort()).toEqual(['place place-0', 'plant-1', 'plant-2'])
    // Of what is not all here nothing is told.
    expect(await copy.place('anna', 'g', 'place-0', 13)).toBeNull()
    expect(await copy.parts('anna', 'h', ['plant-2'], 1)).toBeNull()
    // The plant was at the other place as well.
    expect(parts.get('plant-1')!.map(({ seq }) => seq)).toEqual([1, 4, 7, 10])
    const some = (await copy.parts('anna', 'g', ['plant-2'], 12))!
    expect(some.get('plant-2')!.map(({ seq }) => seq)).toEqual([2, 5, 8, 11])
  })

  it('keeps gardens and accounts apart, and drops one without the other', async () => {
    const copy = fresh()
    for (const account of ['anna', 'ben'])
      for (const garden of ['g', 'h']) {
        await copy.keepEntries(account, garden, 0, page(0, 3))
        await copy.keepAnswer(account, `/gardens/${garden}`, garden, garden)
      }
    await copy.keepAnswer('anna', '/session', null, 'session')
    await copy.dropGarden('anna', 'g')
    expect(await entriesOf(copy, 'anna', 'g')).toEqual([])
    expect(await entriesOf(copy, 'anna', 'h')).toHaveLength(3)
    expect(await entriesOf(copy, 'ben', 'g')).toHaveLength(3)
    expect(await copy.answers('anna', ['/gardens/g', '/gardens/h', '/session'])).toEqual([
      undefined,
      'h',
      'session',
    ])
    await copy.dropAccount('anna')
    expect(await entriesOf(copy, 'anna', 'h')).toEqual([])
    expect(await copy.answers('anna', ['/session'])).toEqual([undefined])
    expect(await copy.answers('ben', ['/gardens/g'])).toEqual(['g'])
    await copy.dropAccount(null)
    expect(await entriesOf(copy, 'ben', 'g')).toEqual([])
  })
})
