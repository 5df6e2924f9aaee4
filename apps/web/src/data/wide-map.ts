/** So many shelves, by the end of a key: ids are drawn by lot there. */
const SHELVES = 64

function shelfOf(key: string): number {
  let hash = 0
  for (let i = Math.max(0, key.length - 4); i < key.length; i++) hash = (hash * 31 + key.charCodeAt(i)) | 0
  return hash & (SHELVES - 1)
}

/** What is asked of a map, whatever it is made of. */
export interface Table<V> extends Iterable<[string, V]> {
  readonly size: number
  readonly get: (key: string) => V | undefined
  readonly has: (key: string) => boolean
  readonly forEach: (visit: (value: V, key: string) => void) => void
  readonly keys: () => Iterable<string>
  readonly values: () => Iterable<V>
}

/**
 * A map of thousands of which each change is a map of its own, and yet copies but a shelf of it: a garden's plants, of which a
 * tap changes one. Its order is nobody's.
 */
export class WideMap<V> implements Table<V> {
  readonly size: number
  readonly #shelves: readonly ReadonlyMap<string, V>[]

  private constructor(shelves: readonly ReadonlyMap<string, V>[]) {
    this.#shelves = shelves
    this.size = shelves.reduce((sum, { size }) => sum + size, 0)
  }

  static of<V>(entries: Iterable<readonly [string, V]> = []): WideMap<V> {
    const shelves = Array.from({ length: SHELVES }, () => new Map<string, V>())
    for (const [key, value] of entries) shelves[shelfOf(key)]!.set(key, value)
    return new WideMap(shelves)
  }

  /** The map with other values for some keys; `undefined` takes one out. */
  with(changes: Iterable<readonly [string, V | undefined]>): WideMap<V> {
    const shelves = [...this.#shelves]
    const own = new Map<number, Map<string, V>>()
    for (const [key, value] of changes) {
      const n = shelfOf(key)
      let shelf = own.get(n)
      if (!shelf) {
        shelf = new Map(shelves[n])
        own.set(n, shelf)
        shelves[n] = shelf
      }
      if (value === undefined) shelf.delete(key)
      else shelf.set(key, value)
    }
    return own.size === 0 ? this : new WideMap(shelves)
  }

  get(key: string): V | undefined {
    return this.#shelves[shelfOf(key)]!.get(key)
  }
  has(key: string): boolean {
    return this.#shelves[shelfOf(key)]!.has(key)
  }
  forEach(visit: (value: V, key: string) => void): void {
    for (const shelf of this.#shelves) shelf.forEach(visit)
  }
  *keys(): Generator<string> {
    for (const shelf of this.#shelves) yield* shelf.keys()
  }
  *values(): Generator<V> {
    for (const shelf of this.#shelves) yield* shelf.values()
  }
  *[Symbol.iterator](): Generator<[string, V]> {
    for (const shelf of this.#shelves) yield* shelf
  }
}
