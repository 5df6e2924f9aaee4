import type { FrameBody } from '@klados/contract'
import { createSlice } from '@reduxjs/toolkit'
import type { PayloadAction } from '@reduxjs/toolkit'

/** A frame being worked on: what it is based on, what it is now, and the steps back and forth. */
export interface FrameDraft {
  readonly frameId: string
  readonly basedOn: number
  readonly body: FrameBody
  /**
   * The revision that it goes on from, where that was brought back and is not the latest: its parts keep its
   * ids.
   */
  readonly basis?: FrameBody
  readonly past: readonly FrameBody[]
  readonly future: readonly FrameBody[]
}

const MAX_STEPS = 100

const slice = createSlice({
  name: 'drafts',
  initialState: {} as Readonly<Record<string, FrameDraft>>,
  reducers: {
    /** The drafts that this account has on this device, in place of all that were there. */
    loaded: (_, { payload }: PayloadAction<Readonly<Record<string, FrameDraft>>>) => payload,
    /** Another window has written the draft of this frame, or is done with it. */
    heard: (state, { payload }: PayloadAction<{ frameId: string; draft: FrameDraft | null }>) => {
      const { [payload.frameId]: _, ...rest } = state
      return payload.draft ? { ...rest, [payload.frameId]: payload.draft } : rest
    },
    /** `isContinued` joins the change to the last one: a drag or a run of keystrokes is one step back. */
    changed: (
      state,
      {
        payload,
      }: PayloadAction<{
        draft: Pick<FrameDraft, 'frameId' | 'basedOn' | 'body'>
        body: FrameBody
        isContinued: boolean
        basis?: FrameBody
      }>,
    ) => {
      const { draft, body, isContinued, basis } = payload
      const old = state[draft.frameId] ?? { ...draft, past: [], future: [] }
      const past = isContinued && old.past.length > 0 ? old.past : [...old.past, old.body].slice(-MAX_STEPS)
      return { ...state, [draft.frameId]: { ...old, ...(basis ? { basis } : {}), body, past, future: [] } }
    },
    undone: (state, { payload }: PayloadAction<string>) => {
      const draft = state[payload]
      const body = draft?.past.at(-1)
      if (!draft || !body) return state
      return {
        ...state,
        [payload]: { ...draft, body, past: draft.past.slice(0, -1), future: [draft.body, ...draft.future] },
      }
    },
    redone: (state, { payload }: PayloadAction<string>) => {
      const draft = state[payload]
      const body = draft?.future[0]
      if (!draft || !body) return state
      return {
        ...state,
        [payload]: { ...draft, body, past: [...draft.past, draft.body], future: draft.future.slice(1) },
      }
    },
    /** The draft goes on from a stored version; its steps stay. */
    rebased: (state, { payload }: PayloadAction<{ frameId: string; basedOn: number }>) => {
      const draft = state[payload.frameId]
      if (!draft) return state
      const { basis: _, ...rest } = draft
      return { ...state, [payload.frameId]: { ...rest, basedOn: payload.basedOn } }
    },
    /**
     * A save that waited has arrived: a draft that is still what was saved is done, one worked on since goes
     * on from it.
     */
    settled: (
      state,
      { payload }: PayloadAction<{ frameId: string; version: number; savedBody: unknown }>,
    ) => {
      const { [payload.frameId]: draft, ...rest } = state
      if (!draft) return state
      if (JSON.stringify(draft.body) === JSON.stringify(payload.savedBody)) return rest
      return { ...state, [payload.frameId]: { ...draft, basedOn: payload.version } }
    },
    dropped: (state, { payload }: PayloadAction<string>) => {
      const { [payload]: _, ...rest } = state
      return rest
    },
  },
})
export const draftsReducer = slice.reducer
export const { loaded, heard, changed, undone, redone, rebased, settled, dropped } = slice.actions
