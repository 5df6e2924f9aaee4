import type { AnchorId, LineId, MemberId, NodeId } from '../frame/index.ts'
import type { Point } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'
import type { Hitch, StemPart } from '../wood/index.ts'

/** A wire's pull: set to this, or found at this, at a temperature. */
interface WireTension {
  readonly v: 1
  readonly frameId: string
  readonly line: LineId
  readonly tensionN: number
  readonly temperatureC: number
}

/**
 * What the grower did or saw, by kind. Each body has its own shape; `v` lets a later shape read an earlier
 * one.
 */
export interface EntryBodies {
  'stem.drawn': {
    readonly v: 1
    readonly stemId: string
    readonly part: StemPart
    readonly parentStemId: string | null
    readonly points: readonly Point[]
    readonly ageSeasons: number
    readonly diameterMm: number
  }
  /** The line of the wood is now this one: it grew, or was laid along another wire. */
  'stem.redrawn': {
    readonly v: 1
    readonly stemId: string
    readonly points: readonly Point[]
    readonly why: 'grown' | 'laid'
  }
  'stem.measured': { readonly v: 1; readonly stemId: string; readonly diameterMm: number }
  'stem.shortened': {
    readonly v: 1
    readonly stemId: string
    readonly toLengthM: number
    readonly reason: string
  }
  'stem.removed': { readonly v: 1; readonly stemId: string; readonly reason: string }
  'tie.made': {
    readonly v: 1
    readonly tieId: string
    readonly stemId: string
    readonly at: Point
    readonly materialId: string
    readonly hitch: Hitch
    readonly supportDiameterMm: number
    readonly stemDiameterMm: number
    readonly loopLengthMm: number
  }
  'tie.checked': { readonly v: 1; readonly tieId: string }
  'tie.loosened': {
    readonly v: 1
    readonly tieId: string
    readonly loopLengthMm: number
    readonly stemDiameterMm: number
  }
  'tie.replaced': {
    readonly v: 1
    readonly tieId: string
    readonly newTieId: string
    readonly materialId: string
    readonly hitch: Hitch
    readonly loopLengthMm: number
    readonly stemDiameterMm: number
  }
  'tie.removed': { readonly v: 1; readonly tieId: string; readonly reason: string }
  'tie.postponed': { readonly v: 1; readonly tieId: string; readonly untilOn: CalendarDate }
  /** A fixing of a frame is in the wall, where it really went. */
  'fixing.set': { readonly v: 1; readonly frameId: string; readonly nodeId: NodeId; readonly at: Point }
  'post.placed': { readonly v: 1; readonly frameId: string; readonly postId: MemberId; readonly xM: number }
  /** A ground screw as it went in; angle from the vertical. A refused one did not reach its depth. */
  'anchor.driven': {
    readonly v: 1
    readonly frameId: string
    readonly anchorId: AnchorId
    readonly depthM: number
    readonly angleDeg: number
    readonly torqueNm: number | null
    readonly reworks: number
    readonly isRefused: boolean
    readonly movedM: number
    readonly pullTestN: number | null
  }
  'wire.tensioned': WireTension
  'wire.measured': WireTension
  'note.written': { readonly v: 1; readonly text: string }
  /** Takes back the entry that it supersedes and puts nothing in its place. */
  'entry.withdrawn': { readonly v: 1 }
}

export type EntryKind = keyof EntryBodies

/**
 * One line of the journal. `id` is a UUIDv7 made where it was written; `at` is the day it happened,
 * `recordedAt` the instant it was written down. An entry that supersedes another stands in its place.
 */
export type JournalEntry = {
  readonly [K in EntryKind]: {
    readonly id: string
    readonly placeId: string
    readonly plantId: string | null
    readonly kind: K
    readonly at: CalendarDate
    readonly recordedAt: string
    readonly supersedes: string | null
    readonly body: EntryBodies[K]
  }
}[EntryKind]
