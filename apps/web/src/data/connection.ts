import { createSlice } from '@reduxjs/toolkit'
import type { PayloadAction } from '@reduxjs/toolkit'
import { busyMs, onMet, request } from './request.ts'
import type { Met } from './request.ts'

interface ConnectionState {
  readonly isAway: boolean
  /** The server answers, and has asked for a moment. */
  readonly isBusy: boolean
  /** Since when it has been the one or the other, by this device's clock. */
  readonly since: number | null
  /** The server is of another release than this page. */
  readonly isOld: boolean
}

const slice = createSlice({
  name: 'connection',
  initialState: { isAway: false, isBusy: false, since: null, isOld: false } as ConnectionState,
  reducers: {
    heard: (state, { payload }: PayloadAction<{ met: Met; at: number }>): ConnectionState => ({
      ...state,
      isAway: payload.met === 'away',
      isBusy: payload.met === 'busy',
      since: payload.met === 'reached' ? null : (state.since ?? payload.at),
    }),
    versionHeard: (state, { payload }: PayloadAction<boolean>): ConnectionState => ({
      ...state,
      isOld: !payload,
    }),
  },
})
export const connectionReducer = slice.reducer
export const { versionHeard } = slice.actions

/** Whether the server can be asked just now. */
export const canAsk = ({ connection }: { readonly connection: ConnectionState }): boolean =>
  !connection.isAway && !connection.isBusy

interface WatchedStore {
  readonly getState: () => { readonly connection: ConnectionState }
  readonly dispatch: (action: ReturnType<typeof slice.actions.heard>) => unknown
}

const FIRST_ASK_MS = 1000
const LONGEST_ASK_MS = 30_000

/**
 * Watches whether the server answers; while it does not, or is busy, asks now and then, and calls `onBack` once it
 * answers again.
 */
export function watchConnection(store: WatchedStore, onBack: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  let tries = 0
  const ask = () => {
    clearTimeout(timer)
    // A server that said when to come back is not asked before.
    const wait = Math.max(busyMs(), Math.min(LONGEST_ASK_MS, FIRST_ASK_MS * 2 ** tries))
    timer = setTimeout(() => {
      // Nobody looks: asked again when somebody does. It spares the battery of a phone in a pocket.
      if (document.visibilityState !== 'visible') {
        document.addEventListener('visibilitychange', ask, { once: true })
        return
      }
      // Asked, not merely failed at: whatever else fails meanwhile makes the wait no longer.
      tries++
      void request('GET', '/health').catch(ask)
    }, wait)
  }
  return onMet((met) => {
    const { isAway, isBusy } = store.getState().connection
    const was: Met = isAway ? 'away' : isBusy ? 'busy' : 'reached'
    clearTimeout(timer)
    if (met === 'reached') tries = 0
    else ask()
    if (met === was) return
    store.dispatch(slice.actions.heard({ met, at: Date.now() }))
    if (met === 'reached') onBack()
  })
}
