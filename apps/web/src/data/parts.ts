import type { JournalEntry } from '@klados/core/journal'
import { grouped, partOf } from '@klados/core/part-fold'

/** Entries by what they are about: a tap on one plant leaves all other lists as they were, the same objects. */
export type Parts<E extends JournalEntry = JournalEntry> = ReadonlyMap<string, readonly E[]>

/** A plant's wood is told by its own entries alone, and those of no plant by their place's. */
export const plantKey: (entry: JournalEntry) => string = partOf
export const placeKey = ({ placeId }: JournalEntry): string => placeId

export function without<E extends JournalEntry>(parts: Parts<E>, keys: readonly string[]): Parts<E> {
  const next = new Map(parts)
  for (const key of keys) next.delete(key)
  return next
}

export function withAdded<E extends JournalEntry>(
  parts: Parts<E>,
  entries: readonly E[],
  keyOf: (entry: JournalEntry) => string,
): Parts<E> {
  if (entries.length === 0) return parts
  const next = new Map(parts)
  for (const [key, added] of grouped(entries, keyOf)) {
    const before = next.get(key)
    next.set(key, before ? [...before, ...added] : added)
  }
  return next
}
