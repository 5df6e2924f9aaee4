import type { CalendarDate } from '../season/index.ts'
import { isRead } from './entry.ts'
import type { Entry, EntryOf, EntryShapes } from './entry.ts'
import { inForce } from './in-force.ts'

/**
 * One reading of the journal: which kinds of entry it goes by, where it begins, and what an entry makes of
 * it. `apply` is total: an entry that says something impossible of the state it meets is kept as a misfit,
 * never thrown at. `version` is raised whenever the same entries come to mean another state, so that a stored
 * one is known as old.
 */
export interface Projection<Shapes extends EntryShapes, Draft> {
  readonly name: string
  readonly version: number
  readonly kinds: Shapes
  readonly initial: () => Draft
  /**
   * Changes the draft, which belongs to one fold alone: copying maps for each entry would make it quadratic.
   */
  readonly apply: (draft: Draft, entry: EntryOf<Shapes>) => void
  /** The draft once more, so that one can go on from it and have it as it was; where that is asked of it. */
  readonly copy?: (draft: Draft) => Draft
}

export const projection = <
  const Shapes extends EntryShapes,
  Draft,
  P extends Projection<Shapes, Draft> = Projection<Shapes, Draft>,
>(
  of: P & Projection<Shapes, Draft>,
) => of

/**
 * The state at the end of a day (of all time without one): the fold of the entries in force, in the order of
 * day and id, whatever order they arrived in. Entries that stand twice count once, kinds of other projections and bodies of
 * later versions not at all.
 */
export function project<Shapes extends EntryShapes, Draft>(
  { kinds, initial, apply }: Projection<Shapes, Draft>,
  entries: readonly Entry[],
  upTo?: CalendarDate,
): Draft {
  const draft = initial()
  // One of another kind may stand in the place of one of ours, and one of ours in that of another.
  const ours = entries.filter(({ kind, supersedes }) => kind in kinds || supersedes !== null)
  for (const entry of inForce(ours)) {
    if (upTo !== undefined && entry.at > upTo) break
    if (isRead(kinds, entry)) apply(draft, entry)
  }
  return draft
}
