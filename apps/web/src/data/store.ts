import { configureStore } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { api } from './api.ts'
import { connectionReducer } from './connection.ts'
import { draftsReducer } from './drafts.ts'
import { journalReducer } from './journal.ts'
import type { Desk } from './desk.ts'
import { syncReducer } from './sync/slice.ts'

/** The desk is where thunks hand in what is to be sent; it may be filled in after the store is made. */
export function createStore(desk: Desk) {
  return configureStore({
    reducer: {
      [api.reducerPath]: api.reducer,
      connection: connectionReducer,
      drafts: draftsReducer,
      journal: journalReducer,
      sync: syncReducer,
    },
    // The journal holds tens of thousands of entries: walking them on every action to look for class
    // instances costs more than it finds.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false, thunk: { extraArgument: desk } }).concat(
        api.middleware,
      ),
  })
}

export type AppStore = ReturnType<typeof createStore>
type RootState = ReturnType<AppStore['getState']>
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>()
export const useAppSelector = useSelector.withTypes<RootState>()
