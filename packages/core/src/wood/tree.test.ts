import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { grewBody, tieBody } from '../../test/bodies.ts'
import { distanceM, pointAlong, polylineLengthM } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'
import { replayWood } from '../journal/index.ts'
import type { EntryBodies, EntryKind, JournalEntry } from '../journal/index.ts'
import type { Piece, WoodState } from './index.ts'
import { runs } from '../../test/runs.ts'

/** Written one after the other, in ids as in the days they are given. */
function writer() {
  let count = 0
  return <K extends EntryKind>(
    kind: K,
    body: EntryBodies[K],
    at = '2026-03-01',
    supersedes: string | null = null,
  ) => {
    count++
    const id = `00000000-0000-7000-8000-${String(count).padStart(12, '0')}`
    const head = { id, placeId: 'place', plantId: 'plant', recordedAt: '2026-03-01T09:00:00.000Z' }
    return { ...head, at, supersedes, kind, body } as JournalEntry
  }
}

const loop = {
  materialId: 'soft-jute',
  hitch: 'belt',
  supportDiameterMm: 2,
  stemDiameterMm: 9,
  loopLengthMm: 60,
} as const
const level = (fromM: number, toM: number, yM: number): Point[] => [
  { xM: fromM, yM },
  { xM: (fromM + toM) / 2, yM },
  { xM: toM, yM },
]
const grew = (
  pieceId: string,
  path: Point[],
  parent: EntryBodies['piece.grew']['parent'] = { on: 'crown', leadId: null },
) => grewBody(pieceId, { parent, path })
const on = (pieceId: string, alongM: number) => ({ on: 'piece', pieceId, alongM }) as const
const tie = (tieId: string, pieceId: string, alongM: number) => tieBody(tieId, pieceId, { alongM })

/**
 * What holds of any wood, whatever was written: nothing hangs in the air, nothing sits beyond where its wood
 * ends.
 */
function expectWhole(state: WoodState): void {
  for (const piece of state.pieces.values()) {
    if (piece.removedOn !== null || piece.parent.on !== 'piece') continue
    const parent = state.pieces.get(piece.parent.pieceId)
    expect(parent).toBeDefined()
    expect(parent!.removedOn).toBeNull()
    expect(piece.parent.alongM).toBeLessThanOrEqual(polylineLengthM(parent!.path) + 1e-6)
    expect(piece.parent.alongM).toBeGreaterThanOrEqual(0)
  }
  for (const one of state.ties.values()) {
    if (one.endedOn !== null) continue
    const piece = state.pieces.get(one.pieceId)!
    expect(piece.removedOn).toBeNull()
    expect(one.alongM).toBeLessThanOrEqual(polylineLengthM(piece.path) + 1e-6)
    if (!state.byNearness.has(one.id))
      expect(distanceM(one.at, pointAlong(piece.path, one.alongM))).toBeLessThan(1e-6)
  }
}

const small = fc.integer({ min: 0, max: 5 })
const metres = fc.integer({ min: 1, max: 30 }).map((n) => n / 10)
const pathArb = fc.tuple(metres, metres, metres, metres).map(([a, b, c, d]): Point[] => [
  { xM: a, yM: b },
  { xM: a + c / 2, yM: b + 0.1 },
  { xM: a + c, yM: b + d / 4 },
])
const dayArb = fc.integer({ min: 1, max: 9 }).map((n) => `2026-0${n}-10`)
const p = (n: number) => `p${n}`
const t = (n: number) => `t${n}`

/**
 * Anything that may be written of wood and ties, now or by an old phone, about pieces that may or may not be
 * there.
 */
