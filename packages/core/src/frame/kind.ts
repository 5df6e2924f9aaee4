import type { Surface, WireEnding } from '../catalogue/index.ts'
import type { AxisIds } from './axis.ts'
import { idsAlong } from './axis.ts'
import type { Fields, ValuesOf } from './field.ts'
import type { FrameOptions } from './frame-options.ts'
import type { Layout, LayoutBuilder } from './layout.ts'
import type { WireName } from './parts.ts'
import type { PlaceKind, Rhythm, Site } from './site.ts'

/** What has to hold in frames of one kind or another; each has its words in the translations. */
export const checkCodes = [
  'wire-pull',
  'wire-sag',
  'strainer-travel',
  'fixing-pull',
  'eye-bending',
  'fence-nails',
  'fence-rails',
  'fence-posts',
  'winding',
  'anchor-pull',
  'tie-pull',
  'end-sideways',
  'end-bending',
  'end-foot',
  'end-uplift',
  'brace-foot',
  'brace-notch',
  'arm-bending',
  'end-pressed',
  'post-sideways',
  'post-frost',
  'post-bearing',
  'post-buckling',
  'post-bending',
  'post-uplift',
  'beam-bending',
  'beam-deflection',
  'rafter-sideways',
  'guy-pull',
  'cover-uplift',
  'leg-bending',
  'tub-tips',
  'floor-tips',
  'floor-slides',
] as const
export type CheckCode = (typeof checkCodes)[number]

/** What loads, checks and the bill have to know of a kind beyond its parts. */
export interface FrameTraits {
  /**
   * Against a face that shelters it; upright in the open; lying over the ground; on legs that the wind bends.
   */
  readonly stands: 'on-face' | 'in-open' | 'over-ground' | 'on-legs'
  /** Whether people walk under it: always, where it is taller than they are, or never. */
  readonly isOverPeople: 'always' | 'when-tall' | 'never'
  /** A plant on each upright by itself, or one outline that all fill together. */
  readonly fills: 'outline' | 'each-upright' | 'one-upright'
  /** Posts of its own figures (`row`) or in concrete like those of roofs and covers. */
  readonly posts: 'tamped' | 'in-concrete'
  /** Follows the rise of the ground. */
  readonly followsSlope: boolean
  /** Wind under its cover lifts it. */
  readonly isCover: boolean
  /** Wire that would rust lies against the flesh of its plants. */
  readonly touchesFlesh: boolean
}

/** What a new frame goes by of its place. */
export interface StartPlace {
  readonly kind: PlaceKind
  readonly widthM: number
  readonly usableHeightM: number
  readonly firstForkM: number
  /** Rails of a fence, where they have been measured. */
  readonly levels?: Rhythm | null
  /** What fixings go into, where that is known: some of it is not drilled. */
  readonly surface?: Surface
}

/** What a design starts with besides its pattern. */
export interface StartWith {
  readonly wireId: string
  /** The light wire, for kinds that have one. */
  readonly lightWireId: string | null
  readonly fixingId: string
  readonly moveToleranceM: number
  readonly endWrapM: number
  /** `null` for the ending that is usual for the wire. */
  readonly wireEnding: WireEnding | null
  readonly handlingLengthM: number
}

/**
 * Parts of the sheet beyond drawing, marks, figures, materials, checks and cautions, which every frame has:
 * wires to cut and string, lengths to saw, screws to drive.
 */
export type SheetPart = 'stringing' | 'members' | 'anchors'

/** A whole size that could be wished for, near the one that was. */
export interface FitWish<P> {
  readonly pattern: P
  readonly sizeM: number
  readonly offShare: number
  readonly count: number
  readonly isHalfAtEnd: boolean
}

/** The site, what the catalogue and the grower say, and the ids that the parts keep. */
export interface Laying {
  readonly site: Site
  readonly options: FrameOptions
  /** Ids of things in order along an axis, which the layout then also knows. */
  readonly idsOf: (builder: LayoutBuilder, axis: string, positionsM: readonly number[]) => readonly string[]
}

export function createLaying(site: Site, options: FrameOptions, ids: AxisIds): Laying {
  return {
    site,
    options,
    idsOf: (builder, name, positionsM) => {
      const along = idsAlong(ids[name], positionsM.length)
      builder.axis(name, { positionsM, ids: along })
      return along
    },
  }
}

/**
 * A kind of frame, whole: its parameters, how it is laid out, what it is like, what it starts with, what must
 * be checked in it. The contract's schema, the form, the list of kinds for a place and the property tests
 * follow from it, so a new kind is one file and its line in `kinds/index.ts`, besides its words.
 */
