import type { Point } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'

export const stemParts = ['trunk', 'arm', 'cane', 'lateral', 'spur', 'shoot'] as const
/** `arm` is a permanent arm along a wire (cordon); `cane` wood that is replaced every year or two. */
export type StemPart = (typeof stemParts)[number]

export const hitches = ['figureEight', 'belt'] as const
/** `belt`: one loop round stem and support; `figureEight`: crossed once between them. */
export type Hitch = (typeof hitches)[number]

/**
 * One stretch of wood as it is on the day asked for. Its line runs from its base to its tip, metres on the
 * elevation.
 */
export interface Stem {
  readonly id: string
  readonly plantId: string
  readonly part: StemPart
  readonly parentStemId: string | null
  readonly points: readonly Point[]
  readonly drawnOn: CalendarDate
  /** Seasons that the wood had behind it when it was drawn; 0 is a shoot of that summer. */
  readonly ageAtDrawing: number
  readonly diameterMm: number
  readonly diameterOn: CalendarDate
  readonly cuts: readonly { readonly on: CalendarDate; readonly reason: string; readonly toLengthM: number }[]
  readonly removedOn: CalendarDate | null
  readonly removedWhy: string | null
}

export interface Tie {
  readonly id: string
  readonly stemId: string
  readonly plantId: string
  readonly at: Point
  readonly materialId: string
  readonly hitch: Hitch
  readonly supportDiameterMm: number
  /** Stem diameter under the tie when the loop was made or last set. */
  readonly stemDiameterMm: number
  /** Inner length of the loop. */
  readonly loopLengthMm: number
  readonly madeOn: CalendarDate
  /** The day the loop was made or last set. */
  readonly setOn: CalendarDate
  readonly lookedOn: CalendarDate | null
  readonly postponedUntil: CalendarDate | null
  readonly endedOn: CalendarDate | null
  readonly endedWhy: 'replaced' | 'removed' | 'wood-gone' | null
}
