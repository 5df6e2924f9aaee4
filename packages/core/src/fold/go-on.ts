import type { CalendarDate } from '../season/index.ts'
import { isRead } from './entry.ts'
import type { Entry, EntryShapes } from './entry.ts'
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
  const ours = entries.filter(({ kind, supersedes }) => kind in kinds || supersedes !== null)
  for (const entry of inForce(ours)) if (isRead(kinds, entry)) apply(state, entry)
  return { state, last: latest(entries) }
}

/**
 * The fold with further entries, as if all had been folded at once; the fold itself stays as it was. `null` where that
 * cannot be told from the fold alone: an entry is dated back among those that are folded, or stands in the place of one
 * of them. Then all of them are wanted. An entry stands in the order before whatever supersedes it.
 */
export function goOn<Shapes extends EntryShapes, Draft>(
  { kinds, apply, copy }: Projection<Shapes, Draft> & { readonly copy: (draft: Draft) => Draft },
  from: Folded<Draft>,
  entries: readonly Entry[],
): Folded<Draft> | null {
  if (entries.length === 0) return from
  const here = new Set(entries.map(({ id }) => id))
  const isToldHere = (entry: Entry) =>
    isAfter(entry, from.last) && (entry.supersedes === null || here.has(entry.supersedes))
  if (!entries.every(isToldHere)) return null
  const last = latest(entries)
  const ours = inForce(entries).filter((entry) => isRead(kinds, entry))
  if (ours.length === 0) return { state: from.state, last }
  const state = copy(from.state)
  for (const entry of ours) apply(state, entry)
  return { state, last }
}

function latest(entries: readonly Entry[]): Folded<unknown>['last'] {
  let last: Folded<unknown>['last'] = null
  for (const { at, id } of entries) if (isAfter({ at, id }, last)) last = { at, id }
  return last
}
