import type { CalendarDate } from '../season/index.ts'
import { isRead } from './entry.ts'
import type { Entry, EntryOf, EntryShapes } from './entry.ts'
import { inForce } from './in-force.ts'
import type { Projection } from './project.ts'

/**
 * What entries come to, kept with how it was on some days on the way there. It is told anew from the nearest of those days
 * and not from the first: a garden of thirty years costs a tap no more than a young one.
 */
export interface Timeline<Draft> {
  readonly entries: readonly Entry[]
  /** What all of them come to. */
  readonly now: Draft
  /** At the end of a day, as `project` up to that day; asked again for the same day, the very state that it was. */
  readonly on: (day: CalendarDate) => Draft
  /**
   * The same for another list of entries, such as this one with more, dated back or in place of others. While none of
   * those that differ counts here, `now` is the same object.
   */
  readonly with: (entries: readonly Entry[]) => Timeline<Draft>
}

/** How it was before anything of a day had happened. */
interface Stop<Draft> {
  readonly before: CalendarDate
  readonly state: Draft
}

/** From stop to stop there are so many entries at least, and on a long way so many stops at most. */
const APART = 64
const STOPS = 12

type Copied<Shapes extends EntryShapes, Draft> = Projection<Shapes, Draft> & {
  readonly copy: (draft: Draft) => Draft
}

export const timelineOf = <Shapes extends EntryShapes, Draft>(
  projection: Copied<Shapes, Draft>,
  entries: readonly Entry[],
): Timeline<Draft> => runOn(projection, entries, [])

/** Folds the entries on from the last of some stops. */
function runOn<Shapes extends EntryShapes, Draft>(
  projection: Copied<Shapes, Draft>,
  entries: readonly Entry[],
  from: readonly Stop<Draft>[],
): Timeline<Draft> {
  const { apply, copy } = projection
  const apart = Math.max(APART, Math.ceil(entries.length / STOPS))
  const stops = [...from]
  const now = startAt(projection, stops.at(-1))
  let since = 0
  let day: CalendarDate | null = null
  for (const entry of fromDay(projection, entries, stops.at(-1)?.before)) {
    if (since >= apart && entry.at !== day) {
      stops.push({ before: entry.at, state: copy(now) })
      since = 0
    }
    apply(now, entry)
    day = entry.at
    since++
  }
  return timeline(projection, { entries, now, stops, days: new Map() })
}

interface Run<Draft> {
  readonly entries: readonly Entry[]
  readonly now: Draft
  readonly stops: readonly Stop<Draft>[]
  /** Days that were asked for. */
  readonly days: Map<CalendarDate, Draft>
}

function timeline<Shapes extends EntryShapes, Draft>(
  projection: Copied<Shapes, Draft>,
  run: Run<Draft>,
): Timeline<Draft> {
  const { entries, now, stops, days } = run
  return {
    entries,
    now,
    on: (day) => {
      const known = days.get(day)
      if (known) return known
      const from = stops.findLast(({ before }) => before <= day)
      const state = startAt(projection, from)
      for (const entry of fromDay(projection, entries, from?.before)) {
        if (entry.at > day) break
        projection.apply(state, entry)
      }
      // A day at hand is asked for again and again; a hand on the year wheel asks for each but once.
      if (days.size >= STOPS) days.clear()
      days.set(day, state)
      return state
    },
    with: (next) => {
      const touched = firstTouched(projection.kinds, entries, next)
      if (touched === null) return timeline(projection, { ...run, entries: next })
      const left = stops.filter(({ before }) => before <= touched)
      return runOn(projection, next, left)
    },
  }
}

const startAt = <Shapes extends EntryShapes, Draft>(
  { initial, copy }: Copied<Shapes, Draft>,
  stop: Stop<Draft> | undefined,
): Draft => (stop ? copy(stop.state) : initial())

/** Those of the projection that are in force, from a day on, in their order. */
function fromDay<Shapes extends EntryShapes, Draft>(
  { kinds }: Projection<Shapes, Draft>,
  entries: readonly Entry[],
  day: CalendarDate = '',
): EntryOf<Shapes>[] {
  const isOurs = (entry: Entry) => entry.at >= day && isRead(kinds, entry)
  // What supersedes may itself be dated earlier than what it supersedes.
  const some = entries.filter((entry) => entry.supersedes !== null || isOurs(entry))
  return inForce(some).filter(isOurs) as EntryOf<Shapes>[]
}

/** The first day that is another by the entries in which two lists differ; `null` where none of them counts. */
function firstTouched(
  kinds: EntryShapes,
  before: readonly Entry[],
  now: readonly Entry[],
): CalendarDate | null {
  let alike = 0
  while (alike < before.length && alike < now.length && isSame(before[alike]!, now[alike]!)) alike++
  const find = (id: string) => now.findLast((one) => one.id === id) ?? before.find((one) => one.id === id)
  let first: CalendarDate | null = null
  const counts = (entry: Entry): boolean => isRead(kinds, entry)
  for (const entry of [...before.slice(alike), ...now.slice(alike)]) {
    // In the place of one that itself stands in the place of another: that one may stand again.
    const seen = new Set<string>()
    for (let one: Entry | undefined = entry; one && !seen.has(one.id); ) {
      seen.add(one.id)
      if (counts(one) && (first === null || one.at < first)) first = one.at
      one = one.supersedes === null ? undefined : find(one.supersedes)
    }
  }
  return first
}

const isSame = (a: Entry, b: Entry): boolean => a === b || a.id === b.id
