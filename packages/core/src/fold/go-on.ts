import type { CalendarDate } from '../season/index.ts'
import type { Entry, EntryOf, EntryShapes } from './entry.ts'
import { inForce } from './in-force.ts'
import type { Projection } from './project.ts'

/** A fold as far as it has come: what it made, and the latest entry by day and id that it has seen. */
export interface Folded<Draft> {
  readonly state: Draft
  readonly last: { readonly at: CalendarDate; readonly id: string } | null
}

const isAfter = (entry: Pick<Entry, 'at' | 'id'>, last: Folded<unknown>['last']): boolean =>
  last === null || entry.at > last.at || (entry.at === last.at && entry.id > last.id)

/** All of the entries folded, so that it can be gone on from there. */
export function folded<Shapes extends EntryShapes, Draft>(
  { kinds, initial, apply }: Projection<Shapes, Draft>,
  entries: readonly Entry[],
): Folded<Draft> {
  const state = initial()
  let last: Folded<Draft>['last'] = null
  for (const { at, id } of entries) if (last === null || isAfter({ at, id }, last)) last = { at, id }
  const ours = entries.filter(({ kind, supersedes }) => kind in kinds || supersedes !== null)
  for (const entry of inForce(ours)) if (entry.kind in kinds) apply(state, entry as EntryOf<Shapes>)
  return { state, last }
}

/**
 * The fold with further entries, as if all had been folded at once; the fold itself stays as it was. `null` where that
 * cannot be told from the fold alone: an entry is dated back among those that are folded, or stands in the place of
 * another. Then all of them are wanted. An entry stands in the order before whatever supersedes it.
 */
export function goOn<Shapes extends EntryShapes, Draft>(
  { kinds, apply, copy }: Projection<Shapes, Draft> & { readonly copy: (draft: Draft) => Draft },
  from: Folded<Draft>,
  entries: readonly Entry[],
): Folded<Draft> | null {
  if (entries.length === 0) return from
  if (entries.some((entry) => entry.supersedes !== null || !isAfter(entry, from.last))) return null
  const inOrder = inForce(entries)
  const { at, id } = inOrder.at(-1)!
  const ours = inOrder.filter(({ kind }) => kind in kinds)
  if (ours.length === 0) return { state: from.state, last: { at, id } }
  const state = copy(from.state)
  for (const entry of ours) apply(state, entry as EntryOf<Shapes>)
  return { state, last: { at, id } }
}
