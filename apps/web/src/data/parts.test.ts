import { projection, timelineOf } from '@klados/core/fold'
import type { Entry } from '@klados/core/fold'
import { record } from '@klados/core/shape'
import type { JournalEntry } from '@klados/core/journal'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { folder, joiner } from './part-folds.ts'
import { placeKey, plantKey, withAdded } from './parts.ts'
import type { Parts } from './parts.ts'

let made = 0
const entry = (plantId: string | null, placeId = 'place') =>
  ({
    id: `e${++made}`,
    plantId,
    placeId,
    kind: 'note.written',
    at: '2026-01-01',
    supersedes: null,
  }) as JournalEntry
const idsOf = (parts: Parts) =>
  Object.fromEntries([...parts].map(([key, entries]) => [key, entries.map(({ id }) => id)]))

/** Tells which entries each part was folded of. */
const telling = projection({
  name: 'telling',
  version: 1,
  kinds: { 'note.written': record({}) },
  initial: (): { entries: Entry[] } => ({ entries: [] }),
  apply: ({ entries }, entry: Entry) => void entries.push(entry),
  copy: ({ entries }: { entries: Entry[] }) => ({ entries: [...entries] }),
})

/** Folds parts of which all entries are at hand. */
function whole(onApplied: (entry: Entry) => void = () => undefined) {
  const apply = (state: { entries: Entry[] }, entry: Entry) => {
    onApplied(entry)
    telling.apply(state, entry)
  }
  const fold = folder({
    timeline: (entries) => timelineOf({ ...telling, apply }, entries),
    goOn: () => null,
  })
  return (parts: Parts) => fold(parts, new Map(), 'all').states
}

describe('entries by what they are about', () => {
  it('are all there once, in their order, however they arrived and whatever is on its way', () => {
    const entries = fc.array(fc.constantFrom('a', 'b', 'c', null), { maxLength: 20 })
    fc.assert(
      fc.property(fc.array(entries, { maxLength: 5 }), entries, (pages, onItsWay) => {
        const stored = pages.map((page) => page.map((plantId) => entry(plantId)))
        const more = onItsWay.map((plantId) => entry(plantId))
        const parts = stored.reduce<Parts>((so, page) => withAdded(so, page, plantKey), new Map())
        const joined = joiner(plantKey)(parts, more)
        const all = [...stored.flat(), ...more]
        for (const [key, ids] of Object.entries(idsOf(joined)))
          expect(ids).toEqual(all.filter((one) => plantKey(one) === key).map(({ id }) => id))
        expect([...joined.values()].flat()).toHaveLength(all.length)
      }),
    )
  })

  it('of a plant to which nothing came are the very list that they were, and are not folded again', () => {
    const [a, b] = [entry('a'), entry('b')]
    const stored = withAdded(new Map(), [a, b], plantKey)
    const join = joiner(plantKey)
    let folded: (string | null)[] = []
    const fold = whole(({ plantId }) => void folded.push(plantId))
    const told = (parts: Parts) => {
      folded = []
      return Object.fromEntries([...fold(parts)].map(([key, one]) => [key, one.now().entries.length]))
    }
    expect(told(join(stored, []))).toEqual({ a: 1, b: 1 })
    const tap = entry('a')
    expect(told(join(stored, [tap])).a).toBe(2)
    expect(folded).not.toContain('b')
    const second = entry('b')
    expect(told(join(stored, [tap, second]))).toEqual({ a: 2, b: 2 })
    expect(folded).not.toContain('a')
    // Read back from the server, one of them is on its way no more, and means what it meant.
    const read = withAdded(stored, [tap], plantKey)
    expect(told(join(read, [second]))).toEqual({ a: 2, b: 2 })
    expect(folded).toEqual([])
  })

  it('of other kinds leave a state as it is, the same object, unless they stand in place of another', () => {
    const [a, b] = [entry('a'), entry('b')]
    const stored = withAdded(new Map(), [a, b], plantKey)
    const fold = whole()
    const before = fold(stored)
    const counted = { ...entry('a'), kind: 'plant.tallied' } as JournalEntry
    expect(fold(withAdded(stored, [counted], plantKey))).toBe(before)
    const withdrawn = { ...entry('a'), kind: 'entry.withdrawn', supersedes: a.id } as JournalEntry
    const after = fold(withAdded(stored, [counted, withdrawn], plantKey))
    expect(after.get('a')!.now().entries).toEqual([])
    expect(after.get('a')!.on('2026-01-01')!.entries).toEqual([])
    expect(before.get('a')!.now().entries).toEqual([a])
    expect(after.get('b')).toBe(before.get('b'))
  })

  it('that are of no plant go by their place', () => {
    const entries = [entry(null, 'wall'), entry(null, 'row'), entry('a', 'row')]
    expect([...withAdded(new Map(), entries, plantKey).keys()]).toEqual(['place wall', 'place row', 'a'])
    expect([...withAdded(new Map(), entries, placeKey).keys()]).toEqual(['wall', 'row'])
  })
})