export interface FrameKind<K extends string = string, F extends Fields = Fields, P = PatternOf<K, F>> {
  readonly kind: K
  readonly fields: F
  readonly traits: FrameTraits
  /** Where it is offered, and at which rank among the others there. */
  readonly places: Readonly<Partial<Record<PlaceKind, number>>>
  /** The kind of plant that most often grows on one: offered first where one is stood. */
  readonly usualPlant: string
  readonly startWith: StartWith
  readonly start: (place: StartPlace) => P
  /**
   * Throws a `frame/*` or `core/*` error for what cannot be laid here. Parameters are in their ranges
   * already.
   */
  readonly lay: (laying: Laying, pattern: P) => Layout
  readonly wires: (pattern: P) => readonly WireName[]
  readonly checks: (pattern: P) => readonly CheckCode[]
  readonly sheet: readonly SheetPart[]
  /** Sizes near the wished one that come out whole; none for kinds without a size that can give. */
  readonly fit?: (site: Site, pattern: P, toleranceShare: number) => readonly FitWish<P>[]
  /**
   * Parameters that somebody who begins need not think of: they have usual values, and are asked for after those that
   * decide what the frame is.
   */
  readonly later?: readonly (keyof F & string)[]
  /** Parameters that have no meaning for this pattern and are not asked for. */
  readonly hidden?: (pattern: P) => readonly (keyof F & string)[]
}

export type PatternOf<K extends string, F> = { readonly kind: K } & ValuesOf<F>

/** Writes a kind down with its own types. */
export const frameKind = <const K extends string, const F extends Fields>(
  record: FrameKind<K, F, PatternOf<K, F>>,
): FrameKind<K, F, PatternOf<K, F>> => record

/** Counts on either side of the one that comes nearest to the wanted size. */
const COUNTS_EITHER_SIDE = 3

/** Whole counts, and counts and a half, whose size is within the tolerance of the wanted one. */
export function wishesNear<P>(
  widthM: number,
  wantedM: number,
  toleranceShare: number,
  half: 0 | 0.5,
  make: (sizeM: number, count: number) => P,
): FitWish<P>[] {
  if (!(wantedM > 0) || !Number.isFinite(widthM / wantedM)) return []
  const middle = Math.round(widthM / wantedM)
  return Array.from({ length: 2 * COUNTS_EITHER_SIDE + 1 }, (_, i) => middle - COUNTS_EITHER_SIDE + i)
    .filter((count) => count >= 1)
    .map((count) => {
      const sizeM = widthM / (count + half)
      const offShare = Math.abs(sizeM / wantedM - 1)
      return { pattern: make(sizeM, count), sizeM, offShare, count, isHalfAtEnd: half > 0 }
    })
    .filter((wish) => wish.offShare <= toleranceShare)
}

/** The wires of a frame that is strung with one. */
export const MAIN_ONLY = (): readonly WireName[] => ['main']
export const NO_WIRES = (): readonly WireName[] => []

/** Traits of frames against a wall or fence. */
export const ON_FACE: FrameTraits = {
  stands: 'on-face',
  isOverPeople: 'never',
  fills: 'outline',
  posts: 'tamped',
  followsSlope: false,
  isCover: false,
  touchesFlesh: false,
}
export const WALL_WIRE: StartWith = {
  wireId: 'stainless-2',
  lightWireId: null,
  fixingId: 'eye-130',
  moveToleranceM: 0.04,
  endWrapM: 0.15,
  wireEnding: null,
  handlingLengthM: 12,
}
/** Where lines meet at an eye their pulls add up: it is a stronger one. */
export const LATTICE_WIRE: StartWith = { ...WALL_WIRE, fixingId: 'eye-140' }
export const FIELD_WIRE: StartWith = {
  wireId: 'high-tensile-2.5',
  lightWireId: null,
  fixingId: 'eye-100',
  moveToleranceM: 0.3,
  endWrapM: 0.4,
  // Long lines of hard wire are pressed, which leaves most of their strength.
  wireEnding: 'crimp',
  handlingLengthM: 250,
}
const LINE_WIRE_CHECKS = ['wire-pull', 'wire-sag', 'strainer-travel'] as const
export const ON_FACE_CHECKS = (): readonly CheckCode[] => [...LINE_WIRE_CHECKS, 'fixing-pull', 'eye-bending']
export const WIRE_CHECKS: readonly CheckCode[] = LINE_WIRE_CHECKS

/** Least length that is one, metres: what is thinner is a slip of the decimal point. */
export const LEAST_M = 0.001
/** Greatest width or height that a pattern may ask for, metres: that of the largest place. */
export const MAX_SIZE_M = 1000
export const centimetres = (m: number) => Math.round(m * 100) / 100
