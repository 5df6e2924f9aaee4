/** Raised when the same fold would be another text. */
export const PACK_VERSION = 2

// What a list in the text begins with where it is not a thing, which begins with the number of its shape.
const LIST = -1
const MAP = -2
const SET = -3
/** Before the number of a word that is said more than once, and before a word that begins with it itself. */
const SAID = '$'
/** A word of so many letters is not said shorter by its number. */
const SHORT = 3

/** Names of a thing's fields: those that say something, and those that are `null`. */
type Shape = readonly [told: readonly string[], empty: readonly string[]]
type Packed = readonly [words: readonly string[], shapes: readonly Shape[], value: unknown]

/**
 * The value as text: JSON in which maps and sets come through, and which says ids and names of fields once. What a
 * fold holds is a few things of few shapes that name one another, and takes half of what it would take as it is.
 */
export function packed(value: unknown): string {
  const isRepeated = repeatedIn(value)
  const [words, shapes] = [numbered<string>(), numbered<Shape>()]
  const put = (one: unknown): unknown => {
    if (typeof one === 'string') {
      if (isRepeated(one)) return `${SAID}${words.numberOf(one, one)}`
      return one.startsWith(SAID) ? `${SAID}${one}` : one
    }
    if (one === null || typeof one !== 'object') return one
    if (Array.isArray(one)) return [LIST, ...one.map(put)]
    if (one instanceof Map) return [MAP, ...[...one].flatMap(([key, of]) => [put(key), put(of)])]
    if (one instanceof Set) return [SET, ...[...one].map(put)]
    const fields = Object.entries(one).filter(([, of]) => of !== undefined)
    const told = fields.filter(([, of]) => of !== null)
    const empty = fields.filter(([, of]) => of === null)
    const shape = [told.map(([name]) => name), empty.map(([name]) => name)] as const
    return [shapes.numberOf(JSON.stringify(shape), shape), ...told.map(([, of]) => put(of))]
  }
  const body = put(value)
  return JSON.stringify([words.all, shapes.all, body] satisfies Packed)
}

/** What was packed, once more. */
export function unpacked(text: string): unknown {
  const [words, shapes, value] = JSON.parse(text) as Packed
  const take = (one: unknown): unknown => {
    if (typeof one === 'string') {
      if (!one.startsWith(SAID)) return one
      return one.startsWith(SAID, 1) ? one.slice(1) : words[Number(one.slice(1))]
    }
    if (!Array.isArray(one)) return one
    const [is, ...of] = one as [number, ...unknown[]]
    if (is === LIST) return of.map(take)
    if (is === SET) return new Set(of.map(take))
    if (is === MAP) return mapOf(of.map(take))
    const [told, empty] = shapes[is]!
    const made: Record<string, unknown> = {}
    for (let n = 0; n < told.length; n++) made[told[n]!] = take(of[n])
    for (const name of empty) made[name] = null
    return made
  }
  return take(value)
}

function mapOf(flat: readonly unknown[]): Map<unknown, unknown> {
  const map = new Map<unknown, unknown>()
  for (let n = 0; n < flat.length; n += 2) map.set(flat[n], flat[n + 1])
  return map
}

/** Tells of the longer words in a value whether they come more than once. */
function repeatedIn(value: unknown): (word: string) => boolean {
  const [once, more] = [new Set<string>(), new Set<string>()]
  const look = (one: unknown): void => {
    if (typeof one === 'string') {
      if (one.length > SHORT) (once.has(one) ? more : once).add(one)
    } else if (one instanceof Map)
      for (const [key, of] of one) {
        look(key)
        look(of)
      }
    else if (Array.isArray(one) || one instanceof Set) one.forEach(look)
    else if (one !== null && typeof one === 'object') Object.values(one).forEach(look)
  }
  look(value)
  return (word) => more.has(word)
}

/** Gives each of some things a number, the same for those of one key. */
function numbered<T>() {
  const numbers = new Map<string, number>()
  const all: T[] = []
  const numberOf = (key: string, one: T): number => {
    const known = numbers.get(key)
    if (known !== undefined) return known
    numbers.set(key, all.length)
    return all.push(one) - 1
  }
  return { all, numberOf }
}
