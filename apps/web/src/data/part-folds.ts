import { grouped } from '@klados/core/part-fold'
import type { Folded, Timeline } from '@klados/core/fold'
import type { JournalEntry } from '@klados/core/journal'
import type { PartBrief } from '@klados/core/part-fold'
import type { CalendarDate } from '@klados/core/season'
import { isAmong } from './journal.ts'
import type { Some } from './journal.ts'
import type { Parts } from './parts.ts'
import { WideMap } from './wide-map.ts'
import type { Table } from './wide-map.ts'

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

/** What a part comes to, opened when somebody looks into it. */
export interface PartState<S> {
  /** What can be told of it without opening it; `null` where it is open anyway. */
  readonly brief: () => PartBrief | null
  readonly now: () => S
  /** At the end of a day; `null` where the entries that would tell are not at hand. */
  readonly on: (day: CalendarDate) => S | null
}

/** A fold of a part in one of the ways in which parts are folded. */
export interface PartFolded<S> {
  readonly brief: () => PartBrief
  readonly folded: () => Folded<S>
}

/** What the parts of a journal come to. */
export interface PartStates<S> {
  readonly states: Table<PartState<S>>
  /** Parts whose fold alone does not tell what was written since: their entries are wanted, and till then they stay. */
  readonly short: readonly string[]
}

export const openState = <S>(state: S, on: (day: CalendarDate) => S | null = () => null): PartState<S> => ({
  brief: () => null,
  now: () => state,
  on,
})
const closedState = <S>({ brief, folded }: PartFolded<S>): PartState<S> => ({
  brief,
  now: () => folded().state,
  on: () => null,
})

interface Told<S> {
  readonly entries: readonly JournalEntry[]
  readonly folded: PartFolded<S> | undefined
  readonly isAtHand: boolean
  readonly state: PartState<S>
  readonly isShort: boolean
  /** Of a part all of whose entries are at hand. */
  readonly timeline: Timeline<S> | null
}

/** How a part is read: from all of its entries, or on from a fold of them, where that can be told. */
export interface PartReading<S> {
  readonly timeline: (entries: readonly JournalEntry[]) => Timeline<S>
  readonly goOn: (from: Folded<S>, entries: readonly JournalEntry[]) => Folded<S> | null
}
const NONE: readonly JournalEntry[] = []

/**
 * Folds each part by itself: all of its entries where they are at hand, else on from what the copy has folded. A part
 * that is as it was, or that gained only entries of other kinds, keeps its state, the same object. A fold to which nothing
 * came stays closed.
 */
export function folder<S>({
  timeline: begin,
  goOn,
}: PartReading<S>): (parts: Parts, folds: ReadonlyMap<string, PartFolded<S>>, atHand: Some) => PartStates<S> {
  const known = new Map<string, Told<S>>()
  let states = WideMap.of<PartState<S>>()
  let made: PartStates<S> = { states, short: [] }
  const tell = (
    old: Told<S> | undefined,
    entries: readonly JournalEntry[],
    folded: PartFolded<S> | undefined,
    isAtHand: boolean,
  ): Told<S> => {
    const isAsItWas = old?.folded === folded && old?.isAtHand === isAtHand
    if (isAsItWas && old.entries === entries) return old
    // What comes back from the disk or the server is what was sent there: an entry is never another under its id.
    if (isAsItWas && isSameList(old.entries, entries)) return { ...old, entries }
    const told = { entries, folded, isAtHand, isShort: false, timeline: null }
    // Without a fold all that there is of a part has come since.
    if (isAtHand || !folded) {
      const before = old?.timeline
      const timeline = before ? before.with(entries) : begin(entries)
      const isSame = before?.now === timeline.now
      return { ...told, timeline, state: isSame ? old!.state : openState(timeline.now, timeline.on) }
    }
    if (entries.length === 0) return { ...told, state: closedState(folded) }
    const from = folded.folded()
    const on = goOn(from, entries)
    if (on === null) return { ...told, state: old?.state ?? closedState(folded), isShort: true }
    const isSame = old?.folded === folded && old.state.now() === on.state
    return { ...told, state: isSame ? old.state : openState(on.state) }
  }
  let last: { parts: Parts; folds: ReadonlyMap<string, PartFolded<S>>; atHand: Some } | null = null
  return (parts, folds, atHand) => {
    const changed: string[] = []
    let isShortSame = true
    const look = (key: string) => {
      const old = known.get(key)
      if (!folds.has(key) && !parts.has(key)) {
        // Another garden, or entries that were never taken: what is not there any more tells nothing.
        if (!old) return
        known.delete(key)
        isShortSame &&= !old.isShort
        changed.push(key)
        return
      }
      const told = tell(old, parts.get(key) ?? NONE, folds.get(key), isAmong(atHand, key))
      if (told === old) return
      known.set(key, told)
      if (old?.state !== told.state) changed.push(key)
      isShortSame &&= (old?.isShort ?? false) === told.isShort
    }
    // Of many plants few are written of: while the folds stay only those can be others.
    const isAlike = last?.folds === folds && last.atHand === atHand
    if (!isAlike) folds.forEach((_, key) => look(key))
    parts.forEach((_, key) => look(key))
    if (isAlike) last!.parts.forEach((_, key) => !parts.has(key) && look(key))
    else known.forEach((_, key) => !folds.has(key) && !parts.has(key) && look(key))
    last = { parts, folds, atHand }
    if (changed.length > 0) {
      const before = states
      states = before.with(changed.map((key) => [key, known.get(key)?.state] as const))
      changes.set(states, { from: new WeakRef(before), keys: changed })
      made = { ...made, states }
    }
    if (!isShortSame)
      made = { ...made, short: [...known].flatMap(([key, { isShort }]) => (isShort ? [key] : [])) }
    return made
  }
}

const isSameList = (before: readonly JournalEntry[], now: readonly JournalEntry[]): boolean =>
  before.length === now.length && before.every(({ id }, i) => now[i]!.id === id)

/** How states came from those before them, which they do not keep alive: each had its own before it. */
const changes = new WeakMap<object, { readonly from: WeakRef<object>; readonly keys: readonly string[] }>()

/** The parts that differ between some states and later ones; `null` where these were not made from those in one step. */
export function changedSince<S>(
  before: Table<PartState<S>>,
  now: Table<PartState<S>>,
): readonly string[] | null {
  const change = changes.get(now)
  return change?.from.deref() === before ? change.keys : null
}
