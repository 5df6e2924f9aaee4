import type { FrameBody } from '@klados/contract'
import { createSlice } from '@reduxjs/toolkit'
import type { PayloadAction } from '@reduxjs/toolkit'

/** A frame being worked on: what it is based on, what it is now, and the steps back and forth. */
export interface FrameDraft {
  readonly frameId: string
  readonly basedOn: number
  readonly body: FrameBody
  readonly past: readonly FrameBody[]
  readonly future: readonly FrameBody[]
}

const STORAGE_KEY = 'klados.frame-drafts'
const MAX_STEPS = 100

/** Drafts outlive a reload and a server that goes away; a broken or foreign value is as good as none. */
function load(): Record<string, FrameDraft> {
  try {
    const stored = JSON.parse(localStorage.getItem(STORAGE_KEY) ?? '{}') as Record<string, FrameDraft>
    // A draft of an earlier release lacks what designs have gained since; it cannot be worked on.
    return Object.fromEntries(Object.entries(stored).filter(([, { body }]) => body.design.snap !== undefined))
  } catch {
    return {}
  }
}
export function storeDrafts(drafts: Readonly<Record<string, FrameDraft>>): void {
  try {
    localStorage.setItem(STORAGE_KEY, JSON.stringify(drafts))
  } catch {
    // A full or forbidden storage loses the draft on reload, not now.
  }
}

const slice = createSlice({
  name: 'drafts',
  initialState: load,
  reducers: {
    /** `isContinued` joins the change to the last one: a drag or a run of keystrokes is one step back. */
    changed: (
      state,
      {
        payload,
      }: PayloadAction<{
        draft: Pick<FrameDraft, 'frameId' | 'basedOn' | 'body'>
        body: FrameBody
        isContinued: boolean
      }>,
    ) => {
      // prettier-ignore
      const { draft, body, isContinued } = payload
      const old = state[draft.frameId] ?? { ...draft, past: [], future: [] }
      const past = isContinued && old.past.length > 0 ? old.past : [...old.past, old.body].slice(-MAX_STEPS)
      return { ...state, [draft.frameId]: { ...old, body, past, future: [] } }
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
      return draft ? { ...state, [payload.frameId]: { ...draft, basedOn: payload.basedOn } } : state
    },
    /** A save that waited has arrived: a draft that is still what was saved is done, one worked on since goes on from it. */
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
export const { changed, undone, redone, rebased, settled, dropped } = slice.actions
