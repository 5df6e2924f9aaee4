import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { project, projection, timelineOf } from './index.ts'
import { record } from '../shape/index.ts'
import type { Entry } from './index.ts'

/** Tells which entries it was given, in their order: nothing that a fold does can hide in that. */
const written = projection({
  name: 'written',
  version: 1,
  kinds: { 'one.written': record({}) },
  initial: (): string[] => [],
  apply: (ids, { id }) => void ids.push(id),
  copy: (ids: string[]) => [...ids],
})

const dayOf = (n: number) => `2026-03-${String(n).padStart(2, '0')}`
const aDay = fc.integer({ min: 1, max: 28 })
const line = fc.record({
  day: aDay,
  kind: fc.constantFrom('one.written', 'one.written', 'one.written', 'entry.withdrawn', 'other.written'),
  /** How far back in the list stands what it is in the place of. */
  over: fc.option(fc.integer({ min: 1, max: 90 }), { nil: null, freq: 4 }),
})
const journal = fc.array(line, { minLength: 100, maxLength: 260, size: 'max' }).map((lines) =>
  lines.map(({ day, kind, over }, n): Entry => {
    const isOver = over !== null || kind === 'entry.withdrawn'
    return {
      id: `e${String(n).padStart(4, '0')}`,
      placeId: 'place',
      plantId: 'plant',
      kind,
      at: dayOf(day),
      recordedAt: '',
      supersedes: isOver ? `e${String(Math.max(0, n - (over ?? 1))).padStart(4, '0')}` : null,
      body: {},
    }
  }),
)

describe('a timeline', () => {
  it('is what a fold of all entries is, now and on any day, in whatever steps they came', () => {
    fc.assert(
      fc.property(journal, fc.array(fc.nat(60), { maxLength: 12 }), aDay, (entries, steps, day) => {
        let upTo = 80
        let so = timelineOf(written, entries.slice(0, upTo))
        for (const step of [...steps, entries.length]) {
          upTo += step
          so = so.with(entries.slice(0, upTo))
          expect(so.now).toEqual(project(written, so.entries))
          expect(so.on(dayOf(day))).toEqual(project(written, so.entries, dayOf(day)))
        }
      }),
    )
  })

  it('is it where entries are taken out of the list again, or others have come between', () => {
    fc.assert(
      fc.property(journal, fc.array(fc.boolean(), { minLength: 260, maxLength: 260 }), (entries, isIn) => {
        const some = entries.filter((_, n) => n < 90 || isIn[n])
        const was = timelineOf(written, entries)
        const so = was.with(some)
        expect(so.now).toEqual(project(written, some))
        expect(so.with(entries).now).toEqual(was.now)
        expect(was.on(dayOf(14))).toEqual(project(written, entries, dayOf(14)))
      }),
    )
  })

  it('keeps its state, the same object, while what comes does not count', () => {
    const one = (id: string, rest: Partial<Entry> = {}): Entry => ({
      id,
      placeId: 'place',
      plantId: 'plant',
      kind: 'one.written',
      at: dayOf(2),
      recordedAt: '',
      supersedes: null,
      body: {},
      ...rest,
    })
    const was = timelineOf(written, [one('a'), one('b', { kind: 'other.written' })])
    const before = was.on(dayOf(2))
    const so = was.with([...was.entries, one('c', { kind: 'entry.withdrawn', supersedes: 'b' })])
    expect(so.now).toBe(was.now)
    expect(so.on(dayOf(2))).toBe(before)
    const gone = so.with([...so.entries, one('d', { kind: 'entry.withdrawn', supersedes: 'a' })])
    expect(gone.now).toEqual([])
  })

  it('folds a tap that is dated back from near its day, and not from the first', () => {
    let applied = 0
    const counted = {
      ...written,
      apply: (...args: Parameters<typeof written.apply>) => (applied++, written.apply(...args)),
    }
    const entries = Array.from(
      { length: 2800 },
      (_, n): Entry => ({
        id: `e${String(n).padStart(4, '0')}`,
        placeId: 'place',
        plantId: 'plant',
        kind: 'one.written',
        at: dayOf(1 + Math.floor(n / 100)),
        recordedAt: '',
        supersedes: null,
        body: {},
      }),
    )
    const was = timelineOf(counted, entries)
    applied = 0
    const late = was.with([...entries, { ...entries[0]!, id: 'late', at: dayOf(26) }])
    expect(late.now).toHaveLength(2801)
    expect(applied).toBeLessThan(700)
  })
})
