import type { DeepPoint } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'
import type { Parent, Support } from './address.ts'
import type { Led } from './way.ts'

/**
 * What a piece of wood is in its plant. `arm` is a permanent arm along a wire (cordon); `cane` wood that is
 * replaced every year or two; `bine` and `runner` are soft and twining or creeping; `sucker` comes from the
 * root or from below the graft; a `tip-layer` has rooted at its end.
 */
export const pieceRoles = [
  'trunk',
  'arm',
  'rib',
  'leader',
  'cane',
  'lateral',
  'spur',
  'shoot',
  'bine',
  'runner',
  'sucker',
  'tip-layer',
] as const
export type PieceRole = (typeof pieceRoles)[number]

/** Which way it stands off the piece that it grows on. */
export const sides = ['left', 'right', 'up', 'down', 'front', 'back'] as const
export type Side = (typeof sides)[number]

export const healths = ['sound', 'doubtful', 'sick', 'dead'] as const
export type Health = (typeof healths)[number]

/** How it gives under the hand, what light its leaves had, and what is wrong with its place. */
export const bends = ['pliable', 'stiff'] as const
export type Bends = (typeof bends)[number]
export const lights = ['well-lit', 'shaded'] as const
export type SeenLight = (typeof lights)[number]
export const faults = ['crossing', 'weak', 'woven'] as const
/** `woven`: through the openings of a panel instead of tied to its face. */
export type Fault = (typeof faults)[number]
/** What a shoot was chosen for in summer, to be found again in winter. */
export const purposes = ['spur', 'cane', 'arm', 'leader'] as const
export type Purpose = (typeof purposes)[number]

export const hitches = ['figureEight', 'belt'] as const
/** `belt`: one loop round stem and support; `figureEight`: crossed once between them. */
export type Hitch = (typeof hitches)[number]

export interface Cut {
  readonly on: CalendarDate
  readonly reason: string
  /** What was left of the piece, metres from its base, and above how many buds where that was counted. */
  readonly alongM: number
  readonly aboveBuds: number | null
}

/** Something that was done to a piece or seen of it and leaves it as long as it was. */
export const pieceMarks = ['notched', 'stripped', 'thinned', 'sealed', 'wound', 'tucked', 'layered'] as const
export type PieceMark = (typeof pieceMarks)[number]
export interface Mark {
  readonly on: CalendarDate
  readonly what: PieceMark
  readonly alongM: number | null
}

/** Nodes of a soft climber: each made a leaf, and can make a plant where it has roots. */
export interface NodeCount {
  readonly on: CalendarDate
  readonly nodes: number
  readonly rooted: number
}

/**
 * What one growing point made, as it is on the day asked for. Its path runs from its base to its tip, metres
 * in space; what was written down before wood had depth lies in the plane of its wall.
 */
export interface Piece {
  readonly id: string
  readonly plantId: string
  readonly parent: Parent
  readonly path: readonly DeepPoint[]
  /** What of it runs along a part of a frame, from its base on; the rest is free. */
  readonly led: readonly Led[]
  readonly drawnOn: CalendarDate
  /** Seasons that it had behind it when it was drawn; 0 is a shoot of that summer. */
  readonly seasonsThen: number
  readonly baseMm: number
  readonly measuredOn: CalendarDate
  readonly tipMm: number | null
  /** As they were counted, on what there was of it then; `null`: nobody has. */
  readonly buds: number | null
  readonly side: Side | null
  readonly health: Health | null
  readonly bends: Bends | null
  readonly light: SeenLight | null
  readonly fault: Fault | null
  readonly meantFor: Purpose | null
  /** Its length and thickness are those of a typical plant: nobody has measured it. */
  readonly isTypical: boolean
  /** What the grower calls it; `null` leaves it to its place and age. */
  readonly calledRole: PieceRole | null
  readonly cuts: readonly Cut[]
  readonly marks: readonly Mark[]
  /** As they were counted, the latest last. */
  readonly nodeCounts: readonly NodeCount[]
  readonly removedOn: CalendarDate | null
  readonly removedWhy: string | null
}

/** A piece that nobody has looked at yet. */
export const NOT_SEEN = { health: null, bends: null, light: null, fault: null, meantFor: null } as const

/** How a tie is found to have failed; gone is one of which nobody can say how. */
export const tieFailures = ['bitten', 'rotted', 'slipped', 'broke', 'gone'] as const
export type TieFailure = (typeof tieFailures)[number]
export const tieEnds = [...tieFailures, 'taken-off'] as const
export type TieEnd = (typeof tieEnds)[number]

export interface Tie {
  readonly id: string
  readonly pieceId: string
  readonly plantId: string
  /** Where on its piece, metres from the base, and where that is on the elevation. */
  readonly alongM: number
  readonly at: DeepPoint
  /** `null` for a tie of which only the place is known. */
  readonly support: Support | null
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
  readonly endedWhy: TieEnd | 'replaced' | 'removed' | 'wood-gone' | null
}
