import type { FrameDesign, PlannedSite } from '../design/index.ts'
import type { WireLine, WireLoads } from '../loads/index.ts'
import type { Drive } from '../ground/index.ts'
import { findStock, stockWidthM } from '../catalogue/index.ts'
import type { Catalogue, Fixing } from '../catalogue/index.ts'
import type { Frame } from '../frame/index.ts'

export type CheckCode =
  | 'wire-pull'
  | 'wire-sag'
  | 'strainer-travel'
  | 'fixing-pull'
  | 'anchor-pull'
  | 'end-sideways'
  | 'post-sideways'
  | 'post-frost'
  | 'post-bearing'
  | 'end-bending'
  | 'leg-bending'
  | 'beam-bending'
  | 'cover-uplift'
  | 'tub-tips'
  | 'brace-foot'
export type CheckUnit = 'N' | 'm' | 'Nm' | 'm/s'

/** What was taken for granted in a check; each has its words in the translations. */
export type Assumption =
  | 'soil-by-feel'
  | 'safety-two'
  | 'safety-in-code'
  | 'leaf-half-solid'
  | 'hinged-foot'
  | 'rigid-ends'
  | 'wet-wood'
  | 'plug-packet'
  | 'prying'
  | 'even-load'
  | 'all-wires-worst'
  | 'drive-as-logged'
  | 'drive-full-depth'
  | 'gust-as-given'
  | 'two-years-stretch'
  | 'no-sliding'
  | 'posts-share'
  | 'may-lean'
  | 'rows-shelter'
export type SourceKey =
  'irvine' | 'ibc-1807' | 'ibc-1806' | 'perko' | 'nds-12' | 'plug-approval' | 'statics' | 'wind-pressure'
export type Verdict = 'holds' | 'doubtful' | 'fails'

/**
 * One thing that has to hold: what is needed against what there is, as a range where it rests on a guess. It
 * holds when even the low end covers the need, fails when the high end does not.
 */
export interface Check {
  readonly code: CheckCode
  /** Which wire, post or anchor it is about: the worst of its kind. */
  readonly subject: string
  readonly need: number
  readonly holding: readonly [number, number]
  readonly unit: CheckUnit
  readonly verdict: Verdict
  readonly assumptions: readonly Assumption[]
  readonly source: SourceKey
  /** Figures for the advice: a depth to dig to, ballast to add. */
  readonly advice: { readonly depthM?: number; readonly ballastKg?: number; readonly moreM?: number }
  /** Where people could be hurt: local code and a licensed engineer stand above the figure. */
  readonly isStructural: boolean
}

export interface CheckContext {
  readonly frame: Frame
  readonly site: PlannedSite
  readonly design: FrameDesign
  readonly catalogue: Catalogue
  readonly fixing: Fixing
  readonly lines: readonly WireLine[]
  readonly loads: WireLoads
  /** Anchors as they were driven, by anchor id. */
  readonly drives: ReadonlyMap<string, Drive>
}

/** A check with its verdict; none where nothing is asked of it. */
export function check(input: Omit<Check, 'verdict' | 'advice' | 'isStructural'> & Partial<Check>): Check[] {
  if (!(input.need > 0)) return []
  const verdict: Verdict =
    input.need <= input.holding[0] * (1 + 1e-9)
      ? 'holds'
      : input.need <= input.holding[1]
        ? 'doubtful'
        : 'fails'
  return [{ advice: {}, isStructural: false, ...input, verdict }]
}

export const same = (value: number): readonly [number, number] => [value, value]
export const worstOf = <T>(list: readonly T[], of: (item: T) => number): T | undefined =>
  list.reduce<T | undefined>(
    (best, item) => (best === undefined || of(item) > of(best) ? item : best),
    undefined,
  )

/** Width that the ground feels: a free-standing post of ours is never set in a pipe. */
export function widthOf(catalogue: Catalogue, stockId: string): number {
  return stockWidthM(findStock(catalogue, stockId)!)
}
