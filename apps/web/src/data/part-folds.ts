import type { Folded } from '@klados/core/fold'
import type { JournalEntry } from '@klados/core/journal'
import { isAmong } from './journal.ts'
import type { Some } from './journal.ts'
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

/** What the parts of a journal come to. */
export interface PartStates<S> {
  readonly states: ReadonlyMap<string, S>
  /** Parts whose fold alone does not tell what was written since: their entries are wanted, and till then they stay. */
  readonly short: readonly string[]
}

interface Told<S> {
  readonly entries: readonly JournalEntry[]
  readonly folded: Folded<S> | undefined
  readonly isAtHand: boolean
  readonly state: S
  readonly isShort: boolean
}

/** How a part is read: from all of its entries, or on from a fold of them, where that can be told. */
export interface PartReading<S> {
  readonly kinds: Readonly<Record<string, unknown>>
  readonly replay: (entries: readonly JournalEntry[]) => S
  readonly goOn: (from: Folded<S>, entries: readonly JournalEntry[]) => Folded<S> | null
}
const NONE: readonly JournalEntry[] = []

/**
 * Folds each part by itself: all of its entries where they are at hand, else on from what the copy has folded. A part
 * that is as it was, or that gained only entries of other kinds, keeps its state, the same object.
 */
export function folder<S>({
  kinds,
  replay,
  goOn,
}: PartReading<S>): (parts: Parts, folds: ReadonlyMap<string, Folded<S>>, atHand: Some) => PartStates<S> {
  const known = new Map<string, Told<S>>()
  let made: PartStates<S> = { states: new Map(), short: [] }
  const tell = (
    old: Told<S> | undefined,
    entries: readonly JournalEntry[],
    folded: Folded<S> | undefined,
    isAtHand: boolean,
  ): Told<S> => {
    if (old?.entries === entries && old.folded === folded && old.isAtHand === isAtHand) return old
    // Without a fold all that there is of a part has come since.
    if (isAtHand || !folded) {
      const isAsBefore = old && !old.isShort && isForeign(old.entries, entries, kinds)
      const state =
        isAsBefore && old.isAtHand === isAtHand && old.folded === folded ? old.state : replay(entries)
      return { entries, folded, isAtHand, state, isShort: false }
    }
    const on = goOn(folded, entries)
    return { entries, folded, isAtHand, state: on?.state ?? old?.state ?? folded.state, isShort: on === null }
  }
  return (parts, folds, atHand) => {
    let states: Map<string, S> | null = null
    let isShortSame = true
    let count = 0
    const add = (key: string) => {
      count++
      const old = known.get(key)
      const told = tell(old, parts.get(key) ?? NONE, folds.get(key), isAmong(atHand, key))
      if (told === old) return
      known.set(key, told)
      if (old?.state !== told.state) (states ??= new Map(made.states)).set(key, told.state)
      isShortSame &&= (old?.isShort ?? false) === told.isShort
    }
    for (const key of folds.keys()) add(key)
    for (const key of parts.keys()) if (!folds.has(key)) add(key)
    if (count < known.size) {
      // Another garden, or entries that were never taken: what is not there any more tells nothing.
      for (const key of known.keys()) if (!folds.has(key) && !parts.has(key)) known.delete(key)
      states = new Map([...known].map(([key, { state }]) => [key, state]))
      isShortSame = false
    }
    if (states || !isShortSame)
      made = {
        states: states ?? made.states,
        short: isShortSame ? made.short : [...known].flatMap(([key, { isShort }]) => (isShort ? [key] : [])),
      }
    return made
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
