import type { SoilId } from '../ground/index.ts'
import type { RollOnOffer, Surface, WireEnding } from '../catalogue/index.ts'
import type { AxisIds, Pattern, Setting, Site, Snap } from '../frame/index.ts'
import type { Point } from '../geometry/index.ts'

/** What a place does to a frame: its ground, its weather at the worst. */
export interface Conditions {
  readonly soil: SoilId
  readonly frostDepthM: number
  readonly coldestC: number
  readonly hottestC: number
  readonly windMPerS: number
  /** On covers and overhead frames. */
  readonly snowPa: number
  /** Ice on wires, radial thickness. */
  readonly iceMm: number
}

/** What is asked of a board fence, with the range that is taken for real and a usual figure to begin with. */
export const fenceFields = {
  boardMm: { is: 'mm', min: 5, max: 100, usual: 18 },
  boardWidthMm: { is: 'mm', min: 30, max: 500, usual: 100 },
  rails: { is: 'count', min: 1, max: 8, usual: 3 },
  railHeightMm: { is: 'mm', min: 10, max: 300, usual: 70 },
  railDepthMm: { is: 'mm', min: 10, max: 200, usual: 40 },
  nailsPerCrossing: { is: 'count', min: 1, max: 10, usual: 2 },
  nailLengthMm: { is: 'mm', min: 10, max: 200, usual: 50 },
  postSpacingM: { is: 'm', min: 0.3, max: 6, usual: 1.8 },
  postFootM: { is: 'm', min: 0.03, max: 1, usual: 0.3 },
  postBuriedM: { is: 'm', min: 0, max: 2, usual: 0.6 },
} as const
/** How a board fence is made, as far as anybody knows: what is `null` nobody has looked at yet. */
export type FenceMade = { readonly [K in keyof typeof fenceFields]: number | null }
export const fenceUnknown = Object.fromEntries(
  Object.keys(fenceFields).map((key) => [key, null]),
) as FenceMade

/** A place as a plan needs it: measured, and with what it is made of and meets. */
export interface PlannedSite extends Site {
  readonly surface: Surface
  /** What stands round it; what stands indoors meets no wind, no snow and no frost. */
  readonly setting: Setting
  readonly conditions: Conditions
  /** How the boards are held, where fixings go into a fence of them; left out or `null` where nobody has said. */
  readonly fence?: FenceMade | null
}

/** What of a frame that somebody else put up may be unknown: checks that need it cannot then be told. */
export const unknownParts = ['wire', 'pull', 'fixings', 'posts', 'depth', 'anchors'] as const
export type UnknownPart = (typeof unknownParts)[number]

/** A wire, how hard it is strained, and the rolls it may be cut from. */
export interface WireChoice {
  readonly wireId: string
  readonly tensionN: number
  readonly rolls: readonly RollOnOffer[]
}

/**
 * Everything the grower decides about a frame, besides the place it stands at. Lengths in metres, pull in
 * newtons.
 */
export interface FrameDesign extends WireChoice {
  readonly pattern: Pattern
  readonly moveToleranceM: number
  readonly dragged: Readonly<Record<string, Point>>
  readonly snap: Snap
  /** Ids of things in order along the frame, where revisions made them other than their numbers. */
  readonly ids: AxisIds
  /** The second wire of a row, for foliage and water; `null` where the pattern has none. */
  readonly light: WireChoice | null
  readonly endWrapM: number
  /** How its wires are made off; `null` for the ending that is usual for each. */
  readonly wireEnding: WireEnding | null
  /** Strainers on each piece of strained wire: a long one may let out more than one takes up. */
  readonly strainers: number
  /** Where wire may end: at any node, or at those on the edge of the frame only. */
  readonly endsAt: 'any' | 'edge'
  readonly handlingLengthM: number
  readonly fixingId: string
  /** How far the wire runs off the surface; `null` for what the fixing gives by itself. */
  readonly standOffM: number | null
  /** Temperature when it is strained. */
  readonly setC: number
  /** Whose weight it has to carry; `null` for nothing but itself. */
  readonly plantKindId: string | null
  /** How far off the wall or fence its plants stand; `null` where nobody has said, or there is none. */
  readonly plantOffM: number | null
  /** How many of these frames are built alike. */
  readonly repeat: number
  /** Stones or slabs on the feet of what stands on a floor, all feet together. */
  readonly feetBallastKg: number
  /** What is drawn but not known, in a frame that was there already. */
  readonly unknown: readonly UnknownPart[]
  /** What one like it costs in a shop, to hold against making it; `null` where nobody has asked. */
  readonly boughtPrice: number | null
}

/** Plants stand so far off a wall or fence where nobody has said otherwise, metres: roots want room and rain. */
export const USUAL_PLANT_OFF_M = 0.3

/** Where ordinary weather begins, for a place that nobody has described yet. */
export const usualConditions: Conditions = {
  soil: 'loam',
  frostDepthM: 0.5,
  coldestC: -15,
  hottestC: 35,
  windMPerS: 22,
  snowPa: 0,
  iceMm: 0,
}
