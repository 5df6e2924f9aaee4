import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { polylineLengthM } from '../geometry/index.ts'
import type { EntryBodies, EntryKind, JournalEntry } from './index.ts'
import { inForce, replayWood } from './index.ts'

let counter = 0
function entry<K extends EntryKind>(
  kind: K,
  body: EntryBodies[K],
  rest: Partial<JournalEntry> = {},
): JournalEntry {
  counter++
  const id = `00000000-0000-7000-8000-${String(counter).padStart(12, '0')}`
  const base = {
    id,
    placeId: 'place',
    plantId: 'plant',
    at: '2026-03-01',
    recordedAt: '2026-03-01T09:00:00.000Z',
    supersedes: null,
  }
  return { ...base, kind, body, ...rest } as JournalEntry
}
const line = (fromM: number, toM: number, yM = 0.5) => [
  { xM: fromM, yM },
  { xM: toM, yM },
]
const drawn = (
  stemId: string,
  points = line(0, 2),
  parentStemId: string | null = null,
  rest: Partial<JournalEntry> = {},
) =>
  entry('stem.drawn', { v: 1, stemId, part: 'arm', parentStemId, points, ageSeasons: 1, diameterMm: 9 }, rest)
const tied = (tieId: string, stemId: string, xM: number, rest: Partial<JournalEntry> = {}) =>
  entry(
    'tie.made',
    {
      v: 1,
      tieId,
      stemId,
      at: { xM, yM: 0.5 },
      materialId: 'soft-jute',
      hitch: 'belt',
      supportDiameterMm: 2,
      stemDiameterMm: 9,
      loopLengthMm: 60,
    },
    rest,
  )
const plain = (entries: readonly JournalEntry[], upTo?: string) => {
  const state = replayWood(entries, upTo)
  return { pieces: [...state.pieces], ties: [...state.ties], misfits: state.misfits }
}

