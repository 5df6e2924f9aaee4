import type { JournalEntry } from '@klados/core/journal'

/** Documents of a garden as the API's addresses call them. */
export type DocumentArea = 'places' | 'frames' | 'plants' | 'stores'

export interface DocumentSave {
  readonly saveId: string
  readonly basedOn: number
  readonly isRemoved: boolean
  readonly note: string
  readonly body: unknown
  /** Absent from what a release of before left, whose bodies are brought up. */
  readonly bodyVersion?: number
}

/**
 * How an item stands. `waiting` is sent at the next occasion. `held` was answered that it cannot be taken
 * yet: sent again now and then. `refused` never will be as it is, and `clashed` met a newer version: both lie
 * in the tray until their writer decides. Nothing but the server's word that it has it, or the writer's that
 * it may go, takes an item away.
 */
export type ItemState =
  | { readonly is: 'waiting' }
  | {
      readonly is: 'held' | 'refused'
      readonly code: string
      readonly message: string
      readonly fields?: readonly { readonly path: string; readonly message: string }[]
    }
  | { readonly is: 'clashed'; readonly version: number; readonly savedBy: string }

interface Common {
  /** Unique among all items: where it lies in the outbox. */
  readonly key: string
  readonly gardenId: string
  /** Whose it is; null for what an earlier release left, which did not say. */
  readonly accountId: string | null
  readonly accountName: string
  readonly state: ItemState
}
export interface EntryItem extends Common {
  readonly kind: 'entry'
  readonly entry: JournalEntry
}
export interface DocumentItem extends Common {
  readonly kind: 'document'
  readonly area: DocumentArea
  readonly documentId: string
  /**
   * The first may have been sent already, its answer lost; what was saved since then is behind it. Never
   * empty.
   */
  readonly saves: readonly [DocumentSave, DocumentSave?]
  readonly isTried: boolean
}
export interface PhotoItem extends Common {
  readonly kind: 'photo'
  readonly fileId: string
  readonly content: Blob
}
export type Item = EntryItem | DocumentItem | PhotoItem

export const WAITING: ItemState = { is: 'waiting' }
export const entryKey = (entryId: string) => `entry ${entryId}`
/** Of each account its own: what one has unsent is not mixed into what another saves of the same document. */
export const documentKey = (documentId: string, accountId: string | null) =>
  `document ${documentId} ${accountId ?? ''}`
export const photoKey = (fileId: string) => `photo ${fileId}`
/**
 * A save that was refused or met a newer version makes way for later ones of the same document, and keeps its
 * own place.
 */
export const asideKey = (saveId: string) => `aside ${saveId}`

export const isInTray = ({ state }: Item) => state.is !== 'waiting'
export const lastSave = ({ saves }: DocumentItem): DocumentSave => saves[1] ?? saves[0]
