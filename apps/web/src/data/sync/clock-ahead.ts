import type { JournalEntry } from '@klados/core/journal'
import { todayHere } from '../dates.ts'
import type { EntryItem } from './items.ts'
import { writtenAt } from './waits.ts'

/** Below this a clock is not days ahead, and what was refused was refused for another reason. */
const LEAST_MS = 86_400_000

/**
 * How far the clock was ahead that wrote these: as far as the server finds it to be now; or, set right meanwhile, as far
 * as the last of them lies ahead. `null` where that is no matter of days.
 */
export function daysAhead(items: readonly EntryItem[], skewMs: number, now: number): number | null {
  const last = Math.max(...items.map((item) => writtenAt(item) ?? 0))
  const aheadMs = skewMs > LEAST_MS ? skewMs : last - now
  return aheadMs > LEAST_MS ? aheadMs : null
}

/**
 * The entry as a clock would have written it that was not ahead. A day that its writer chose, other than the day that the
 * clock showed, stays: it was read off a calendar and not off the clock.
 */
export function setBack(entry: JournalEntry, aheadMs: number): JournalEntry {
  const written = new Date(entry.recordedAt)
  const really = new Date(written.getTime() - aheadMs)
  const isOfClock = entry.at === todayHere(written) || entry.at > todayHere(really)
  return {
    ...entry,
    recordedAt: really.toISOString(),
    at: isOfClock ? todayHere(really) : entry.at,
  }
}
