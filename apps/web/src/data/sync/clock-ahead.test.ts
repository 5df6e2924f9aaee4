import { describe, expect, it } from 'vitest'
import { todayHere } from '../dates.ts'
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
