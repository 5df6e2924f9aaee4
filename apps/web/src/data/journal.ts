import type { JournalPage } from '@klados/contract'
import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import type { CalendarDate } from '@klados/core/season'
import { createSlice, original } from '@reduxjs/toolkit'
import type { Action, PayloadAction, Reducer, ThunkAction } from '@reduxjs/toolkit'
import { todayHere } from './dates.ts'
import { placeKey, plantKey, withAdded } from './parts.ts'
import type { Parts } from './parts.ts'
import { request } from './request.ts'
import type { WithSync } from './sync/slice.ts'
import type { Desk } from './desk.ts'

/** The part of the store that this file reads and writes. */
export interface WithJournal extends WithSync {
  readonly journal: JournalState
}
type JournalThunk<R> = ThunkAction<R, WithJournal, Desk, Action>

interface JournalState {
  readonly gardenId: string | null
  /** What the server has, by plant and by place. */
  readonly byPlant: Parts
  readonly byPlace: Parts
  readonly last: number
  /** Written here and taken by the server, and not read back from it yet. */
  readonly acknowledged: readonly JournalEntry[]
  readonly status: 'empty' | 'reading' | 'ready' | 'failed'
}

const initialState: JournalState = {
  gardenId: null,
  byPlant: new Map(),
  byPlace: new Map(),
  last: 0,
  acknowledged: [],
  status: 'empty',
}

/** The state itself: what it holds is never changed in place, and is more than a draft of it should be made of. */
const plain = (state: unknown): JournalState => original(state) as JournalState

const slice = createSlice({
  name: 'journal',
  initialState: initialState as unknown,
  reducers: {
    opened: (_, { payload }: PayloadAction<string>) => ({
      ...initialState,
      gardenId: payload,
      status: 'reading',
    }),
    received: (draft, action: PayloadAction<Omit<JournalPage, 'head'> & { isWhole: boolean }>) => {
      const state = plain(draft)
      const { entries, last, isWhole } = action.payload
      const stored = new Set(entries.map((entry) => entry.id))
      return {
        ...state,
        byPlant: withAdded(state.byPlant, entries, plantKey),
        byPlace: withAdded(state.byPlace, entries, placeKey),
        last,
        acknowledged: state.acknowledged.filter((entry) => !stored.has(entry.id)),
        status: isWhole ? 'ready' : state.status,
      }
    },
    failed: (draft) => {
      const state = plain(draft)
      return { ...state, status: state.status === 'ready' ? 'ready' : 'failed' }
    },
    acknowledged: (draft, { payload }: PayloadAction<readonly JournalEntry[]>) => {
      const state = plain(draft)
      return { ...state, acknowledged: [...state.acknowledged, ...payload] }
    },
  },
})

export const journalReducer = slice.reducer as Reducer<JournalState>
export const { acknowledged } = slice.actions

/** Reads the garden's journal from the start, or what is new since the last reading. */
export const openJournal =
  (gardenId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState, { copy }) => {
    if (getState().journal.gardenId !== gardenId) {
      dispatch(slice.actions.opened(gardenId))
      const entries = await copy.entries(gardenId)
      const { journal } = getState()
      const last = entries.at(-1)?.seq
      // What this device has opens at once; the server is asked for what is after it.
      if (journal.gardenId === gardenId && journal.last === 0 && last !== undefined)
        dispatch(slice.actions.received({ entries, last, isWhole: true }))
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
        const { last } = getState().journal
        const page = await request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${last}`)
        // Another reading may have come first, or another garden been opened: then this page is old.
        if (getState().journal.gardenId !== gardenId || getState().journal.last !== last) return
        if (page.head < last) {
          // The server was set back to an earlier day: what this device has beyond that is of another history.
          await copy.drop(gardenId)
          dispatch(slice.actions.opened(gardenId))
          continue
        }
        for (const { id } of page.entries) clock.see(id)
        void copy.keep(gardenId, last, page.entries)
        dispatch(slice.actions.received({ ...page, isWhole: page.last === last }))
        if (page.last === last) return
      }
    } catch {
      dispatch(slice.actions.failed())
    }
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
