import type { JournalPage, StoredEntry } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'
import { lazyFold } from '@klados/core/part-fold'
import type { LazyFold } from '@klados/core/part-fold'
import { createAction } from '@reduxjs/toolkit'
import type { Action, Reducer, ThunkAction } from '@reduxjs/toolkit'
import type { FoldedUp, KeptJournal } from './copy/copy-store.ts'
import { placeKey, plantKey, withAdded, without } from './parts.ts'
import type { Parts } from './parts.ts'
import type { WithSync } from './sync/slice.ts'
import type { Desk } from './desk.ts'

/** The part of the store that this file reads and writes. */
export interface WithJournal extends WithSync {
  readonly journal: JournalState
}
export type JournalThunk<R> = ThunkAction<R, WithJournal, Desk, Action>

/** Everything, or those that are named. */
export type Some = 'all' | ReadonlySet<string>
export const isAmong = (some: Some, one: string): boolean => some === 'all' || some.has(one)
const withMore = (some: Some, more: Iterable<string>): Some =>
  some === 'all' ? some : new Set([...some, ...more])
const withLess = (some: ReadonlySet<string>, less: readonly string[]): ReadonlySet<string> => {
  const gone = new Set(less)
  return new Set([...some].filter((one) => !gone.has(one)))
}
const NOTHING: ReadonlySet<string> = new Set()
/** The histories of so many places are held at once. */
export const MOST_PLACES = 8

export interface JournalState {
  readonly gardenId: string | null
  /**
   * What the server has, by plant: all of it for the parts that are at hand, else what came after the part's fold.
   */
  readonly byPlant: Parts<StoredEntry>
  /** All that was written at the places that are at hand. */
  readonly byPlace: Parts<StoredEntry>
  readonly partsAtHand: Some
  readonly placesAtHand: Some
  /** Places whose history could not be had: it is not on this device yet, and the server does not answer. */
  readonly placesAway: ReadonlySet<string>
  /** What each part came to, as far as the copy on this device has folded it. */
  readonly folds: ReadonlyMap<string, LazyFold>
  /** How far the folds go; 0 without any. */
  readonly foldedTo: number
  readonly last: number
  /** Written here and taken by the server, and not read back from it yet. */
  readonly acknowledged: readonly JournalEntry[]
  readonly status: 'empty' | 'reading' | 'ready' | 'failed'
}

const initialState: JournalState = {
  gardenId: null,
  byPlant: new Map(),
  byPlace: new Map(),
  partsAtHand: 'all',
  placesAtHand: 'all',
  placesAway: NOTHING,
  folds: new Map(),
  foldedTo: 0,
  last: 0,
  acknowledged: [],
  status: 'empty',
}

/** Both lists in the order of their numbers, each entry once. */
function merged(kept: readonly StoredEntry[], more: readonly StoredEntry[]): readonly StoredEntry[] {
  const last = kept.at(-1)?.seq ?? 0
  const there = new Set(more.some(({ seq }) => seq <= last) ? kept.map(({ seq }) => seq) : [])
  const added = more.filter(({ seq }) => !there.has(seq))
  return added.length === 0 ? kept : [...kept, ...added].sort((a, b) => a.seq - b.seq)
}

export const opened = createAction<string>('journal/opened')
/** What this device has of the garden: all entries, or the folds and what came after them. */
export const begun = createAction<Omit<KeptJournal, 'isStale'>>('journal/begun')
export const received = createAction<Omit<JournalPage, 'head'> & { isWhole: boolean }>('journal/received')
/** All entries of some parts, and of a place where it was one that was asked for. */
export const brought = createAction<{
  parts: Parts<StoredEntry>
  place?: { id: string; entries: readonly StoredEntry[] }
}>('journal/brought')
export const notBrought = createAction<string>('journal/notBrought')
/** Folds that go further than those that are here. */
export const foldedUp = createAction<FoldedUp>('journal/foldedUp')
export const failed = createAction('journal/failed')
export const acknowledged = createAction<readonly JournalEntry[]>('journal/acknowledged')

/**
 * By hand and not by the toolkit's reducers, which would walk through all that is held, thirty years of it, to freeze what
 * nothing changes in place anyway.
 */
