import type { CalendarDate } from '../season/index.ts'
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
