import type { StoredEntry } from '@klados/contract'
import type { DBSchema } from 'idb'
import { keptDatabase } from '../kept-database.ts'

/** An answer of the server as it was last heard, by what was asked. */
interface Answer {
  readonly gardenId: string | null
  readonly data: unknown
}

interface Copied extends DBSchema {
  /** By account and path. */
  answers: { key: [accountId: string, path: string]; value: Answer }
  /** By account, garden and the entry's number there. */
  entries: { key: [accountId: string, gardenId: string, seq: number]; value: StoredEntry }
}

/** What this device keeps of what its people have seen, so that it opens without the server and at once with it. */
export interface CopyStore {
  readonly answers: (accountId: string, paths: readonly string[]) => Promise<readonly unknown[]>
  readonly keepAnswer: (
    accountId: string,
    path: string,
    gardenId: string | null,
    data: unknown,
  ) => Promise<void>
  /** The journal as far as it is here, in its order. */
  readonly entries: (accountId: string, gardenId: string) => Promise<StoredEntry[]>
  /** Entries that follow on `after`; where the copy does not end there they are not kept, so that it has no gaps. */
  readonly keepEntries: (
    accountId: string,
    gardenId: string,
    after: number,
    entries: readonly StoredEntry[],
  ) => Promise<void>
  readonly dropGarden: (accountId: string, gardenId: string) => Promise<void>
  /** All that was kept for one account, or for all of them. */
  readonly dropAccount: (accountId: string | null) => Promise<void>
}

const DATABASE = 'klados-copy'
/** Greater than any key of a string or a number in its place. */
const LAST: readonly never[] = []

const ofGarden = (accountId: string, gardenId: string) =>
  IDBKeyRange.bound([accountId, gardenId], [accountId, gardenId, LAST])
const ofAccount = (accountId: string) => IDBKeyRange.bound([accountId], [accountId, LAST])

export function createCopyStore(name = DATABASE): CopyStore {
  const database = keptDatabase<Copied>(name, 1, (db) => {
    db.createObjectStore('answers')
    db.createObjectStore('entries')
  })
  return {
    answers: async (accountId, paths) => {
      const store = (await database()).transaction('answers').store
      const found = await Promise.all(paths.map((path) => store.get([accountId, path])))
      return found.map((answer) => answer?.data)
    },
    keepAnswer: async (accountId, path, gardenId, data) => {
      await (await database()).put('answers', { gardenId, data }, [accountId, path])
    },
    entries: async (accountId, gardenId) =>
      (await database()).getAll('entries', ofGarden(accountId, gardenId)),
    keepEntries: async (accountId, gardenId, after, entries) => {
      const transaction = (await database()).transaction('entries', 'readwrite')
      const last = await transaction.store.openKeyCursor(ofGarden(accountId, gardenId), 'prev')
      const follows = (last ? last.key[2] : 0) === after
      if (follows)
        await Promise.all(
          entries.map((entry) => transaction.store.put(entry, [accountId, gardenId, entry.seq])),
        )
      await transaction.done
    },
    dropGarden: async (accountId, gardenId) => {
      const transaction = (await database()).transaction(['answers', 'entries'], 'readwrite')
      await transaction.objectStore('entries').delete(ofGarden(accountId, gardenId))
      const answers = transaction.objectStore('answers')
      for (let at = await answers.openCursor(ofAccount(accountId)); at; at = await at.continue())
        if (at.value.gardenId === gardenId) await at.delete()
      await transaction.done
    },
    dropAccount: async (accountId) => {
      const transaction = (await database()).transaction(['answers', 'entries'], 'readwrite')
      for (const store of ['answers', 'entries'] as const) {
        if (accountId === null) await transaction.objectStore(store).clear()
        else await transaction.objectStore(store).delete(ofAccount(accountId))
      }
      await transaction.done
    },
  }
}

/** The one of this device. */
export const copyStore: CopyStore = createCopyStore()
