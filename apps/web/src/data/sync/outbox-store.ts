import type { JournalEntry } from '@klados/core/journal'
import { openDB } from 'idb'
import type { DBSchema } from 'idb'
import { keptDatabase } from '../kept-database.ts'
import { WAITING, documentKey, entryKey } from './items.ts'
import type { DocumentArea, DocumentSave, Item } from './items.ts'

interface Kept extends DBSchema {
  items: { key: string; value: Item }
  /** Who sends just now, where the browser has no locks of its own. */
  lease: { key: 'sender'; value: { readonly holder: string; readonly until: number } }
}

export interface OutboxStore {
  readonly all: () => Promise<Item[]>
  /**
   * Writes what `change` makes of the item under the key, in one transaction: two windows do not undo each
   * other's.
   */
  readonly update: (key: string, change: (before: Item | undefined) => Item | undefined) => Promise<void>
  /** All of them or none; on the disk when it returns, as far as the browser can tell. */
  readonly put: (items: readonly Item[]) => Promise<void>
  readonly remove: (keys: readonly string[]) => Promise<void>
  /** True when `holder` may send until `until`, in milliseconds; `now` tells whether another's time is up. */
  readonly lease: (holder: string, now: number, until: number) => Promise<boolean>
  readonly release: (holder: string) => Promise<void>
}

const DATABASE = 'klados-sync'

export function createOutboxStore(name = DATABASE): OutboxStore {
  const database = keptDatabase<Kept>(name, 1, (db) => {
    db.createObjectStore('items')
    db.createObjectStore('lease')
  })
  const writing = async (
    work: (items: {
      put: (item: Item, key: string) => Promise<string>
      delete: (key: string) => Promise<void>
      get: (key: string) => Promise<Item | undefined>
    }) => Promise<void>,
  ) => {
    const transaction = (await database()).transaction('items', 'readwrite', { durability: 'strict' })
    try {
      await work(transaction.store)
    } catch (error) {
      transaction.done.catch(() => undefined)
      throw error
    }
    await transaction.done
  }
  return {
    all: async () => (await database()).getAll('items'),
    update: (key, change) =>
      writing(async (items) => {
        const after = change(await items.get(key))
        if (after) await items.put(after, after.key)
        if (after?.key !== key) await items.delete(key)
      }),
    put: (news) =>
      writing(async (items) => {
        await Promise.all(news.map((item) => items.put(item, item.key)))
      }),
    remove: (keys) =>
      writing(async (items) => {
        await Promise.all(keys.map((key) => items.delete(key)))
      }),
    lease: async (holder, now, until) => {
      const transaction = (await database()).transaction('lease', 'readwrite')
      const held = await transaction.store.get('sender')
      const isFree = !held || held.holder === holder || held.until <= now
      if (isFree) await transaction.store.put({ holder, until }, 'sender')
      await transaction.done
      return isFree
    },
    release: async (holder) => {
      const transaction = (await database()).transaction('lease', 'readwrite')
      if ((await transaction.store.get('sender'))?.holder === holder) await transaction.store.delete('sender')
      await transaction.done
    },
  }
}

interface EarlierRelease extends DBSchema {
  entries: { key: string; value: { readonly gardenId: string; readonly entry: JournalEntry } }
  saves: {
    key: string
    value: { readonly documentId: string; readonly path: string; readonly save: DocumentSave }
  }
}
const EARLIER = 'klados-outbox'

/**
 * What the release before this left unsent, moved over; it did not say whose it was. A window of that release
 * may be open still, so its database stays as it is, and is looked into at every start.
 */
export async function moveEarlierOutbox(store: OutboxStore): Promise<number> {
  const db = await openDB<EarlierRelease>(EARLIER, 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore('entries')
      fresh.createObjectStore('saves')
    },
  })
  try {
    const entries = await db.getAll('entries')
    const saves = await db.getAll('saves')
    const common = { accountId: null, accountName: '', state: WAITING }
    const items: Item[] = entries.map(({ gardenId, entry }) => ({
      ...common,
      kind: 'entry',
      key: entryKey(entry.id),
      gardenId,
      entry,
    }))
    for (const { documentId, path, save } of saves) {
      const [, , gardenId, area] = path.split('/')
      items.push({
        ...common,
        kind: 'document',
        key: documentKey(documentId, null),
        gardenId: gardenId!,
        area: area as DocumentArea,
        documentId,
        saves: [save],
        isTried: true,
      })
    }
    if (items.length === 0) return 0
    const known = new Set((await store.all()).map(({ key }) => key))
    await store.put(items.filter(({ key }) => !known.has(key)))
    const transaction = db.transaction(['entries', 'saves'], 'readwrite')
    for (const { entry } of entries) await transaction.objectStore('entries').delete(entry.id)
    for (const { documentId } of saves) await transaction.objectStore('saves').delete(documentId)
    await transaction.done
    return items.length
  } finally {
    db.close()
  }
}
