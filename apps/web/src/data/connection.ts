import { createSlice } from '@reduxjs/toolkit'
import type { PayloadAction, ThunkDispatch, UnknownAction } from '@reduxjs/toolkit'
import { openJournal } from './journal.ts'
import type { WithJournal } from './journal.ts'
import { api } from './api.ts'
import type { WithApi } from './api.ts'
import { onReachable, onSignedOut, request } from './request.ts'
import { sendSaves } from './saves.ts'

const slice = createSlice({
  name: 'connection',
  initialState: { isAway: false },
  reducers: { heard: (state, { payload }: PayloadAction<boolean>) => void (state.isAway = !payload) },
})
export const connectionReducer = slice.reducer

interface WatchedStore {
  readonly getState: () => WithJournal & { readonly connection: { readonly isAway: boolean } }
  readonly dispatch: ThunkDispatch<WithApi & WithJournal, undefined, UnknownAction>
}

const ASK_AGAIN_MS = 2000

/** Watches whether the server answers; while it does not, asks now and then, and sends what waits once it is back. */
export function watchConnection(store: WatchedStore): void {
  // The session is asked for anew and found to be nobody's: the door opens, drafts and outbox stay on this machine.
  onSignedOut(() => store.dispatch(api.util.invalidateTags(['Session'])))
  let timer: ReturnType<typeof setTimeout> | undefined
  const ask = () => {
    timer = setTimeout(() => void request('GET', '/health').catch(() => undefined), ASK_AGAIN_MS)
  }
  onReachable((isReachable) => {
    const wasAway = store.getState().connection.isAway
    clearTimeout(timer)
    if (!isReachable) ask()
    if (isReachable === !wasAway) return
    store.dispatch(slice.actions.heard(isReachable))
    if (!isReachable) return
    const { gardenId } = store.getState().journal
    void store.dispatch(sendSaves())
    if (gardenId) void store.dispatch(openJournal(gardenId))
  })
}
