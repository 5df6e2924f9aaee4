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
import type { Action, ThunkAction } from '@reduxjs/toolkit'
import { api } from './api.ts'
import type { WithApi } from './api.ts'
import type { Reason } from './sync/answers.ts'
import type { SyncDesk } from './sync/desk.ts'
import type { DocumentArea } from './sync/items.ts'

type SavesThunk<R = void> = ThunkAction<R, WithApi, SyncDesk, Action>

interface Kinds {
  places: { body: PlaceBody; document: Place }
  frames: { body: FrameBody; document: FrameDocument }
  plants: { body: PlantBody; document: Plant }
  stores: { body: StoresBody; document: StoresDocument }
}

export type SaveOutcome<D> =
  | { readonly kind: 'saved'; readonly document: D }
  /** Kept here and sent when it can be. */
  | { readonly kind: 'waiting' }
  /** Somebody saved a newer version; this save lies in the tray until it is decided about. */
  | { readonly kind: 'conflict'; readonly current: D }
  | { readonly kind: 'refused'; readonly code: string; readonly message: string }

/** Hands a save in; it is kept on this device before anything else happens to it. */
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
  async (dispatch, _, desk) => {
    const { id, basedOn, body, note = '', isRemoved = false } = document
    const { outcome, reply } = await desk.addSave({
      area,
      gardenId,
      documentId: id,
      basedOn,
      body,
      note,
      isRemoved,
    })
    if (reply?.kind !== 'ours' || outcome === 'waiting') return { kind: 'waiting' }
    if (outcome === 'saved') return { kind: 'saved', document: reply.body as Kinds[A]['document'] }
    const { error } = reply.body as { error: Reason & { current: Kinds[A]['document'] } }
    if (outcome !== 'clashed') return { kind: 'refused', ...error }
    // Theirs is what there is now, whether word of it has come or not.
    dispatch(upsert(area, gardenId, error.current))
    return { kind: 'conflict', current: error.current }
  }

/** Puts a document as the server stored it where the screens look for it. */
export function upsert(area: DocumentArea, gardenId: string, stored: { id: string }): SavesThunk<void> {
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
