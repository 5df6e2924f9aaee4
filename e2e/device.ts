import type { Page } from '@playwright/test'

/** All that a page has put by on a device, as JSON: its databases and its storage. */
export interface Device {
  readonly storage: Readonly<Record<string, string>>
  readonly databases: readonly KeptDatabase[]
}
interface KeptDatabase {
  readonly name: string
  readonly version: number
  readonly stores: readonly {
    readonly name: string
    readonly indexes: readonly { readonly name: string; readonly keyPath: string | string[] }[]
    readonly records: readonly { readonly key: unknown; readonly value: unknown }[]
  }[]
}

/** Reads out what lies on the device of a page. A blob becomes `{ $blob, type }`. */
export function readDevice(page: Page): Promise<Device> {
  return page.evaluate(async () => {
    const done = <T>(request: IDBRequest<T>) =>
      new Promise<T>((resolve, reject) => {
        request.onsuccess = () => resolve(request.result)
        request.onerror = () => reject(request.error!)
      })
    const asJson = async (value: unknown): Promise<unknown> => {
      if (value instanceof Blob) {
        const bytes = new Uint8Array(await value.arrayBuffer())
        return { $blob: btoa(String.fromCharCode(...bytes)), type: value.type }
      }
      if (Array.isArray(value)) return Promise.all(value.map(asJson))
      if (typeof value !== 'object' || value === null) return value
      const fields = await Promise.all(
        Object.entries(value).map(async ([key, one]) => [key, await asJson(one)]),
      )
      return Object.fromEntries(fields) as unknown
    }
    const databases = []
    for (const { name, version } of await indexedDB.databases()) {
      const db = await done(indexedDB.open(name!))
      const stores = []
      for (const store of [...db.objectStoreNames]) {
        const at = db.transaction(store).objectStore(store)
        const [keys, values] = [done(at.getAllKeys()), done(at.getAll())]
        const indexes = [...at.indexNames].map((one) => ({ name: one, keyPath: at.index(one).keyPath }))
        const records = []
        const all = (await values) as unknown[]
        for (const [i, key] of (await keys).entries()) records.push({ key, value: await asJson(all[i]) })
        stores.push({ name: store, indexes, records })
      }
      db.close()
      databases.push({ name: name!, version: version!, stores })
    }
    return { storage: { ...localStorage }, databases }
  })
}

/** Puts by on the device of a page, which shows no screen of the application yet, what another had. */
export function writeDevice(page: Page, device: Device): Promise<void> {
  return page.evaluate(async ({ storage, databases }) => {
    const asValue = (json: unknown): unknown => {
      if (Array.isArray(json)) return json.map(asValue)
      if (typeof json !== 'object' || json === null) return json
      if ('$blob' in json) {
        const { $blob, type } = json as { $blob: string; type: string }
        return new Blob([Uint8Array.from(atob($blob), (one) => one.charCodeAt(0))], { type })
      }
      return Object.fromEntries(Object.entries(json).map(([key, one]) => [key, asValue(one)]))
    }
    for (const [key, value] of Object.entries(storage)) localStorage.setItem(key, value)
    for (const { name, version, stores } of databases)
      await new Promise<void>((resolve, reject) => {
        const open = indexedDB.open(name, version)
        open.onerror = () => reject(open.error!)
        open.onupgradeneeded = () => {
          for (const store of stores) {
            const made = open.result.createObjectStore(store.name)
            for (const { name: index, keyPath } of store.indexes) made.createIndex(index, keyPath)
          }
        }
        open.onsuccess = () => {
          const db = open.result
          const transaction = db.transaction([...db.objectStoreNames], 'readwrite')
          for (const store of stores)
            for (const { key, value } of store.records)
              transaction.objectStore(store.name).put(asValue(value), key as string)
          transaction.onerror = () => reject(transaction.error!)
          transaction.oncomplete = () => {
            db.close()
            resolve()
          }
        }
      })
  }, device)
}
