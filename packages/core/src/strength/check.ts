import type { FrameDesign, PlannedSite } from '../design/index.ts'
import type { Catalogue, Fixing } from '../catalogue/index.ts'
import type { AnchorId, CheckCode, Frame } from '../frame/index.ts'
import type { Drive } from '../ground/index.ts'
import type { WireLine, WireLoads } from '../loads/index.ts'

/** `none`: it is so or not, and no amount of it is asked for. */
export type CheckUnit = 'N' | 'm' | 'Nm' | 'm/s' | 'none'

/** What was taken for granted in a check; each has its words in the translations. */
export const assumptions = [
  'soil-by-feel',
  'safety-two',
  'safety-in-code',
  'leaf-half-solid',
  'hinged-foot',
  'rigid-ends',
  'wet-wood',
  'plug-packet',
  'prying',
  'even-load',
  'all-wires-worst',
  'drive-as-logged',
  'drive-full-depth',
  'gust-as-given',
  'two-years-stretch',
  'no-sliding',
  'posts-share',
  'may-lean',
  'rows-shelter',
  'share-evenly',
  'fence-as-measured',
  'nails-dried-out',
  'half-the-nails',
  'earth-at-rest',
  'friction-on-floor',
  'outdoors-derated',
  'ends-made-off',
  'pull-and-shear',
  'mild-steel',
  'gives-in-frost',
  'cables-share',
  'cover-off-in-winter',
  'net-holds-snow',
  'water-ponds',
  'one-person',
  'hinged-ends',
  'stands-by-itself',
  'foot-in-concrete',
  'own-weight-only',
  'strands-share',
  'notch-full-width',
  'soil-dry-or-moist',
] as const
export type Assumption = (typeof assumptions)[number]
export const sources = [
  'irvine',
  'ibc-1807',
  'ibc-1806',
  'perko',
  'nds-12',
  'plug-approval',
  'statics',
  'wind-pressure',
  'nds-12-nails',
  'flora',
  'pad-packet',
  'en-1991-canopy',
  'euler',
] as const
export type SourceKey = (typeof sources)[number]
/** `untold`: something that the check needs is not known. It counts as not holding until it is. */
export const verdicts = ['fails', 'untold', 'doubtful', 'holds'] as const
export type Verdict = (typeof verdicts)[number]

/** What is not known where a check cannot be told. */
export const missingInputs = ['wire', 'stock', 'screw', 'surface', 'fence', 'as-seen', 'figure'] as const
export type Missing = (typeof missingInputs)[number]
/**
 * One thing that has to hold: what is needed against what there is, as a range where it rests on a guess. It
 * holds when even the low end covers the need, fails when the high end does not, and cannot be told where
 * either is missing.
 */
export interface Check {
  readonly code: CheckCode
  /** Which wire, post or anchor it is about: the worst of its kind. */
  readonly subject: string
  readonly need: number | null
  readonly holding: readonly [number, number] | null
  readonly unit: CheckUnit
  readonly verdict: Verdict
  readonly missing: Missing | null
  readonly assumptions: readonly Assumption[]
  readonly source: SourceKey
  /** Figures for the advice: a depth to dig to, ballast to add. */
  readonly advice: { readonly depthM?: number; readonly ballastKg?: number; readonly moreM?: number }
  /** Where people could be hurt: local code and a licensed engineer stand above the figure. */
  readonly isStructural: boolean
}

export interface CheckContext {
  readonly frame: Frame
  /** With the weather that reaches it. */
  readonly site: PlannedSite
  readonly design: FrameDesign
  readonly catalogue: Catalogue
  readonly fixing: Fixing
  readonly lines: readonly WireLine[]
  readonly loads: WireLoads
  /** Anchors as they were driven. */
  readonly drives: ReadonlyMap<AnchorId, Drive>
}

type CheckInput = Omit<Check, 'verdict' | 'missing' | 'advice' | 'isStructural' | 'need' | 'holding'> &
  Partial<Pick<Check, 'advice' | 'isStructural' | 'missing'>> & {
    readonly need: number | null
    readonly holding: readonly [number, number] | null
  }

/** Need and holding are equal to rounding: what was cut to fit holds. */
const ROUNDING = 1e-9

/**
 * A check with its verdict. A figure that is missing, not a number or below zero makes it one that cannot be
 * told.
 */
export function check(input: CheckInput): Check {
  const need = isFigure(input.need) ? input.need : null
  const holding = input.holding !== null && input.holding.every(isFigure) ? input.holding : null
  const advice = Object.fromEntries(
    Object.entries(input.advice ?? {}).filter(([, figure]) => isFigure(figure)),
  )
  const rest = { isStructural: false, ...input, advice, need, holding }
  if (need === null || holding === null)
    return { ...rest, verdict: 'untold', missing: input.missing ?? 'figure' }
  const [low, high] = holding
  const verdict = need <= low * (1 + ROUNDING) ? 'holds' : need <= high ? 'doubtful' : 'fails'
  return { ...rest, verdict, missing: null }
}

/** Infinity holds anything, and is a figure; nothing needs it. */
const isFigure = (value: number | null): value is number => value !== null && value >= 0

/**
 * How often the need is covered at the worse end; `null` where that cannot be told, Infinity where nothing is
 * asked.
 */
export function coverage({ need, holding }: Pick<Check, 'need' | 'holding'>): number | null {
  if (need === null || holding === null) return null
  return need === 0 ? Infinity : holding[0] / need
}

/**
 * What all checks of a frame come to, and how many there are of each: the one verdict that every screen and
 * paper gives.
 */
export interface Outcome {
  readonly verdict: Verdict
  readonly counts: Readonly<Record<Verdict, number>>
  /** Everything but what holds. */
  readonly open: number
}

export function outcomeOf(checks: readonly Check[]): Outcome {
  const counts = { fails: 0, untold: 0, doubtful: 0, holds: 0 }
  for (const one of checks) counts[one.verdict]++
  const verdict = verdicts.find((of) => counts[of] > 0) ?? 'holds'
  return { verdict, counts, open: checks.length - counts.holds }
}

export const same = (value: number): readonly [number, number] => [value, value]
export const worstOf = <T>(list: readonly T[], of: (item: T) => number): T | undefined =>
  list.reduce<T | undefined>(
    (best, item) => (best === undefined || of(item) > of(best) ? item : best),
    undefined,
  )

/**
 * The code's figure is for posts that must not move. One in a row, or the foot of one that is held above, may lean in the worst gust of a year and be
 * set upright again; what it takes before it goes over is about four times that.
 */
export const CODE_MARGIN = 4