describe('replay', () => {
  it('shows the plant on any day', () => {
    const entries = [
      drawn('arm'),
      entry('stem.redrawn', { v: 1, stemId: 'arm', points: line(0, 3), why: 'grown' }, { at: '2026-10-01' }),
      entry('stem.removed', { v: 1, stemId: 'arm', reason: 'canker' }, { at: '2027-01-10' }),
    ]
    expect(replayWood(entries, '2026-02-28').pieces.size).toBe(0)
    expect(polylineLengthM(replayWood(entries, '2026-05-01').pieces.get('arm')!.path)).toBe(2)
    expect(polylineLengthM(replayWood(entries, '2026-12-01').pieces.get('arm')!.path)).toBe(3)
    expect(replayWood(entries).pieces.get('arm')).toMatchObject({
      removedOn: '2027-01-10',
      removedWhy: 'canker',
    })
  })

  it('does not depend on the order of arrival, and an entry that arrives twice changes nothing', () => {
    const entries = [
      drawn('trunk', [
        { xM: 0, yM: 0 },
        { xM: 0, yM: 1 },
      ]),
      drawn('arm', line(0, 2), 'trunk'),
      tied('t1', 'arm', 0.5),
      tied('t2', 'arm', 1.5),
      entry('tie.loosened', { v: 1, tieId: 't1', loopLengthMm: 75, stemDiameterMm: 11 }),
      entry('stem.shortened', { v: 1, stemId: 'arm', toLengthM: 1, reason: 'too long' }),
      entry('tie.checked', { v: 1, tieId: 't2' }),
    ]
    const withUndo = [...entries, entry('entry.withdrawn', { v: 1 }, { supersedes: entries[5]!.id })]
    const expected = plain(withUndo)
    fc.assert(
      fc.property(
        fc.shuffledSubarray([...withUndo, ...withUndo], { minLength: withUndo.length * 2 }),
        (shuffled) => {
          expect(plain(shuffled)).toEqual(expected)
        },
      ),
    )
  })

  it('takes with a cut what sits beyond it: laterals and ties', () => {
    const entries = [
      drawn('arm'),
      drawn(
        'near',
        [
          { xM: 0.5, yM: 0.5 },
          { xM: 0.5, yM: 0.8 },
        ],
        'arm',
      ),
      drawn(
        'far',
        [
          { xM: 1.5, yM: 0.5 },
          { xM: 1.5, yM: 0.8 },
        ],
        'arm',
      ),
      tied('near-tie', 'arm', 0.6),
      tied('far-tie', 'arm', 1.6),
      entry(
        'stem.shortened',
        { v: 1, stemId: 'arm', toLengthM: 1, reason: 'too long' },
        { at: '2026-04-01' },
      ),
    ]
    const state = replayWood(entries)
    expect(state.pieces.get('near')!.removedOn).toBeNull()
    expect(state.pieces.get('far')!.removedOn).toBe('2026-04-01')
    expect(state.ties.get('near-tie')!.endedOn).toBeNull()
    expect(state.ties.get('far-tie')).toMatchObject({ endedOn: '2026-04-01', endedWhy: 'wood-gone' })
    expect(polylineLengthM(state.pieces.get('arm')!.path)).toBe(1)
  })

  it('takes a whole family down with its parent', () => {
    const entries = [
      drawn('a'),
      drawn('b', line(1, 2), 'a'),
      drawn('c', line(1.5, 2), 'b'),
      tied('t', 'c', 1.7),
    ]
    const state = replayWood([...entries, entry('stem.removed', { v: 1, stemId: 'a', reason: 'storm' })])
    expect([...state.pieces.values()].every((stem) => stem.removedOn !== null)).toBe(true)
    expect(state.ties.get('t')!.endedWhy).toBe('wood-gone')
  })

  it('keeps and flags what no longer fits', () => {
    const arm = drawn('arm')
    const gone = entry('stem.removed', { v: 1, stemId: 'arm', reason: 'dead' })
    const late = [
      tied('t', 'arm', 1),
      entry('tie.checked', { v: 1, tieId: 'nobody' }),
      drawn('orphan', line(0, 1), 'no-parent'),
      entry('stem.shortened', { v: 1, stemId: 'arm', toLengthM: 0.5, reason: 'x' }),
    ]
    expect(replayWood([arm, gone, ...late]).misfits.map((m) => m.why)).toEqual([
      'wood-gone',
      'no-such-tie',
      'no-such-wood',
      'wood-gone',
    ])
    const other = drawn('b')
    const tooFar = entry('stem.shortened', { v: 1, stemId: 'b', toLengthM: 5, reason: 'x' })
    const long = replayWood([other, tooFar])
    expect(long.misfits).toEqual([{ entryId: tooFar.id, why: 'longer-than-wood' }])
    expect(polylineLengthM(long.pieces.get('b')!.path)).toBe(2)
  })

  it('undoes by superseding, and an undo can be undone', () => {
    const first = drawn('arm')
    const undo = entry('entry.withdrawn', { v: 1 }, { supersedes: first.id })
    const redo = entry('entry.withdrawn', { v: 1 }, { supersedes: undo.id })
    expect(replayWood([first, undo]).pieces.size).toBe(0)
    expect(replayWood([first, undo, redo]).pieces.size).toBe(1)
  })

  it('puts a correction in the place of what it corrects', () => {
    const first = drawn('arm')
    const better = { ...drawn('arm', line(0, 2.5)), supersedes: first.id } as JournalEntry
    const state = replayWood([first, better, tied('t', 'arm', 1)])
    expect(polylineLengthM(state.pieces.get('arm')!.path)).toBe(2.5)
    expect(state.misfits).toEqual([])
  })

  it('follows a tie through replacement', () => {
    const replaced = entry(
      'tie.replaced',
      {
        v: 1,
        tieId: 't',
        newTieId: 't2',
        materialId: 'stretch-tape',
        hitch: 'figureEight',
        loopLengthMm: 80,
        stemDiameterMm: 12,
      },
      { at: '2026-08-01' },
    )
    const state = replayWood([drawn('arm'), tied('t', 'arm', 1), replaced])
    expect(state.ties.get('t')).toMatchObject({ endedWhy: 'replaced', endedOn: '2026-08-01' })
    expect(state.ties.get('t2')).toMatchObject({
      pieceId: 'arm',
      at: { xM: 1, yM: 0.5 },
      setOn: '2026-08-01',
      endedOn: null,
    })
  })

  it('remembers how a tie failed where it was tied anew, and that the next is as it was, where it was', () => {
    const anew = (newTieId: string) =>
      entry(
        'tie.replaced',
        { v: 3, tieId: 't', newTieId, why: 'bitten', loopLengthMm: 80, stemDiameterMm: 14 },
        { at: '2026-08-01' },
      )
    // Two people find the same tie: it is tied anew once.
    const all = [drawn('arm'), tied('t', 'arm', 1), anew('t2'), anew('t3')]
    const state = replayWood(all)
    expect(state.ties.get('t')).toMatchObject({ endedWhy: 'bitten', endedOn: '2026-08-01' })
    const { materialId, hitch, supportDiameterMm, at, alongM } = state.ties.get('t')!
    expect(state.ties.get('t2')).toMatchObject({
      ...{ materialId, hitch, supportDiameterMm, at, alongM },
      ...{ loopLengthMm: 80, stemDiameterMm: 14, setOn: '2026-08-01', endedOn: null },
    })
    expect(state.ties.has('t3')).toBe(false)
    expect(state.misfits).toEqual([{ entryId: all.at(-1)!.id, why: 'tie-ended' }])
  })

  it('takes what two people say of one tie on a day for one look, whoever came first', () => {
    const wood = [drawn('arm'), tied('t', 'arm', 1)]
    const said = entry('tie.ended', { v: 1, tieId: 't', why: 'gone' }, { at: '2026-08-01' })
    const others = (at: string) => [
      entry('tie.checked', { v: 1, tieId: 't' }, { at }),
      entry('tie.ended', { v: 1, tieId: 't', why: 'rotted' }, { at }),
    ]
    const same = replayWood([...wood, said, ...others('2026-08-01')])
    expect([same.misfits, same.ties.get('t')!.endedWhy]).toEqual([[], 'gone'])
    expect(replayWood([...wood, said, ...others('2026-08-02')]).misfits).toHaveLength(2)
  })

  it('ends on a forged ring of supersessions', () => {
    const a = drawn('a')
    const b = drawn('b')
    const ring = [
      { ...a, supersedes: b.id },
      { ...b, supersedes: a.id },
    ] as JournalEntry[]
    expect(inForce(ring).length).toBeLessThanOrEqual(2)
  })
})