const actArb: fc.Arbitrary<readonly [EntryKind, unknown]> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc
      .tuple(small, small, metres, pathArb, fc.boolean())
      .map(
        ([n, m, along, path, isChild]) =>
          ['piece.grew', grew(p(n), path, isChild ? on(p(m), along) : undefined)] as const,
      ),
  },
  {
    weight: 2,
    arbitrary: fc.tuple(small, small, pathArb, fc.boolean()).map(
      ([n, m, points, isChild]) =>
        [
          'stem.drawn',
          {
            v: 1,
            stemId: p(n),
            part: 'arm',
            parentStemId: isChild ? p(m) : null,
            points,
            ageSeasons: 1,
            diameterMm: 8,
          },
        ] as const,
    ),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(small, pathArb)
      .map(([n, path]) => ['piece.laid', { v: 1, pieceId: p(n), path }] as const),
  },
  fc
    .tuple(small, pathArb)
    .map(([n, points]) => ['stem.redrawn', { v: 1, stemId: p(n), points, why: 'laid' }] as const),
  fc.tuple(small, pathArb).map(([n, path]) => ['piece.extended', { v: 1, pieceId: p(n), path }] as const),
  {
    weight: 2,
    arbitrary: fc
      .tuple(small, metres)
      .map(
        ([n, alongM]) => ['piece.cut', { v: 1, pieceId: p(n), alongM, aboveBuds: null, reason: '' }] as const,
      ),
  },
  fc
    .tuple(small, metres)
    .map(([n, toLengthM]) => ['stem.shortened', { v: 1, stemId: p(n), toLengthM, reason: '' }] as const),
  small.map((n) => ['piece.removed', { v: 1, pieceId: p(n), reason: '' }] as const),
  fc
    .tuple(small, small)
    .map(([n, m]) => ['piece.became-plant', { v: 1, pieceId: p(n), newPlantId: p(m) }] as const),
  {
    weight: 3,
    arbitrary: fc
      .tuple(small, small, metres)
      .map(([n, m, along]) => ['tie.made', tie(t(n), p(m), along)] as const),
  },
  fc
    .tuple(small, small, metres)
    .map(
      ([n, m, xM]) => ['tie.made', { v: 1, tieId: t(n), stemId: p(m), at: { xM, yM: 1 }, ...loop }] as const,
    ),
  fc
    .tuple(small, small, metres)
    .map(
      ([n, m, alongM]) =>
        ['tie.replaced', { v: 2, tieId: t(n), newTieId: t(m), alongM, support: null, ...loop }] as const,
    ),
  fc
    .tuple(small, small)
    .map(
      ([n, m]) =>
        [
          'tie.replaced',
          { v: 3, tieId: t(n), newTieId: t(m), why: 'bitten', loopLengthMm: 90, stemDiameterMm: 12 },
        ] as const,
    ),
  small.map((n) => ['tie.ended', { v: 1, tieId: t(n), why: 'slipped' }] as const),
)

describe('what grows on wood that is led elsewhere', () => {
  it('turns and moves with it as one', () => {
    const write = writer()
    // A cane that stood is laid to the right: its shoot, which pointed left, then points up.
    const state = replayWood([
      write(
        'piece.grew',
        grew('cane', [
          { xM: 1, yM: 0 },
          { xM: 1, yM: 1 },
          { xM: 1, yM: 2 },
        ]),
      ),
      write(
        'piece.grew',
        grew(
          'shoot',
          [
            { xM: 1, yM: 1 },
            { xM: 0.7, yM: 1 },
          ],
          on('cane', 1),
        ),
      ),
      write(
        'piece.grew',
        grew(
          'spur',
          [
            { xM: 0.8, yM: 1 },
            { xM: 0.8, yM: 0.9 },
          ],
          on('shoot', 0.2),
        ),
      ),
      write('piece.laid', { v: 1, pieceId: 'cane', path: level(1, 3, 0.5) }),
    ])
    const ends = (id: string) => state.pieces.get(id)!.path.flatMap(({ xM, yM }) => [xM, yM])
    for (const [id, wanted] of [
      ['shoot', [2, 0.5, 2, 0.8]],
      ['spur', [2, 0.7, 1.9, 0.7]],
    ] as const)
      for (const [i, m] of ends(id).entries()) expect(m).toBeCloseTo(wanted[i]!, 6)
  })
})

