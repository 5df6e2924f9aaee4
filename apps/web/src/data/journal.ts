import type { JournalPage, StoredEntry } from '@klados/contract'
import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import type { CalendarDate } from '@klados/core/season'
import { createSelector, createSlice } from '@reduxjs/toolkit'
import type { Action, PayloadAction, ThunkAction } from '@reduxjs/toolkit'
import { todayHere } from './dates.ts'
import { request } from './request.ts'
import { selectUnsentEntries } from './sync/slice.ts'
import type { WithSync } from './sync/slice.ts'
import type { Desk } from './desk.ts'

/** The part of the store that this file reads and writes. */
export interface WithJournal extends WithSync {
  readonly journal: JournalState
}
type JournalThunk<R> = ThunkAction<R, WithJournal, Desk, Action>

interface JournalState {
  readonly gardenId: string | null
  readonly entries: readonly StoredEntry[]
  readonly last: number
  /** Written here and taken by the server, and not read back from it yet. */
  readonly acknowledged: readonly JournalEntry[]
  readonly status: 'empty' | 'reading' | 'ready' | 'failed'
}

const initialState: JournalState = { gardenId: null, entries: [], last: 0, acknowledged: [], status: 'empty' }

const slice = createSlice({
  name: 'journal',
  initialState,
  reducers: {
    opened: (_, { payload }: PayloadAction<string>): JournalState => ({
      ...initialState,
      gardenId: payload,
      status: 'reading',
    }),
    received: (
      state,
      action: PayloadAction<Omit<JournalPage, 'head'> & { isWhole: boolean }>,
    ): JournalState => {
      const { entries, last, isWhole } = action.payload
      const stored = new Set(entries.map((entry) => entry.id))
      return {
        ...state,
        entries: [...state.entries, ...entries],
        last,
        acknowledged: state.acknowledged.filter((entry) => !stored.has(entry.id)),
        status: isWhole ? 'ready' : state.status,
      }
    },
    failed: (state): JournalState => ({ ...state, status: state.status === 'ready' ? 'ready' : 'failed' }),
    acknowledged: (state, { payload }: PayloadAction<readonly JournalEntry[]>): JournalState => ({
      ...state,
      acknowledged: [...state.acknowledged, ...payload],
    }),
  },
})

export const journalReducer = slice.reducer
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

const selectStored = (state: WithJournal) => state.journal.entries
const selectAcknowledged = (state: WithJournal) => state.journal.acknowledged
const selectUnsentHere = (state: WithJournal) => selectUnsentEntries(state, state.journal.gardenId)
/**
 * What is stored, and what was written here and is on its way; one that is both counts once wherever they are
 * replayed.
 */
export const selectEntries = createSelector(
  [selectStored, selectAcknowledged, selectUnsentHere],
  (stored, taken, unsent): JournalEntry[] => [...stored, ...taken, ...unsent],
)
