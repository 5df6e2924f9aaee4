import type { JournalEntry } from '@klados/core/journal'
import { grouped } from './parts.ts'
import type { Parts } from './parts.ts'

/**
 * The stored parts with what is on its way in each; a part to which nothing came since the last time is the list that
 * it was then.
 */
export function joiner(
  keyOf: (entry: JournalEntry) => string,
): (stored: Parts, more: readonly JournalEntry[]) => Parts {
  const known = new Map<
    string,
    {
      readonly stored: readonly JournalEntry[]
      readonly more: readonly JournalEntry[]
      readonly joined: readonly JournalEntry[]
    }
  >()
  const NONE: readonly JournalEntry[] = []
  return (stored, more) => {
    if (more.length === 0) return stored
    const next = new Map(stored)
    for (const [key, added] of grouped(more, keyOf)) {
      const base = stored.get(key) ?? NONE
      const old = known.get(key)
      const isSame =
        old !== undefined &&
        old.stored === base &&
        old.more.length === added.length &&
        added.every((entry, i) => old.more[i] === entry)
      const part = isSame ? old : { stored: base, more: added, joined: [...base, ...added] }
      known.set(key, part)
      next.set(key, part.joined)
    }
    return next
  }
}

/** Folds each part by itself; those that are the lists they were are not folded again. */
export function folder<S>(
  fold: (entries: readonly JournalEntry[]) => S,
): (parts: Parts) => ReadonlyMap<string, S> {
  let known = new Map<string, { readonly entries: readonly JournalEntry[]; readonly state: S }>()
  return (parts) => {
    const next = new Map<string, { readonly entries: readonly JournalEntry[]; readonly state: S }>()
    for (const [key, entries] of parts) {
      const old = known.get(key)
      next.set(key, old?.entries === entries ? old : { entries, state: fold(entries) })
    }
    known = next
    return new Map([...next].map(([key, { state }]) => [key, state]))
  }
}
