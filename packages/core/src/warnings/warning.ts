import type { Catalogue } from '../catalogue/index.ts'
import type { StrungWire } from '../bill/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import type { Frame } from '../frame/index.ts'

/** What growers get wrong and no sum shows; each has its words, with the reason, in the translations. */
export const warningCodes = [
  'water-near-fruit',
  'string-from-soil',
  'string-smooth',
  'air-gap-small',
  'pull-many-bends',
  'fence-unknown',
  'tree-near-wall',
  'pole-thin',
  'pot-small',
  'pot-large',
  'stake-shallow',
  'leg-shallow',
  'floor-load',
  'pole-for-roots',
  'too-thick-to-hold',
  'floor-load-feet',
  'feet-in-floor',
  'frost-lifts',
  'canes-short',
  'no-room-beyond',
] as const
export type WarningCode = (typeof warningCodes)[number]

export interface CraftWarning {
  readonly code: WarningCode
  /** What the sentence says, metres or a count. */
  readonly figures: Readonly<Record<string, number>>
  /** The same design with what it asks for put right; left out where that is for the grower to choose. */
  readonly better?: FrameDesign
}

/** A design as it is laid out and strung here. */
export interface Warned {
  readonly frame: Frame
  readonly site: PlannedSite
  readonly design: FrameDesign
  readonly catalogue: Catalogue
  readonly wires: readonly StrungWire[]
}
