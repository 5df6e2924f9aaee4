import type { AppendReply, JournalPage, StoredEntry } from '@klados/contract'
import { MAX_ENTRIES } from '@klados/contract/limits'
import { replay, replayFrames } from '@klados/core/journal'
import type { EntryBodies, EntryKind, JournalEntry } from '@klados/core/journal'
import type { CalendarDate } from '@klados/core/season'
import { createSelector, createSlice } from '@reduxjs/toolkit'
import type { Action, PayloadAction, ThunkAction } from '@reduxjs/toolkit'
import { v7 as uuidv7 } from 'uuid'
import { todayHere } from './dates.ts'
import { dropEntries, keepEntries, keptEntries } from './outbox.ts'
import { Refusal, ServerAway, request } from './request.ts'

/** The part of the store that this file reads and writes. */
export interface WithJournal {
  readonly journal: JournalState
}
type JournalThunk<R> = ThunkAction<R, WithJournal, undefined, Action>

interface JournalState {
  readonly gardenId: string | null
  readonly entries: readonly StoredEntry[]
  readonly last: number
  readonly outbox: readonly JournalEntry[]
  readonly status: 'empty' | 'reading' | 'ready' | 'failed'
  /** Why the server refused entries; they are kept until the grower has seen it. */
  readonly refused: { readonly code: string; readonly message: string } | null
}

const initialState: JournalState = {
  gardenId: null,
  entries: [],
  last: 0,
  outbox: [],
  status: 'empty',
  refused: null,
}

const slice = createSlice({
  name: 'journal',
  initialState,
  reducers: {
    opened: (_, action: PayloadAction<{ gardenId: string; outbox: JournalEntry[] }>): JournalState => ({
      ...initialState,
      ...action.payload,
      status: 'reading',
    }),
    received: (state, action: PayloadAction<JournalPage & { isWhole: boolean }>): JournalState => {
      const { entries, last, isWhole } = action.payload
      const stored = new Set(entries.map((entry) => entry.id))
      return {
        ...state,
        entries: [...state.entries, ...entries],
        last,
        outbox: state.outbox.filter((entry) => !stored.has(entry.id)),
        status: isWhole ? 'ready' : state.status,
      }
    },
    failed: (state): JournalState => ({ ...state, status: state.status === 'ready' ? 'ready' : 'failed' }),
    written: (state, action: PayloadAction<readonly JournalEntry[]>): JournalState => ({
      ...state,
      outbox: [...state.outbox, ...action.payload],
    }),
    refused: (
      state,
      action: PayloadAction<{ code: string; message: string; ids: readonly string[] }>,
    ): JournalState => ({
      ...state,
      refused: { code: action.payload.code, message: action.payload.message },
      outbox: state.outbox.filter((entry) => !action.payload.ids.includes(entry.id)),
    }),
    refusalSeen: (state): JournalState => ({ ...state, refused: null }),
  },
})

export const journalReducer = slice.reducer
export const { refusalSeen } = slice.actions

/** Reads the garden's journal from the start, or what is new since the last reading. */
export const openJournal =
  (gardenId: string): JournalThunk<Promise<void>> =>
  async (dispatch, getState) => {
    if (getState().journal.gardenId !== gardenId) {
      dispatch(slice.actions.opened({ gardenId, outbox: await keptEntries(gardenId).catch(() => []) }))
    }
    await dispatch(readOn())
    await dispatch(sendOutbox())
  }

const readOn = (): JournalThunk<Promise<void>> => async (dispatch, getState) => {
  const { gardenId } = getState().journal
  try {
    for (;;) {
      const { last } = getState().journal
      const page = await request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${last}`)
      // Another reading may have come first, or another garden been opened: then this page is old.
      if (getState().journal.gardenId !== gardenId || getState().journal.last !== last) return
      dispatch(slice.actions.received({ ...page, isWhole: page.last === last }))
      if (page.last === last) return
    }
  } catch {
    dispatch(slice.actions.failed())
  }
}

let isSending = false

/** Sends what waits, oldest first. Refused entries leave the queue, or nothing behind them would ever be sent. */
export const sendOutbox = (): JournalThunk<Promise<void>> => async (dispatch, getState) => {
  if (isSending) return
  isSending = true
  try {
    for (;;) {
      const { gardenId, outbox } = getState().journal
      const batch = outbox.slice(0, MAX_ENTRIES)
      if (batch.length === 0 || !gardenId) return
      const ids = batch.map((entry) => entry.id)
      try {
        await request<AppendReply>('POST', `/gardens/${gardenId}/journal`, { entries: batch })
        await dispatch(readOn())
        await dropEntries(ids).catch(() => undefined)
        // The answer was read but the page was not: leave the queue as it is and try again at the next occasion.
        if (getState().journal.outbox.some((entry) => ids.includes(entry.id))) return
      } catch (error) {
        if (
          !(error instanceof Refusal) ||
          error.status >= 500 ||
          error.status === 401 ||
          error.status === 429
        )
          return
        dispatch(slice.actions.refused({ code: error.reply.code, message: error.message, ids }))
        await dropEntries(ids).catch(() => undefined)
      }
    }
  } finally {
    isSending = false
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

/** Writes entries into the journal: seen at once, kept in the outbox until the server has them. Answers their ids. */
export const record =
  (news: readonly NewEntry[]): JournalThunk<string[]> =>
  (dispatch, getState) => {
    const now = new Date()
    const entries = news.map(
      (entry) =>
        ({
          id: uuidv7(),
          placeId: entry.placeId,
          plantId: entry.plantId,
          kind: entry.kind,
          at: entry.at ?? todayHere(now),
          recordedAt: now.toISOString(),
          supersedes: entry.supersedes ?? null,
          body: entry.body,
        }) as JournalEntry,
    )
    const { gardenId } = getState().journal
    if (!gardenId) throw new ServerAway('No garden is open')
    dispatch(slice.actions.written(entries))
    void keepEntries(gardenId, entries)
      .catch(() => undefined)
      .then(() => dispatch(sendOutbox()))
    return entries.map((entry) => entry.id)
  }

const selectStored = (state: WithJournal) => state.journal.entries
const selectOutbox = (state: WithJournal) => state.journal.outbox
export const selectEntries = createSelector(
  [selectStored, selectOutbox],
  (stored, outbox): JournalEntry[] => [...stored, ...outbox],
)
/** Wood and ties as they are now. */
export const selectWoodNow = createSelector([selectEntries], (entries) => replay(entries))

/** What has been built of each frame, and how it is, by frame id. */
export const selectFramesNow = createSelector([selectEntries], (entries) => replayFrames(entries))