export const journalReducer: Reducer<JournalState> = (state = initialState, action) => {
  if (opened.match(action)) return { ...initialState, gardenId: action.payload, status: 'reading' }
  if (begun.match(action)) return begin(state, action.payload)
  if (received.match(action)) return receive(state, action.payload)
  if (brought.match(action)) return bring(state, action.payload)
  if (notBrought.match(action))
    return { ...state, placesAway: new Set([...state.placesAway, action.payload]) }
  if (foldedUp.match(action)) return takeFolds(state, action.payload)
  if (failed.match(action)) return { ...state, status: state.status === 'ready' ? 'ready' : 'failed' }
  if (acknowledged.match(action))
    return { ...state, acknowledged: [...state.acknowledged, ...action.payload] }
  return state
}

function begin(
  state: JournalState,
  { last, foldedTo, folds, entries }: ReturnType<typeof begun>['payload'],
): JournalState {
  const isFolded = foldedTo > 0
  return {
    ...state,
    byPlant: withAdded(new Map(), entries, plantKey),
    byPlace: isFolded ? new Map() : withAdded(new Map(), entries, placeKey),
    partsAtHand: isFolded ? NOTHING : 'all',
    placesAtHand: isFolded ? NOTHING : 'all',
    folds: new Map(folds.map((one) => [one.part, lazyFold(one)])),
    foldedTo,
    last,
    status: 'ready',
  }
}

function receive(
  state: JournalState,
  { entries, last, isWhole }: ReturnType<typeof received>['payload'],
): JournalState {
  const stored = new Set(entries.map((entry) => entry.id))
  const atHand = entries.filter(({ placeId }) => isAmong(state.placesAtHand, placeId))
  return {
    ...state,
    byPlant: withAdded(state.byPlant, entries, plantKey),
    byPlace: withAdded(state.byPlace, atHand, placeKey),
    last,
    acknowledged: state.acknowledged.filter((entry) => !stored.has(entry.id)),
    status: isWhole ? 'ready' : state.status,
  }
}

function bring(state: JournalState, { parts, place }: ReturnType<typeof brought>['payload']): JournalState {
  const byPlant = new Map(state.byPlant)
  for (const [key, entries] of parts) byPlant.set(key, merged(entries, state.byPlant.get(key) ?? []))
  const partsAtHand = withMore(state.partsAtHand, parts.keys())
  if (!place) return { ...state, byPlant, partsAtHand }
  // What has come since the copy was asked lies here already.
  const since = [...state.byPlant.values()].flatMap((entries) =>
    entries.filter(({ placeId, seq }) => placeId === place.id && seq > state.foldedTo),
  )
  const sorted = since.sort((a, b) => a.seq - b.seq)
  return letGo({
    ...state,
    byPlant,
    partsAtHand,
    byPlace: new Map(state.byPlace).set(place.id, merged(place.entries, sorted)),
    placesAtHand: withMore(state.placesAtHand, [place.id]),
    placesAway: new Set([...state.placesAway].filter((id) => id !== place.id)),
  })
}

/**
 * Whoever walks through a garden place by place does not end with all that was ever written of it in memory: the places
 * that were opened first are told from their folds again, but for parts of which something came since those.
 */
function letGo(state: JournalState): JournalState {
  const { placesAtHand, foldedTo } = state
  if (placesAtHand === 'all' || placesAtHand.size <= MOST_PLACES) return state
  const inOrder = [...placesAtHand]
  const [gone, kept] = [inOrder.slice(0, -MOST_PLACES), inOrder.slice(-MOST_PLACES)]
  const partsAt = (places: readonly string[]) =>
    new Set(places.flatMap((id) => state.byPlace.get(id)?.map(plantKey) ?? []))
  const stay = partsAt(kept)
  const parts = [...partsAt(gone)].filter(
    (part) => !stay.has(part) && !state.byPlant.get(part)?.some(({ seq }) => seq > foldedTo),
  )
  return {
    ...state,
    byPlant: without(state.byPlant, parts),
    byPlace: without(state.byPlace, gone),
    partsAtHand: state.partsAtHand === 'all' ? 'all' : withLess(state.partsAtHand, parts),
    placesAtHand: new Set(kept),
  }
}

/** What the folds hold is not wanted as entries any more. */
function takeFolds(state: JournalState, { upTo, folds }: FoldedUp): JournalState {
  if (state.partsAtHand === 'all') return { ...state, foldedTo: upTo }
  const byPlant = new Map(state.byPlant)
  for (const [key, entries] of state.byPlant) {
    if (isAmong(state.partsAtHand, key)) continue
    const left = entries.filter(({ seq }) => seq > upTo)
    if (left.length === 0) byPlant.delete(key)
    else if (left.length < entries.length) byPlant.set(key, left)
  }
  const all = new Map(state.folds)
  for (const one of folds) all.set(one.part, lazyFold(one))
  return { ...state, byPlant, folds: all, foldedTo: upTo }
}
