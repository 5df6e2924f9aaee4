import type { StoredEntry } from '@klados/contract'
import type { SyncDesk } from './sync/desk.ts'

/** The journal as this device keeps it, for whoever was signed in here last. */
export interface JournalCopy {
  readonly entries: (gardenId: string) => Promise<StoredEntry[]>
  readonly keep: (gardenId: string, after: number, entries: readonly StoredEntry[]) => Promise<void>
  readonly drop: (gardenId: string) => Promise<void>
}

/** What thunks find beside the store; filled in when the first garden is opened. */
export interface Desk extends SyncDesk {
  readonly copy: JournalCopy
}
