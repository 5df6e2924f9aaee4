import { daysBetween } from './calendar.ts'
import type { CalendarDate } from './calendar.ts'

export interface DateRange {
  readonly earliestOn: CalendarDate
  /** `null`: not within the horizon. */
  readonly latestOn: CalendarDate | null
}

/**
 * When something that recurs is to be looked at again, and why: the answer of every such check, whatever it is about.
 * The range is that of what it is waiting for; `null` where it goes by the calendar alone.
 */
export interface Due<Reason extends string = string> {
  readonly dueOn: CalendarDate
  readonly reason: Reason
  readonly range: DateRange | null
}

/** The one that comes first; the earlier in the list where two come on one day. */
export function soonest<D extends Due>(dues: readonly [D, ...D[]]): D {
  return dues.reduce((a, b) => (b.dueOn < a.dueOn ? b : a))
}

export type Urgency = 'overdue' | 'due' | 'soon' | 'later'

const OVERDUE_AFTER_DAYS = 7
const SOON_DAYS = 28

/** How a due day stands to today: overdue after a week, due from its day, soon four weeks before. */
export function urgencyOf(dueOn: CalendarDate, today: CalendarDate): Urgency {
  const days = daysBetween(dueOn, today)
  if (days > OVERDUE_AFTER_DAYS) return 'overdue'
  if (days >= 0) return 'due'
  return days >= -SOON_DAYS ? 'soon' : 'later'
}