describe('a plant as a tree of pieces', () => {
  it('has no orphan and no tie beyond a cut, whatever is written in whatever order, late, twice, or taken back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(actArb, dayArb, fc.integer({ min: 0, max: 9 })), { maxLength: 40 }),
        fc.infiniteStream(fc.nat()),
        (acts, chance) => {
          const write = writer()
          const entries: JournalEntry[] = []
          for (const [[kind, body], day, undo] of acts) {
            entries.push(write(kind, body as never, day))
            if (undo === 0)
              entries.push(
                write('entry.withdrawn', { v: 1 }, day, entries[Math.floor(entries.length / 2)]!.id),
              )
          }
          const state = replayWood(entries)
          expectWhole(state)
          for (const day of ['2026-03-31', '2026-06-30']) expectWhole(replayWood(entries, day))
          const doubled = [...entries, ...entries]
            .map((entry) => [chance.next().value as number, entry] as const)
            .sort(([a], [b]) => a - b)
            .map(([, entry]) => entry)
          const again = replayWood(doubled)
          expect([...again.pieces]).toEqual([...state.pieces])
          expect([...again.ties]).toEqual([...state.ties])
          expect(again.misfits).toEqual(state.misfits)
        },
      ),
      { numRuns: runs(300) },
    )
  })

  it('lays a cane with all that sits on it: laterals turn with it, ties and buds stay at their place along it', () => {
    const write = writer()
    const upright = [
      { xM: 0, yM: 0 },
      { xM: 0, yM: 2 },
    ]
    const before = [
      write('piece.grew', grew('cane', upright)),
      write(
        'piece.grew',
        grew(
          'lateral',
          [
            { xM: 0, yM: 1 },
            { xM: 0.5, yM: 1 },
          ],
          on('cane', 1),
        ),
      ),
      write(
        'piece.grew',
        grew(
          'spur',
          [
            { xM: 0.25, yM: 1 },
            { xM: 0.25, yM: 1.2 },
          ],
          on('lateral', 0.25),
        ),
      ),
      write('tie.made', tie('t', 'cane', 1.5)),
      write('tie.made', tie('u', 'spur', 0.1)),
    ]
    const laid = write('piece.laid', { v: 1, pieceId: 'cane', path: level(0, 2, 0.5) }, '2026-04-01')
    const state = replayWood([...before, laid])
    expect(state.ties.get('t')).toMatchObject({ alongM: 1.5, at: { xM: 1.5, yM: 0.5 } })
    const lateral = state.pieces.get('lateral')!
    expect(lateral.parent).toEqual(on('cane', 1))
    // What stood off to the right of an upright cane hangs below one that is laid to the right.
    expect(lateral.path[0]!.xM).toBeCloseTo(1, 6)
    expect(lateral.path[1]!.yM).toBeCloseTo(0, 6)
    const spur = state.pieces.get('spur')!
    expect(polylineLengthM(spur.path)).toBeCloseTo(0.2, 9)
    expect(distanceM(spur.path[0]!, pointAlong(lateral.path, 0.25))).toBeLessThan(1e-6)
    expect(distanceM(state.ties.get('u')!.at, pointAlong(spur.path, 0.1))).toBeLessThan(1e-6)
  })

  it('takes with a cut what sits beyond it, told before or after the cut', () => {
    const write = writer()
    const cane = write('piece.grew', grew('cane', level(0, 2, 1)), '2026-01-01')
    const far = (day: string) =>
      write('piece.grew', grew(`far ${day}`, level(1.5, 1.8, 1), on('cane', 1.5)), day)
    const near = write('piece.grew', grew('near', level(0.5, 0.8, 1), on('cane', 0.5)), '2026-01-02')
    const cut = write(
      'piece.cut',
      { v: 1, pieceId: 'cane', alongM: 1, aboveBuds: 8, reason: 'to length' },
      '2026-02-01',
    )
    const state = replayWood([
      cut,
      far('2026-01-05'),
      cane,
      near,
      far('2026-03-01'),
      write('tie.made', tie('t', 'cane', 1.2), '2026-01-20'),
      write('tie.made', tie('late', 'cane', 1.2), '2026-03-02'),
    ])
    expect(state.pieces.get('far 2026-01-05')).toMatchObject({
      removedOn: '2026-02-01',
      removedWhy: 'to length',
    })
    expect(state.pieces.has('far 2026-03-01')).toBe(false)
    expect(state.pieces.get('near')!.removedOn).toBeNull()
    expect(state.pieces.get('cane')).toMatchObject({ buds: 8, cuts: [{ alongM: 1, aboveBuds: 8 }] })
    expect(state.ties.get('t')).toMatchObject({ endedWhy: 'wood-gone' })
    expect(state.ties.has('late')).toBe(false)
    expect(state.misfits.map((one) => one.why)).toEqual(['wood-gone', 'wood-gone'])
  })

  it('lets a sucker become a plant of its own, with what sits on it and the ties that hold it', () => {
    const write = writer()
    const state = replayWood([
      write('piece.grew', grew('stool', level(0, 1, 0.1))),
      write('piece.grew', grew('sucker', level(0.8, 1.2, 0.1), on('stool', 0.8))),
      write('piece.grew', grew('shoot', level(1, 1.1, 0.4), on('sucker', 0.2))),
      write('tie.made', tie('t', 'shoot', 0.05)),
      write('piece.became-plant', { v: 1, pieceId: 'sucker', newPlantId: 'daughter' }),
      write('piece.removed', { v: 1, pieceId: 'stool', reason: 'old' }, '2026-05-01'),
    ])
    const plantOf = (id: string) => state.pieces.get(id)!.plantId
    expect([plantOf('stool'), plantOf('sucker'), plantOf('shoot')]).toEqual(['plant', 'daughter', 'daughter'])
    expect(state.pieces.get('sucker')).toMatchObject({ parent: { on: 'ground' }, removedOn: null })
    expect(state.ties.get('t')).toMatchObject({ plantId: 'daughter', endedOn: null })
  })

  it('grows two leads from one start node, twisted below and parted at the fork, each a piece of its own', () => {
    const write = writer()
    const fork = { xM: 1, yM: 0.4 }
    const lead = (id: string, toM: number) =>
      write('piece.grew', {
        ...grew(id, [{ xM: 1, yM: 0 }, fork, { xM: toM, yM: 1 }]),
        parent: { on: 'crown', leadId: id },
      })
    const state = replayWood([lead('left', 0.4), lead('right', 1.6)])
    const crowns = [...state.pieces.values()].map((piece: Piece) => piece.parent)
    expect(crowns).toEqual([
      { on: 'crown', leadId: 'left' },
      { on: 'crown', leadId: 'right' },
    ])
  })

  it('keeps what was seen of a piece before where a later look says nothing of it', () => {
    const write = writer()
    const seen = (rest: object) =>
      write('piece.seen', { v: 1, pieceId: 'a', bends: null, light: null, fault: null, ...rest })
    const { pieces } = replayWood([
      write('piece.grew', grewBody('a')),
      seen({ bends: 'stiff', light: 'shaded', fault: 'woven' }),
      seen({ light: 'well-lit' }),
    ])
    expect(pieces.get('a')).toMatchObject({ bends: 'stiff', light: 'well-lit', fault: 'woven' })
  })

  it('is taken apart with all that sits on what goes, and ties that are taken off are over', () => {
    const write = writer()
    const { pieces, ties } = replayWood([
      write('piece.grew', grewBody('a')),
      write('piece.grew', grewBody('b')),
      write('piece.grew', { ...grewBody('on-b'), parent: on('b', 0.5) }),
      write('tie.made', tieBody('t', 'on-b')),
      write('tie.made', tieBody('gone', 'a')),
      write('tie.removed', { v: 1, tieId: 'gone', reason: 'loose' }, '2026-04-02'),
      write('plant.divided', { v: 1, pieceIds: ['b'], newPlantId: 'new' }),
    ])
    expect([...pieces.values()].map(({ id, plantId }) => [id, plantId])).toEqual([
      ['a', 'plant'],
      ['b', 'new'],
      ['on-b', 'new'],
    ])
    expect(ties.get('t')).toMatchObject({ plantId: 'new', endedOn: null })
    expect(ties.get('gone')).toMatchObject({ endedOn: '2026-04-02', endedWhy: 'removed' })
  })

  it('knows figures of a typical plant from measured ones, until somebody measures', () => {
    const write = writer()
    const told = (isTypical: boolean) => ({ ...grewBody('a'), v: 2 as const, isTypical })
    const piece = (...entries: JournalEntry[]) => replayWood(entries).pieces.get('a')!
    const typical = write('piece.grew', told(true))
    const buds = { v: 1, pieceId: 'a', baseMm: null, tipMm: null, buds: 7 } as const
    expect(piece(typical).isTypical).toBe(true)
    expect(piece(write('piece.grew', told(false))).isTypical).toBe(false)
    expect(piece(write('piece.grew', grewBody('a'))).isTypical).toBe(false)
    // Buds that were counted say nothing of how thick it is.
    expect(piece(typical, write('piece.measured', buds)).isTypical).toBe(true)
    expect(piece(typical, write('piece.measured', { ...buds, baseMm: 8 })).isTypical).toBe(false)
  })

  it('keeps what is done to a piece in its history: notched, sealed, stripped, and what its grower thinks of it', () => {
    const write = writer()
    const state = replayWood([
      write('piece.grew', grew('rib', level(0, 2, 1))),
      write('piece.notched', { v: 1, pieceId: 'rib', alongM: 0.8 }),
      write('piece.judged', { v: 1, pieceId: 'rib', health: 'doubtful', reason: 'canker?' }),
      write('piece.called', { v: 1, pieceId: 'rib', role: 'leader' }),
      write('piece.sealed', { v: 1, pieceId: 'rib', alongM: 5 }),
    ])
    expect(state.pieces.get('rib')).toMatchObject({
      marks: [{ what: 'notched', alongM: 0.8 }],
      health: 'doubtful',
      calledRole: 'leader',
    })
    expect(state.misfits.map((one) => one.why)).toEqual(['longer-than-wood'])
  })
})
