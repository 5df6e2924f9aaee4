import type { CalendarDate } from '../season/index.ts'
import { latestVersionOf } from '../shape/index.ts'
import type { Shape, ValueOf } from '../shape/index.ts'

/**
 * One line of a journal, whatever it tells. `id` is a UUIDv7 made where it was written; `at` is the day it
 * happened, `recordedAt` the instant it was written down. An entry that supersedes another stands in its
 * place.
 */
export interface Entry<K extends string = string, B = unknown> {
  readonly id: string
  readonly placeId: string
  readonly plantId: string | null
  readonly kind: K
  readonly at: CalendarDate
  readonly recordedAt: string
  readonly supersedes: string | null
  readonly body: B
}

/**
 * Whether some kinds of entry take one in: it is of them, and its body of a version that they read. A later one is held:
 * it takes the place of what it supersedes, and what it says itself a later release knows.
 */
export function isRead<S extends EntryShapes>(kinds: S, entry: Entry): entry is EntryOf<S> {
  const shape = Object.hasOwn(kinds, entry.kind) ? kinds[entry.kind] : undefined
  if (!shape) return false
  const { v } = (entry.body ?? {}) as { readonly v?: unknown }
  return typeof v !== 'number' || v <= latestVersionOf(shape)
}

/** Shapes of the bodies of some kinds of entry. */
export type EntryShapes = Readonly<Record<string, Shape>>
/** The entries that such shapes describe, told apart by their kind. */
export type EntryOf<S extends EntryShapes> = {
  [K in keyof S & string]: Entry<K, ValueOf<S[K]>>
}[keyof S & string]

/**
 * Takes back the entry that it supersedes and puts nothing in its place: the one kind that the engine itself
 * knows.
 */
export const WITHDRAWAL = 'entry.withdrawn'
