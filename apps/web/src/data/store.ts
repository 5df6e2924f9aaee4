import { configureStore } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { api } from './api.ts'
import { connectionReducer } from './connection.ts'
import { draftsReducer } from './drafts.ts'
import { journalReducer } from './journal.ts'
import { savesReducer } from './saves.ts'

export function createStore() {
  return configureStore({
    reducer: {
      [api.reducerPath]: api.reducer,
      connection: connectionReducer,
      drafts: draftsReducer,
      journal: journalReducer,
      saves: savesReducer,
    },
    // The journal holds tens of thousands of entries: walking them on every action to look for class instances costs more than it finds.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
  })
}

type AppStore = ReturnType<typeof createStore>
type RootState = ReturnType<AppStore['getState']>
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>()
export const useAppSelector = useSelector.withTypes<RootState>()
