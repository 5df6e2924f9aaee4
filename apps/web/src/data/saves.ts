import type {
  FrameBody,
  FrameDocument,
  Place,
  PlaceBody,
  Plant,
  PlantBody,
  StoresBody,
  StoresDocument,
} from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { createSlice } from '@reduxjs/toolkit'
import type { Action, PayloadAction, ThunkAction } from '@reduxjs/toolkit'
import { api } from './api.ts'
import type { WithApi } from './api.ts'
import { settled } from './drafts.ts'
import { dropSave, keepSave, keptSaves } from './outbox.ts'
import type { WaitingSave } from './outbox.ts'
import { Refusal, ServerAway, request } from './request.ts'

type SavesThunk<R = void> = ThunkAction<R, WithApi, undefined, Action>

interface Kinds {
  places: { body: PlaceBody; document: Place }
  frames: { body: FrameBody; document: FrameDocument }
  plants: { body: PlantBody; document: Plant }
  stores: { body: StoresBody; document: StoresDocument }
}
export type DocumentArea = keyof Kinds

export type SaveOutcome<D> =
  | { readonly kind: 'saved'; readonly document: D }
  /** Kept here and sent when the server is back. */
  | { readonly kind: 'waiting' }
  | { readonly kind: 'conflict'; readonly current: D }
  | { readonly kind: 'refused'; readonly code: string; readonly message: string }

interface SavesState {
  /** Documents whose last save has not reached the server. */
  readonly waiting: Readonly<Record<string, true>>
  /** A waiting save that met a newer version when it was sent at last. */
  readonly clashed: Readonly<Record<string, true>>
}
const slice = createSlice({
  name: 'saves',
  initialState: { waiting: {}, clashed: {} } as SavesState,
  reducers: {
    waits: (state, { payload }: PayloadAction<string>) => void (state.waiting[payload] = true),
    arrived: (state, { payload }: PayloadAction<string>) => {
      const { [payload]: _, ...waiting } = state.waiting
      const { [payload]: __, ...clashed } = state.clashed
      return { waiting, clashed }
    },
    clashed: (state, { payload }: PayloadAction<string>) => {
      const { [payload]: _, ...waiting } = state.waiting
      return { waiting, clashed: { ...state.clashed, [payload]: true } }
    },
  },
})
export const savesReducer = slice.reducer

export const saveDocument =
  <A extends DocumentArea>(
    area: A,
    gardenId: string,
    document: {
      id: string
      basedOn: number
      body: Kinds[A]['body']
      note?: string
      isRemoved?: boolean
    },
  ): SavesThunk<Promise<SaveOutcome<Kinds[A]['document']>>> =>
  async (dispatch) => {
    const waiting: WaitingSave = {
      documentId: document.id,
      path: `/gardens/${gardenId}/${area}/${document.id}`,
      save: {
        saveId: uuidv7(),
        basedOn: document.basedOn,
        isRemoved: document.isRemoved ?? false,
        note: document.note ?? '',
        body: document.body,
      },
    }
    try {
      const stored = await request<Kinds[A]['document']>('PUT', waiting.path, waiting.save)
      dispatch(upsert(area, gardenId, stored))
      dispatch(slice.actions.arrived(document.id))
      return { kind: 'saved', document: stored }
    } catch (error) {
      if (error instanceof ServerAway) {
        await keepSave(waiting).catch(() => undefined)
        dispatch(slice.actions.waits(document.id))
        return { kind: 'waiting' }
      }
      if (error instanceof Refusal && error.reply.code === 'document/version-conflict') {
        return { kind: 'conflict', current: error.reply.current as Kinds[A]['document'] }
      }
      if (error instanceof Refusal) return { kind: 'refused', ...error.reply }
      throw error
    }
  }

/** Sends the saves that wait, each as it was made. */
export const sendSaves = (): SavesThunk<Promise<void>> => async (dispatch) => {
  for (const waiting of await keptSaves().catch(() => [])) {
    try {
      const { version } = await request<{ version: number }>('PUT', waiting.path, waiting.save)
      dispatch(slice.actions.arrived(waiting.documentId))
      dispatch(settled({ frameId: waiting.documentId, version, savedBody: waiting.save.body }))
    } catch (error) {
      if (error instanceof ServerAway) return
      // Whatever the server says no to will not be taken later either; the draft itself is still on this machine.
      dispatch(slice.actions.clashed(waiting.documentId))
    }
    await dropSave(waiting.documentId).catch(() => undefined)
  }
  dispatch(api.util.invalidateTags(['Place', 'Frame', 'Plant', 'Stores']))
}

function upsert<A extends DocumentArea>(
  area: A,
  gardenId: string,
  stored: Kinds[A]['document'],
): SavesThunk<void> {
  return (dispatch) => {
    const put = (list: { id: string }[]) => {
      const at = list.findIndex((one) => one.id === stored.id)
      if (at < 0) list.push(stored)
      else list[at] = stored
    }
    dispatch(api.util.updateQueryData(area as 'places', gardenId, put as (list: Place[]) => void))
    if (area === 'frames') dispatch(api.util.invalidateTags(['Frame']))
  }
}

/** Asks anew for frames after somebody else's version was chosen. */
export const refetchFrames = (): SavesThunk => (dispatch) => {
  dispatch(api.util.invalidateTags(['Frame']))
}
