import type { Place, Plant } from '@klados/contract'
import { replayWood } from '@klados/core/journal'
import type { JournalEntry, WoodState } from '@klados/core/journal'
import { keptFold, lazyFold } from '@klados/core/part-fold'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { grewBody, tieBody } from '../../../../packages/core/test/bodies.ts'
import { createAgenda } from './agenda.ts'
import type { Agenda } from './agenda.ts'
import { openState } from './part-folds.ts'
import type { PartWood } from './readings.ts'
import { runs } from '../../../../packages/core/test/runs.ts'

const PLANTS = ['pear', 'rose', 'vine', 'fig'] as const
const places = ['wall', 'gable'].map((id) => ({ id, isRemoved: false, body: {} })) as unknown as Place[]
const DIED = { on: '2026-05-01', why: '' }
const plantsAt = (moved: readonly string[], removed: readonly string[], dead: readonly string[] = []) =>
  PLANTS.map((id) => ({
    id,
    isRemoved: removed.includes(id),
    body: {
      kindId: 'pear',
      placeId: moved.includes(id) ? 'gable' : 'wall',
      ended: dead.includes(id) ? DIED : null,
    },
  })) as unknown as Plant[]

/** A plant with so many ties, each made on a day of its own. */
function woodOf(plantId: string, days: readonly number[]): WoodState {
  const head = { placeId: 'wall', plantId, supersedes: null, recordedAt: '2026-03-01T09:00:00.000Z' }
  const written = [
    {
      kind: 'piece.grew',
      at: '2020-03-01',
      body: grewBody(`${plantId} trunk`, {
        path: [
          { xM: 0, yM: 0 },
          { xM: 0, yM: 2 },
        ],
        seasonsOld: 3,
        baseMm: 20,
      }),
    },
    ...days.map((day, n) => ({
      kind: 'tie.made',
      at: `2025-04-${String((day % 28) + 1).padStart(2, '0')}`,
      body: tieBody(`${plantId} ${n}`, `${plantId} trunk`, {
        alongM: 1,
        stemDiameterMm: 20,
        loopLengthMm: 90 + day,
      }),
    })),
  ]
  return replayWood(
    written.map((one, n) => ({
      ...head,
      ...one,
      id: `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`,
    })) as unknown as JournalEntry[],
  )
}

/** The same wood as a fold that is closed, with the days for a kind; how often it was opened. */
function closed(plantId: string, wood: WoodState, kindId: string): PartWood & { opened: () => number } {
  const ground = { kindId, hemisphere: 'north' as const }
  const fold = { part: plantId, wood: { state: wood, last: null }, frames: { state: new Map(), last: null } }
  const lazy = lazyFold(keptFold(fold, ground))
  let count = 0
  return {
    brief: lazy.brief,
    now: () => {
      count++
      return lazy.whole().wood.state
    },
    on: () => null,
    opened: () => count,
  }
}
const said = ({ items }: Agenda) => items.map(({ tie, place }) => `${tie.id} at ${place.id}`).sort()

it('tells of closed folds as much as of open ones, and opens those of which something wants a look', () => {
  const tied = fc.record({
    days: fc.array(fc.nat(60), { maxLength: 4 }),
    basis: fc.constantFrom('pear', 'rose'),
  })
  fc.assert(
    fc.property(
      fc.tuple(tied, tied, tied, tied),
      fc.constantFrom('2025-04-20', '2026-01-10', '2026-06-01'),
      (plants, today) => {
        const ground = { plants: plantsAt([], []), places, hemisphere: 'north' as const, today }
        const woods = PLANTS.map((id, n) => [id, woodOf(id, plants[n]!.days)] as const)
        const open = createAgenda()(
          new Map<string, PartWood>(woods.map(([id, wood]) => [id, openState(wood)])),
          ground,
        )
        const parts = woods.map(([id, wood], n) => [id, closed(id, wood, plants[n]!.basis)] as const)
        const lean = createAgenda()(new Map<string, PartWood>(parts), ground)
        const near = ({ items }: Agenda) => items.filter(({ urgency }) => urgency !== 'later')
        const ids = (list: Agenda['items']) => list.map(({ tie }) => tie.id)
        expect(ids(near(lean))).toEqual(ids(near(open)))
        expect([lean.count, lean.nextOn]).toEqual([open.count, open.nextOn])
        for (const [n, [id, part]] of parts.entries()) {
          const isNear = near(open).some(({ plant }) => plant.id === id)
          const isKnown = plants[n]!.basis === 'pear'
          if (isKnown && !isNear) expect(part.opened()).toBe(0)
        }
      },
    ),
    { numRuns: runs(60) },
  )
})

it('is after any changes what it would be if it were reckoned at once, soonest first', () => {
  const change = fc.record({
    plant: fc.constantFrom(...PLANTS),
    days: fc.option(fc.array(fc.nat(60), { maxLength: 4 })),
    ground: fc.boolean(),
    moved: fc.subarray([...PLANTS]),
    removed: fc.subarray([...PLANTS]),
    dead: fc.subarray([...PLANTS]),
  })
  fc.assert(
    fc.property(fc.array(change, { maxLength: 12 }), (changes) => {
      const agenda = createAgenda()
      let woods = new Map<string, PartWood>()
      let ground = { plants: plantsAt([], []), places, hemisphere: 'north' as const, today: '2026-06-01' }
      for (const { plant, days, ...next } of changes) {
        woods = new Map(woods)
        if (days) woods.set(plant, openState(woodOf(plant, days)))
        else woods.delete(plant)
        if (next.ground) ground = { ...ground, plants: plantsAt(next.moved, next.removed, next.dead) }
        const list = agenda(woods, ground)
        const dues = list.items.map(({ look }) => look.dueOn)
        expect(dues).toEqual([...dues].sort())
        expect(said(list)).toEqual(said(createAgenda()(woods, ground)))
        expect(agenda(woods, ground)).toBe(list)
      }
    }),
    { numRuns: runs(60) },
  )
})

it('goes to no tie of a plant that is dead or was taken out, from that day on', () => {
  const woods = new Map([['pear', openState(woodOf('pear', [1, 2]))]])
  const on = (today: string, dead: readonly string[]) =>
    createAgenda()(woods, { plants: plantsAt([], [], dead), places, hemisphere: 'north', today })
  expect(on('2026-04-30', ['pear']).count).toBe(2)
  expect(on(DIED.on, ['pear'])).toMatchObject({ count: 0, nextOn: null })
  expect(on(DIED.on, ['rose']).count).toBe(2)
})
