import type { Standing, StoredEntry } from '@klados/contract'
import type { FoldedUp, KeptJournal, PlaceHistory } from './copy/copy-store.ts'
import type { SyncDesk } from './sync/desk.ts'

/** The journal as this device keeps it, for whoever was signed in here last; `null` where it keeps nothing. */
export interface JournalCopy {
  readonly open: (gardenId: string) => Promise<KeptJournal | null>
  readonly keep: (gardenId: string, after: number, entries: readonly StoredEntry[]) => Promise<void>
  /** `null` too where not all that was written up to a number lies here, as of parts. */
  readonly place: (gardenId: string, placeId: string, upTo: number) => Promise<PlaceHistory | null>
  readonly parts: (
    gardenId: string,
    parts: readonly string[],
    upTo: number,
  ) => Promise<ReadonlyMap<string, readonly StoredEntry[]> | null>
  /** Folds what has gained entries, in a thread of its own; `null` too while the history is still to come. */
  readonly foldUp: (gardenId: string) => Promise<FoldedUp | null>
  /** Keeps what a garden was begun with, where it was, and brings its history onto this device, past this window. */
  readonly fill: (gardenId: string, standing: Standing | null) => Promise<void>
  readonly drop: (gardenId: string) => Promise<void>
}

/** What thunks find beside the store; filled in when the first garden is opened. */
export interface Desk extends SyncDesk {
  readonly copy: JournalCopy
}
