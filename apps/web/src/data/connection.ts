import { createSlice } from '@reduxjs/toolkit'
import type { PayloadAction } from '@reduxjs/toolkit'
import { onReachable, request } from './request.ts'

const slice = createSlice({
  name: 'connection',
  initialState: { isAway: false, isOld: false },
  reducers: {
    heard: (state, { payload }: PayloadAction<boolean>) => void (state.isAway = !payload),
    /** The server is of another release than this page. */
    versionHeard: (state, { payload }: PayloadAction<boolean>) => void (state.isOld = !payload),
  },
})
export const connectionReducer = slice.reducer
export const { versionHeard } = slice.actions

interface WatchedStore {
  readonly getState: () => { readonly connection: { readonly isAway: boolean } }
  readonly dispatch: (action: ReturnType<typeof slice.actions.heard>) => unknown
}

const FIRST_ASK_MS = 1000
const LONGEST_ASK_MS = 30_000

/**
 * Watches whether the server answers; while it does not, asks now and then, and calls `onBack` once it is
 * back.
 */
export function watchConnection(store: WatchedStore, onBack: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  let tries = 0
  const ask = () => {
    clearTimeout(timer)
    const wait = Math.min(LONGEST_ASK_MS, FIRST_ASK_MS * 2 ** tries)
    timer = setTimeout(() => {
      // Nobody looks: asked again when somebody does. It spares the battery of a phone in a pocket.
      if (document.visibilityState !== 'visible') {
        document.addEventListener('visibilitychange', ask, { once: true })
        return
      }
      // Asked, not merely failed at: whatever else fails meanwhile makes the wait no longer.
      tries++
      void request('GET', '/health').catch(() => undefined)
    }, wait)
  }
  return onReachable((isReachable) => {
    const wasAway = store.getState().connection.isAway
    clearTimeout(timer)
    if (!isReachable) ask()
    else tries = 0
    if (isReachable === !wasAway) return
    store.dispatch(slice.actions.heard(isReachable))
    if (isReachable) onBack()
  })
}
