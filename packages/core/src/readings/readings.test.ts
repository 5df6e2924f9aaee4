import { describe, expect, it } from 'vitest'
import { replayFrames, replayPlants } from '../journal/index.ts'
import type { EntryBodies, EntryKind, JournalEntry } from '../journal/index.ts'
import { lineId } from '../frame/index.ts'

let count = 0
function entry<K extends EntryKind>(
  at: string,
  kind: K,
  body: EntryBodies[K],
  plantId: string | null = 'vine',
): JournalEntry {
  count++
  const id = `00000000-0000-7000-8000-${String(count).padStart(12, '0')}`
  const head = { id, placeId: 'place', plantId, recordedAt: `${at}T09:00:00.000Z`, supersedes: null }
  return { ...head, at, kind, body } as JournalEntry
}

describe('what is known of a plant besides its wood', () => {
  const prunings = entry('2026-02-10', 'reading.taken', {
    v: 1,
    what: 'prunings',
    value: 1.6,
    pieceId: null,
    alongM: null,
  })
  const entries = [
    entry('2026-06-01', 'stage.seen', { v: 1, stage: 'flowering' }),
    prunings,
    entry('2026-07-02', 'plant.watered', { v: 1, litres: 10 }),
    entry('2026-02-10', 'plant.tallied', {
      v: 1,
      canes: 4,
      spurs: 12,
      buds: 55,
      ties: null,
      minutes: 20,
      pruningsKg: 1.6,
      cropKg: null,
    }),
    entry('2027-01-05', 'plant.died', { v: 1, why: 'honey fungus' }),
    entry('2026-06-01', 'stage.seen', { v: 1, stage: 'fruit-set' }, null),
  ]

  it('is told by the day, each list from its earliest on, and of no plant nothing', () => {
    const plants = replayPlants(entries)
    expect([...plants.keys()]).toEqual(['vine'])
    expect(plants.get('vine')).toMatchObject({
      readings: [{ on: '2026-02-10', what: 'prunings', value: 1.6 }],
      tallies: [{ on: '2026-02-10', canes: 4, spurs: 12, buds: 55 }],
      stages: [{ on: '2026-06-01', stage: 'flowering' }],
      cares: [{ on: '2026-07-02', kind: 'plant.watered' }],
      ended: { on: '2027-01-05', why: 'honey fungus', newPlantId: null },
    })
    expect(replayPlants(entries, '2026-06-30').get('vine')).toMatchObject({ cares: [], ended: null })
  })

  it('forgets what was taken back, whichever came first', () => {
    const withdrawal = {
      ...entry('2026-02-11', 'entry.withdrawn', { v: 1 }),
      supersedes: prunings.id,
    } as JournalEntry
    for (const order of [
      [...entries, withdrawal],
      [withdrawal, ...entries],
    ])
      expect(replayPlants(order).get('vine')!.readings).toEqual([])
  })
})

describe('what is known of a frame besides its measures', () => {
  it('knows where lifted wires are and whether the cover is on', () => {
    const [frameId, line] = ['frame', lineId('w1a')]
    const frame = replayFrames([
      entry('2026-05-20', 'wire.lifted', { v: 1, frameId, line, toHeightM: 1.3 }, null),
      entry('2026-06-10', 'wire.lifted', { v: 1, frameId, line, toHeightM: 1.6 }, null),
      entry('2026-07-01', 'cover.changed', { v: 1, frameId, is: 'on' }, null),
    ]).get(frameId)!
    expect(frame.lifted.get(line)).toEqual({ on: '2026-06-10', heightM: 1.6 })
    expect(frame.cover).toEqual({ on: '2026-07-01', is: 'on' })
  })
})
