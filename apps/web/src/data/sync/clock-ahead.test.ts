import { describe, expect, it } from 'vitest'
import { todayHere } from '../dates.ts'
import { createClock, greatestId } from './clock.ts'
import { daysAhead, setBack } from './clock-ahead.ts'
import type { EntryItem } from './items.ts'
import { note } from './testing.ts'

const DAY = 86_400_000
const NOW = Date.parse('2026-06-10T10:00:00Z')
const idAt = (ms: number) => {
  const time = ms.toString(16).padStart(12, '0')
  return `${time.slice(0, 8)}-${time.slice(8)}-7000-8000-000000000001`
}
const written = (ms: number) => ({ kind: 'entry', entry: note('a', { id: idAt(ms) }) }) as EntryItem

describe('a clock that was ahead', () => {
  it('is told by the server while it is, and by what it wrote once it has been set right', () => {
    expect(daysAhead([written(NOW + 9 * DAY)], 12 * DAY, NOW + 12 * DAY)).toBe(12 * DAY)
    expect(daysAhead([written(NOW + 3 * DAY), written(NOW + 9 * DAY)], 0, NOW)).toBe(9 * DAY)
    expect(daysAhead([written(NOW)], 0, NOW)).toBeNull()
  })

  it('has what it wrote set back by the difference; a day that somebody chose stays', () => {
    const clock = new Date(NOW + 9 * DAY)
    const entry = note('a', { recordedAt: clock.toISOString(), at: todayHere(clock) })
    expect(setBack(entry, 9 * DAY)).toMatchObject({
      recordedAt: new Date(NOW).toISOString(),
      at: todayHere(new Date(NOW)),
    })
    expect(setBack({ ...entry, at: '2026-05-01' }, 9 * DAY).at).toBe('2026-05-01')
    expect(setBack({ ...entry, at: todayHere(new Date(NOW + 4 * DAY)) }, 9 * DAY).at).toBe(
      todayHere(new Date(NOW)),
    )
  })
})

describe('the greatest id of a page', () => {
  it('is one that tells a time and comes after all before it', () => {
    const ids = [idAt(NOW), idAt(NOW + DAY), idAt(NOW - DAY)]
    expect(greatestId(ids)).toBe(ids[1])
    expect(greatestId(ids, idAt(NOW + 2 * DAY))).toBe(idAt(NOW + 2 * DAY))
    expect(greatestId([])).toBeNull()
    // Made at random: its letters say nothing of when.
    expect(greatestId(['ffffffff-ffff-4fff-8000-000000000001', ids[0]!])).toBe(ids[0])
  })

  it('is remembered by the clock only where it goes on', () => {
    const memory = { kept: null as string | null, writes: 0 }
    const clock = createClock(
      { read: () => memory.kept, write: (id) => void ((memory.kept = id), memory.writes++) },
      () => NOW,
    )
    for (const id of [idAt(NOW), idAt(NOW), idAt(NOW - DAY), 'ffffffff-ffff-4fff-8000-000000000001'])
      clock.see(id)
    expect(memory).toEqual({ kept: idAt(NOW), writes: 1 })
    clock.see(idAt(NOW + DAY))
    expect(memory).toEqual({ kept: idAt(NOW + DAY), writes: 2 })
    // What is written next comes after what was seen, though the clock here is a day behind it.
    expect(clock.makeId() > idAt(NOW + DAY)).toBe(true)
  })
})
