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

interface Folded<S> {
  readonly entries: readonly JournalEntry[]
  readonly state: S
}

/**
 * Folds each part by itself; one that is the list that it was, or that gained only entries of other kinds, keeps its
 * state, the same object.
 */
export function folder<S>(
  fold: (entries: readonly JournalEntry[]) => S,
  kinds: Readonly<Record<string, unknown>>,
): (parts: Parts) => ReadonlyMap<string, S> {
  let known = new Map<string, Folded<S>>()
  let states: ReadonlyMap<string, S> = new Map()
  return (parts) => {
    const next = new Map<string, Folded<S>>()
    let isSame = parts.size === known.size
    for (const [key, entries] of parts) {
      const old = known.get(key)
      const state = old && isForeign(old.entries, entries, kinds) ? old.state : fold(entries)
      next.set(key, old?.entries === entries ? old : { entries, state })
      isSame &&= old?.state === state
    }
    known = next
    if (!isSame) states = new Map([...next].map(([key, { state }]) => [key, state]))
    return states
  }
}

/** Whether nothing came since then but entries of other kinds, in place of nothing. */
function isForeign(
  before: readonly JournalEntry[],
  now: readonly JournalEntry[],
  kinds: Readonly<Record<string, unknown>>,
): boolean {
  if (before === now) return true
  if (now.length < before.length || before.some((entry, i) => now[i] !== entry)) return false
  return now.slice(before.length).every(({ kind, supersedes }) => supersedes === null && !(kind in kinds))
}
