import { createSelector, createSlice } from '@reduxjs/toolkit'
import type { PayloadAction } from '@reduxjs/toolkit'
import { isInTray } from './items.ts'
import type { DocumentArea, DocumentItem, Item, ItemState } from './items.ts'

/** `Lanes` with instants of this device's clock in place of waits. */
export interface LanesHere {
  readonly againAt: number | null
  readonly photos: Readonly<Record<string, { readonly sentBytes: number; readonly againAt: number | null }>>
}
const NO_LANES: LanesHere = { againAt: null, photos: {} }

interface SyncState {
  /** Who writes here now: what others left on this device is theirs to see. */
  readonly accountId: string | null
  /** What the outbox holds, as this window last saw it. */
  readonly items: readonly Item[]
  /** False once the device would not keep something: what is written then lasts as long as this window. */
  readonly isKept: boolean
  /** How many things of the outbox are in this window alone. */
  readonly unkept: number
  /** How the sending stands. */
  readonly lanes: LanesHere
  /** How far this device's clock is ahead of the server's. */
  readonly skewMs: number
  /** By document: the latest version that was made by a save from this window. */
  readonly ownVersions: Readonly<Record<string, number>>
}

const slice = createSlice({
  name: 'sync',
  initialState: {
    accountId: null,
    items: [],
    isKept: true,
    unkept: 0,
    lanes: NO_LANES,
    skewMs: 0,
    ownVersions: {},
  } as SyncState,
  reducers: {
    writerChanged: (state, { payload }: PayloadAction<string | null>): SyncState => ({
      ...state,
      accountId: payload,
    }),
    seen: (state, { payload }: PayloadAction<readonly Item[]>): SyncState => ({ ...state, items: payload }),
    saved: (state, { payload }: PayloadAction<{ id: string; version: number }>): SyncState => ({
      ...state,
      ownVersions: { ...state.ownVersions, [payload.id]: payload.version },
    }),
    storageTold: (state, { payload }: PayloadAction<number>): SyncState =>
      state.unkept === payload ? state : { ...state, unkept: payload, isKept: state.isKept && payload === 0 },
    storageFailed: (state): SyncState => ({ ...state, isKept: false }),
    lanesTold: (state, { payload }: PayloadAction<LanesHere>): SyncState => ({ ...state, lanes: payload }),
    skewed: (state, { payload }: PayloadAction<number>): SyncState =>
      state.skewMs === payload ? state : { ...state, skewMs: payload },
  },
})
export const syncReducer = slice.reducer
export const { writerChanged, seen, saved, storageFailed, storageTold, lanesTold, skewed } = slice.actions

export interface WithSync {
  readonly sync: SyncState
}

const isSameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((one, i) => one === b[i])

const selectAll = (state: WithSync) => state.sync.items
const selectAccount = (state: WithSync) => state.sync.accountId
/** What the outbox holds of whoever is signed in. */
export const selectItems = createSelector([selectAll, selectAccount], (items, accountId) =>
  items.filter((item) => item.accountId === accountId),
)
/** What others have left on this device, to be sent when they sign in. */
export const selectOfOthers = createSelector([selectAll, selectAccount], (items, accountId) =>
  items.filter((item) => item.accountId !== accountId),
)
/** Entries that were written here and are not refused, by garden; they are part of what is shown. */
export const selectUnsentEntries = createSelector(
  [selectItems, (_: WithSync, gardenId: string | null) => gardenId],
  (items, gardenId) =>
    items.flatMap((item) =>
      item.kind === 'entry' && item.gardenId === gardenId && item.state.is !== 'refused' ? [item.entry] : [],
    ),
)
/** What waits for its writer's word. */
export const selectTray = createSelector([selectItems], (items) => items.filter(isInTray))
type ClashedItem = DocumentItem & { readonly state: Extract<ItemState, { readonly is: 'clashed' }> }
/** A save of a document that met a newer version: it lies in the tray until one of the two is chosen. */
export const selectClash = (state: WithSync, documentId: string): ClashedItem | undefined =>
  selectTray(state).find(
    (item): item is ClashedItem =>
      item.kind === 'document' && item.documentId === documentId && item.state.is === 'clashed',
  )
/** Saves under way of the documents of one area. */
export const selectUnsentDocuments = createSelector(
  [
    selectItems,
    (_: WithSync, area: DocumentArea) => area,
    (_: WithSync, __: DocumentArea, gardenId: string) => gardenId,
  ],
  (items, area, gardenId) =>
    items.filter(
      (item): item is DocumentItem =>
        item.kind === 'document' &&
        item.area === area &&
        item.gardenId === gardenId &&
        (item.state.is === 'waiting' || item.state.is === 'held'),
    ),
  // With every tap the outbox is another; what waits of the documents mostly is not.
  { memoizeOptions: { resultEqualityCheck: isSameList } },
)
