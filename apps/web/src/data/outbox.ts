import type { JournalEntry } from '@klados/core/journal'
import { openDB } from 'idb'
import type { DBSchema } from 'idb'

interface Kept extends DBSchema {
  /** Entries not yet acknowledged, in the order of their ids, which is the order of writing. */
  entries: { key: string; value: { readonly gardenId: string; readonly entry: JournalEntry } }
  /** Saves of documents not yet acknowledged, one for each document. */
  saves: { key: string; value: WaitingSave }
}

export interface WaitingSave {
  readonly documentId: string
  readonly path: string
  readonly save: { readonly saveId: string; readonly basedOn: number; readonly isRemoved: boolean; readonly note: string; readonly body: unknown } // prettier-ignore
}

const database = () =>
  openDB<Kept>('klados-outbox', 1, {
    upgrade(db) {
      db.createObjectStore('entries')
      db.createObjectStore('saves')
    },
  })

export async function keepEntries(gardenId: string, entries: readonly JournalEntry[]): Promise<void> {
  const transaction = (await database()).transaction('entries', 'readwrite')
  for (const entry of entries) await transaction.store.put({ gardenId, entry }, entry.id)
  await transaction.done
}

export async function dropEntries(ids: readonly string[]): Promise<void> {
  const transaction = (await database()).transaction('entries', 'readwrite')
  for (const id of ids) await transaction.store.delete(id)
  await transaction.done
}

export async function keptEntries(gardenId: string): Promise<JournalEntry[]> {
  const all = await (await database()).getAll('entries')
  return all.filter((kept) => kept.gardenId === gardenId).map((kept) => kept.entry)
}

export async function keepSave(save: WaitingSave): Promise<void> {
  await (await database()).put('saves', save, save.documentId)
}

export async function dropSave(documentId: string): Promise<void> {
  await (await database()).delete('saves', documentId)
}

export async function keptSaves(): Promise<WaitingSave[]> {
  return (await database()).getAll('saves')
}
