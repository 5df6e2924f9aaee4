import type { Rect } from '../geometry/index.ts'

/** What a place is: it decides which frames are offered there. */
export const placeKinds = ['wall', 'fence', 'row', 'bed', 'terrace', 'bench', 'tub'] as const
export type PlaceKind = (typeof placeKinds)[number]

/**
 * What stands round a place: the weather reaches it whole, over a roof's edge, through glass, or not at all.
 */
export const settings = ['open', 'terrace', 'glass', 'indoors'] as const
export type Setting = (typeof settings)[number]

export type ViewingEnd = 'left' | 'right'

/**
 * A place where no fixing may land: a round spot, or a band across the whole height (`vertical`) or width.
 */
export type AvoidSpot =
  | {
      readonly id: string
      readonly kind: 'point'
      readonly xM: number
      readonly yM: number
      readonly radiusM: number
      readonly what: string
    }
  | {
      readonly id: string
      readonly kind: 'band'
      readonly axis: 'vertical' | 'horizontal'
      readonly fromM: number
      readonly toM: number
      readonly what: string
    }

/**
 * Studs, rails, courses or joints: lines at equal steps, the first so far from the left end or above the
 * soil.
 */
export interface Rhythm {
  readonly firstM: number
  readonly stepM: number
}

/**
 * The measured place that a frame stands on or at: a wall, a fence, a row, a terrace. Metres. On walls the
 * usable height is counted from the first fork (where the plant will first branch, above the soil) up to the
 * highest sound fixing line, as growers measure it; in the open it is the height that a frame may have.
 */
export interface Site {
  readonly widthM: number
  readonly usableHeightM: number
  readonly firstForkM: number
  readonly viewingEnd: ViewingEnd
  readonly avoid: readonly AvoidSpot[]
  /** How much higher the ground is at the right end than at the left; rows follow it. */
  readonly riseM?: number
  /** Upright lines that fixings can be asked to sit on, such as studs. */
  readonly uprights?: Rhythm | null
  /** Level lines, such as rails or courses. */
  readonly levels?: Rhythm | null
}

/** Greatest place that is taken for real: a longer one is a slip of the decimal point. */
export const MAX_SITE_M = 1000

/** The part of the wall in which a pattern is laid out. */
export function usableRect(site: Site): Rect {
  return {
    leftM: 0,
    rightM: site.widthM,
    bottomM: site.firstForkM,
    topM: site.firstForkM + site.usableHeightM,
  }
}

/** From "so far from the viewing end" to x from the left. */
export function alongToX(site: Pick<Site, 'widthM' | 'viewingEnd'>, alongM: number): number {
  return site.viewingEnd === 'left' ? alongM : site.widthM - alongM
}

/** The nearest place of the ground that was measured, metres from the left: beyond it the ground goes on level. */
export const measuredAt = ({ widthM }: Pick<Site, 'widthM'>, xM: number): number =>
  Math.min(widthM, Math.max(0, xM))

/** Height of the ground at x, metres above the ground at the left end. */
export function groundAt(site: Pick<Site, 'widthM' | 'riseM'>, xM: number): number {
  return ((site.riseM ?? 0) * xM) / site.widthM
}
