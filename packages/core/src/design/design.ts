import type { SoilId } from '../ground/index.ts'
import type { RollOnOffer, Surface } from '../catalogue/index.ts'
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

/** A place as a plan needs it: measured, and with what it is made of and meets. */
export interface PlannedSite extends Site {
  readonly surface: Surface
  /** What stands round it; what stands indoors meets no wind, no snow and no frost. */
  readonly setting: Setting
  readonly conditions: Conditions
}

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
  /** Where wire may end: at any node, or at those on the edge of the frame only. */
  readonly endsAt: 'any' | 'edge'
  readonly handlingLengthM: number
  readonly fixingId: string
  /** Temperature when it is strained. */
  readonly setC: number
  /** Whose weight it has to carry; `null` for nothing but itself. */
  readonly plantKindId: string | null
  /** How many of these frames are built alike. */
  readonly repeat: number
}

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
