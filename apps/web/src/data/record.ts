import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import type { CalendarDate } from '@klados/core/season'
import { todayHere } from './dates.ts'
import type { JournalThunk } from './journal.ts'

export type NewEntry = {
  readonly [K in EntryKind]: {
    readonly kind: K
    readonly body: EntryBodies[K]
    readonly placeId: string
    readonly plantId: string | null
    readonly at?: CalendarDate
    readonly supersedes?: string
  }
}[EntryKind]

/**
 * Writes entries into the journal: seen at once, in the outbox until the server has them. Answers them as
 * written.
 */
export const record =
  (news: readonly NewEntry[]): JournalThunk<readonly JournalEntry[]> =>
  (_, getState, desk) => {
    const { gardenId } = getState().journal
    if (gardenId === null) throw new Error('No garden is open')
    const now = new Date()
    const entries = news.map(
      (entry) =>
        ({
          id: desk.clock.makeId(),
          placeId: entry.placeId,
          plantId: entry.plantId,
          kind: entry.kind,
          at: entry.at ?? todayHere(now),
          recordedAt: now.toISOString(),
          supersedes: entry.supersedes ?? null,
          body: entry.body,
        }) as JournalEntry,
    )
    void desk.addEntries(gardenId, entries)
    return entries
  }

/** Takes entries back, each by one of its own plant and place. */
export const withdraw = (entries: readonly JournalEntry[]): JournalThunk<readonly JournalEntry[]> =>
  record(
    [...entries].reverse().map(({ id, placeId, plantId }) => ({
      kind: 'entry.withdrawn',
      body: { v: 1 },
      placeId,
      plantId,
      supersedes: id,
    })),
  )
