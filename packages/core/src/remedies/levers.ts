import type { Catalogue, WireEnding } from '../catalogue/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import type { CheckCode } from '../frame/index.ts'

/** What of a design can be changed so that a check holds; each has its words in the translations. */
export const levers = [
  'tension',
  'light-tension',
  'wire',
  'light-wire',
  'fixing',
  'supports-closer',
  'posts-closer',
  'bays-shorter',
  'rafters-closer',
  'anchors-closer-along',
  'anchors-closer-across',
  'posts-deeper',
  'ends-deeper',
  'deeper',
  'post-stock',
  'end-stock',
  'beam-stock',
  'leg-stock',
  'arm-stock',
  'brace-stock',
  'screw',
  'flange-screw',
  'screws-in-line',
  'tie-strands',
  'wire-ending',
  'end-slab',
  'guys-flatter',
  'wires-apart',
  'strainers',
  'off-in-winter',
  'tie-higher',
  'tie-flatter',
  'tie-back',
  'brace',
  'more-legs',
  'lower',
  'wider-pot',
  'ballast',
  'feet-ballast',
  'onto-rails',
  'other-winding',
  'smaller-cells',
  'larger-cells',
] as const
export type Lever = (typeof levers)[number]

/** From what, or to what, a lever moves: a length, a pull, a number, an angle, or a thing of the catalogue. */
export type LeverValue =
  | { readonly is: 'length'; readonly m: number }
  | { readonly is: 'mass'; readonly kg: number }
  | { readonly is: 'force'; readonly N: number }
  | { readonly is: 'count'; readonly n: number }
  | { readonly is: 'screws'; readonly id: string; readonly n: number }
  | { readonly is: 'angle'; readonly deg: number }
  | { readonly is: 'wire' | 'fixing' | 'stock' | 'screw'; readonly id: string }
  | { readonly is: 'ending'; readonly id: WireEnding }

/** One change of a design along one lever. */
export interface LeverStep {
  readonly lever: Lever
  /** `null` where it changes what the thing is and not how much of it. */
  readonly from: LeverValue | null
  readonly to: LeverValue | null
  readonly design: FrameDesign
}

/** The steps in which a grower measures, so that what is proposed can be set out with a tape. */
export interface Grain {
  readonly depthM: number
  readonly spacingM: number
  readonly forceN: number
  readonly massKg: number
}
const INCH_M = 0.0254
const POUND_N = 4.4482216
const POUND_KG = 0.45359237
export const METRIC_GRAIN: Grain = { depthM: 0.05, spacingM: 0.1, forceN: 10, massKg: 5 }
export const INCH_GRAIN: Grain = {
  depthM: 2 * INCH_M,
  spacingM: 6 * INCH_M,
  forceN: 5 * POUND_N,
  massKg: 10 * POUND_KG,
}

/** What is tried to change, with what, in which steps. */
export interface Trying {
  readonly site: PlannedSite
  readonly design: FrameDesign
  readonly catalogue: Catalogue
  readonly grain: Grain
}
export type Tries = (trying: Trying) => LeverStep[]

/** Which levers can help a check, the most ordinary first. Whether one does is for the engine to say. */
export const leversOf: Readonly<Record<CheckCode, readonly Lever[]>> = {
  'wire-pull': [
    'off-in-winter',
    'tension',
    'light-tension',
    'wire-ending',
    'wire',
    'light-wire',
    'supports-closer',
    'smaller-cells',
    'posts-closer',
    'anchors-closer-along',
    'anchors-closer-across',
  ],
  'wire-sag': [
    'off-in-winter',
    'tension',
    'light-tension',
    'supports-closer',
    'smaller-cells',
    'posts-closer',
    'wire',
    'light-wire',
    'anchors-closer-along',
    'anchors-closer-across',
    'fixing',
  ],
  'strainer-travel': ['strainers', 'tension', 'light-tension', 'wire', 'light-wire'],
  'fixing-pull': [
    'onto-rails',
    'tension',
    'fixing',
    'supports-closer',
    'smaller-cells',
    'larger-cells',
    'wire',
  ],
  'fence-nails': ['onto-rails', 'tension', 'fixing'],
  'fence-rails': [],
  'fence-posts': [],
  winding: ['other-winding'],
  'anchor-pull': [
    'off-in-winter',
    'tie-higher',
    'tie-flatter',
    'guys-flatter',
    'screw',
    'screws-in-line',
    'tension',
    'light-tension',
    'posts-closer',
    'anchors-closer-along',
    'anchors-closer-across',
    'brace',
  ],
  'tie-pull': [
    'tie-strands',
    'wire-ending',
    'tie-higher',
    'tie-flatter',
    'tension',
    'light-tension',
    'wire',
    'brace',
  ],
  'end-sideways': ['ends-deeper', 'tie-back', 'brace', 'end-stock', 'tension', 'light-tension'],
  'end-bending': ['end-stock', 'tie-higher', 'tie-back', 'brace', 'tension', 'light-tension'],
  'end-foot': ['ends-deeper', 'end-stock', 'tie-higher', 'tension', 'light-tension'],
  'end-uplift': ['tie-flatter', 'tie-higher', 'ends-deeper', 'tie-back', 'tension', 'light-tension'],
  'brace-foot': ['brace-stock', 'tie-higher', 'tie-flatter', 'tie-back', 'tension', 'light-tension'],
  'post-sideways': ['posts-deeper', 'post-stock', 'posts-closer', 'bays-shorter'],
  'post-frost': ['posts-deeper', 'deeper'],
  'post-bearing': [
    'off-in-winter',
    'posts-deeper',
    'guys-flatter',
    'bays-shorter',
    'posts-closer',
    'anchors-closer-along',
    'anchors-closer-across',
    'wire',
    'tension',
  ],
  'guy-pull': [
    'off-in-winter',
    'guys-flatter',
    'wire-ending',
    'wire',
    'anchors-closer-along',
    'anchors-closer-across',
    'tension',
  ],
  'arm-bending': ['arm-stock', 'tension', 'light-tension', 'posts-closer'],
  'eye-bending': ['tension', 'fixing', 'smaller-cells', 'larger-cells', 'supports-closer'],
  'end-pressed': ['end-slab', 'tie-flatter', 'end-stock', 'ends-deeper', 'tension', 'light-tension', 'brace'],
  'brace-notch': ['brace-stock', 'tie-higher', 'tie-flatter', 'tie-back', 'tension', 'light-tension'],
  'post-buckling': [
    'off-in-winter',
    'post-stock',
    'end-stock',
    'brace-stock',
    'guys-flatter',
    'bays-shorter',
    'tension',
  ],
  'post-bending': ['post-stock', 'bays-shorter'],
  'post-uplift': ['posts-deeper', 'bays-shorter'],
  'beam-deflection': ['beam-stock', 'bays-shorter', 'rafters-closer'],
  'rafter-sideways': ['tension', 'beam-stock', 'wires-apart'],
  'beam-bending': ['beam-stock', 'bays-shorter', 'rafters-closer'],
  'cover-uplift': ['posts-deeper', 'flange-screw', 'anchors-closer-along', 'anchors-closer-across'],
  'leg-bending': ['leg-stock', 'more-legs', 'lower'],
  'tub-tips': ['ballast', 'wider-pot', 'lower'],
  'floor-tips': ['feet-ballast', 'lower'],
  'floor-slides': ['ballast', 'feet-ballast', 'wider-pot', 'lower'],
}
