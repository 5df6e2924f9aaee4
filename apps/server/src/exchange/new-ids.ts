import { v4 as uuidv4, v7 as uuidv7 } from 'uuid'

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-([0-9a-f])[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}$/i
/** Members of documents and entries whose value names something that the garden itself has made. */
const isIdKey = (key: string) => key === 'id' || key === 'supersedes' || /Ids?$/.test(key)

/** Every id that a document or an entry has or names, into `into`. */
export function collectIds(value: unknown, into: Set<string>): void {
  walk(value, (id) => {
    into.add(id)
    return id
  })
}

/** The same with each of its ids put through `newIds`. */
export function withNewIds<T>(value: T, newIds: ReadonlyMap<string, string>): T {
  return walk(value, (id) => newIds.get(id) ?? id) as T
}

function walk(value: unknown, map: (id: string) => string, isId = false): unknown {
  if (typeof value === 'string') return isId && UUID.test(value) ? map(value.toLowerCase()) : value
  if (Array.isArray(value)) return value.map((one) => walk(one, map, isId))
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).map(([key, own]) => [key, walk(own, map, isIdKey(key))]))
}

/**
 * A new id for each. Ids of version 7 are in the order in which things were written, which is the order in
 * which a day is replayed: the new ones keep their instants and their order. Others have none and get none.
 */
export function makeNewIds(ids: Iterable<string>): Map<string, string> {
  const sorted = [...ids].sort()
  const fresh = new Map<string, string>()
  let lastMs = -1
  let rank = 0
  for (const id of sorted) {
    if (UUID.exec(id)![1] !== '7') {
      fresh.set(id, uuidv4())
      continue
    }
    const msecs = Number.parseInt(id.slice(0, 8) + id.slice(9, 13), 16)
    rank = msecs === lastMs ? rank + 1 : 0
    lastMs = msecs
    fresh.set(id, uuidv7({ msecs, seq: rank }))
  }
  return fresh
}
