import { openDB } from 'idb'
import type { DBSchema, IDBPDatabase } from 'idb'

/**
 * A database on this device that is opened when it is first asked for, lets a later release in another window change
 * its shape, and is opened again after that, after a failure, or when the browser has closed it.
 */
export function keptDatabase<S extends DBSchema>(
  name: string,
  version: number,
  upgrade: (db: IDBPDatabase<S>, from: number) => void,
): () => Promise<IDBPDatabase<S>> {
  let open: Promise<IDBPDatabase<S>> | null = null
  const close = () => {
    open = null
  }
  return () => {
    open ??= openDB<S>(name, version, {
      upgrade,
      blocking: (_, __, event) => {
        ;(event.target as IDBDatabase).close()
        close()
      },
      terminated: close,
    })
    open.catch(close)
    return open
  }
}
