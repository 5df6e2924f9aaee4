import type { JournalPage, StoredEntry } from '@klados/contract'
import { readStanding } from '@klados/contract/standing'
import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import { grouped, lazyFold, subjectOf } from '@klados/core/part-fold'
import type { LazyFold } from '@klados/core/part-fold'
import type { CalendarDate } from '@klados/core/season'
import { createAction } from '@reduxjs/toolkit'
import type { Action, Reducer, ThunkAction } from '@reduxjs/toolkit'
import type { FoldedUp, KeptJournal } from './copy/copy-store.ts'
import { FOLD_RULES } from './copy/fold-rules.ts'
import { todayHere } from './dates.ts'
import { standingPath } from './early.ts'
import { placeKey, plantKey, withAdded } from './parts.ts'
import type { Parts } from './parts.ts'
import { request } from './request.ts'
import { greatestId } from './sync/clock.ts'
import type { WithSync } from './sync/slice.ts'
import type { Desk } from './desk.ts'

/** The part of the store that this file reads and writes. */
export interface WithJournal extends WithSync {
  readonly journal: JournalState
}
type JournalThunk<R> = ThunkAction<R, WithJournal, Desk, Action>

/** Everything, or those that are named. */
export type Some = 'all' | ReadonlySet<string>
export const isAmong = (some: Some, one: string): boolean => some === 'all' || some.has(one)
const withMore = (some: Some, more: Iterable<string>): Some =>
  some === 'all' ? some : new Set([...some, ...more])
const NOTHING: ReadonlySet<string> = new Set()

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
export const begun = createAction<KeptJournal>('journal/begun')
export const received = createAction<Omit<JournalPage, 'head'> & { isWhole: boolean }>('journal/received')
/** All entries of some parts, and of a place where it was one that was asked for. */
export const brought = createAction<{
  parts: Parts<StoredEntry>
  place?: { id: string; entries: readonly StoredEntry[] }
}>('journal/brought')
const notBrought = createAction<string>('journal/notBrought')
/** Folds that go further than those that are here. */
export const foldedUp = createAction<FoldedUp>('journal/foldedUp')
const failed = createAction('journal/failed')
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

function begin(state: JournalState, { last, foldedTo, folds, entries }: KeptJournal): JournalState {
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
  return {
    ...state,
    byPlant,
    partsAtHand,
    byPlace: new Map(state.byPlace).set(place.id, merged(place.entries, sorted)),
    placesAtHand: withMore(state.placesAtHand, [place.id]),
    placesAway: new Set([...state.placesAway].filter((id) => id !== place.id)),
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

/** Reads the garden's journal from the start, or what is new since the last reading. */
export const openJournal =
  (gardenId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { copy }) => {
    if (getState().journal.gardenId !== gardenId) {
      dispatch(opened(gardenId))
      const kept = await copy.open(gardenId)
      const { journal } = getState()
      // What this device has opens at once; the server is asked for what is after it.
      if (kept && kept.last > 0 && journal.gardenId === gardenId && journal.last === 0) {
        dispatch(begun(kept))
        if (!kept.isWhole) void copy.fill(gardenId, null)
      }
    }
    await dispatch(readOn())
  }

/** Reads what the journal has gained. */
export const readOn =
  (): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { clock, copy }) => {
    const { gardenId } = getState().journal
    if (gardenId === null) return
    try {
      for (;;) {
        if (getState().journal.last === 0) await dispatch(beginStanding(gardenId))
        const { last } = getState().journal
        const page = await readAfter(gardenId, last)
        // Another reading may have come first, or another garden been opened: then this page is old.
        if (getState().journal.gardenId !== gardenId || getState().journal.last !== last) return
        if (page.head < last) {
          // The server was set back to an earlier day: what this device has beyond that is of another history.
          await copy.drop(gardenId)
          dispatch(opened(gardenId))
          continue
        }
        const greatest = greatestId(page.entries.map(({ id }) => id))
        if (greatest !== null) clock.see(greatest)
        void copy.keep(gardenId, last, page.entries)
        dispatch(received({ ...page, isWhole: page.last === last }))
        if (page.last === last) return
      }
    } catch {
      dispatch(failed())
    }
  }

const readAfter = (gardenId: string, last: number) =>
  request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${last}`)

/** A long journal is begun from what it came to; what it came from is read when somebody asks for it, and quietly. */
const beginStanding =
  (gardenId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { clock, copy }) => {
    // Whatever keeps the server from folding, of the release before or short of memory: its journal it reads out all the
    // same, and whether it is there at all shows then.
    const standing = await request<string>('GET', standingPath(gardenId))
      .then(readStanding)
      .catch(() => null)
    if (!standing || standing.upTo === 0 || standing.rules !== FOLD_RULES) return
    if (getState().journal.gardenId !== gardenId || getState().journal.last !== 0) return
    const { upTo, greatestId: greatest, folds } = standing
    if (greatest !== null) clock.see(greatest)
    dispatch(begun({ last: upTo, isWhole: false, foldedTo: upTo, folds, entries: [] }))
    void copy.fill(gardenId, standing)
  }

/** All entries that the server has of something. */
async function readOf(gardenId: string, what: string): Promise<readonly StoredEntry[]> {
  const pages: (readonly StoredEntry[])[] = []
  for (let after = 0; ;) {
    const page = await request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${after}&${what}`)
    if (page.entries.length === 0) return pages.flat()
    pages.push(page.entries)
    after = page.last
  }
}

/** Has all entries of a place brought here, and of every plant that stood there: from this device, else from the server. */
export const bringPlace =
  (placeId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { copy }) => {
    const { gardenId, foldedTo } = getState().journal
    if (gardenId === null) return
    const read = async () => {
      const all = await readOf(gardenId, `place=${placeId}`)
      return { entries: all.filter((entry) => entry.placeId === placeId), parts: grouped(all, plantKey) }
    }
    const history = (await copy.place(gardenId, placeId, foldedTo)) ?? (await read().catch(() => null))
    if (getState().journal.gardenId !== gardenId) return
    if (!history) dispatch(notBrought(placeId))
    else dispatch(brought({ parts: history.parts, place: { id: placeId, entries: history.entries } }))
  }

/**
 * Has all entries of some parts brought here: their folds alone do not tell what was written since. Till they are here
 * the parts stay as they were.
 */
export const bringParts =
  (parts: readonly string[]): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { copy }) => {
    const { gardenId, foldedTo } = getState().journal
    if (gardenId === null) return
    const read = async () => {
      const lists = await Promise.all(parts.map((part) => readOf(gardenId, `of=${subjectOf(part)}`)))
      return new Map(parts.map((part, i) => [part, lists[i]!]))
    }
    const entries = (await copy.parts(gardenId, parts, foldedTo)) ?? (await read().catch(() => null))
    if (entries && getState().journal.gardenId === gardenId) dispatch(brought({ parts: entries }))
  }

/** All entries of a kind that the server has; none where it does not answer. */
export const readKind =
  (kind: EntryKind): JournalThunk<Promise<readonly StoredEntry[]>> =>
  async (_, getState) => {
    const { gardenId } = getState().journal
    return gardenId === null ? [] : readOf(gardenId, `kind=${kind}`).catch(() => [])
  }

/** Folds on this device what has been read since the last time; tells whether it could. */
export const foldOn =
  (): JournalThunk<Promise<boolean>> =>
  async (dispatch, getState, { copy }) => {
    const { gardenId } = getState().journal
    const done = gardenId === null ? null : await copy.foldUp(gardenId)
    if (done && getState().journal.gardenId === gardenId) dispatch(foldedUp(done))
    return done !== null
  }

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
