import type { PlantKindId } from '../kinds/index.ts'
import type { Point } from '../geometry/index.ts'
import type { PieceRole } from '../wood/index.ts'
import type { PlantView } from './plant.ts'
import type { Question } from './question.ts'

/** A place that a mature plant of the system has: what stands there, or that nothing does. */
export interface Position {
  readonly what: 'head' | 'arm' | 'spur' | 'tier' | 'main'
  readonly side: 'left' | 'right' | null
  /** From the trunk outwards, or from below, 1 and up. */
  readonly n: number
  readonly at: Point
  readonly pieceId: string | null
}

export const taskCodes = [
  'one-shoot-up',
  'choose-dormant',
  'bleeds-late',
  'frost-two-passes',
  'green-selection',
  'hold-arms-at-45',
  'arms-to-level',
  'summer-laterals',
  'tie-in',
  'lay-before-buds',
  'rest',
] as const
export type TaskCode = (typeof taskCodes)[number]

/** What this stage of this year of the plant's life asks; its reason is in the texts. */
export interface Task {
  readonly code: TaskCode
  readonly count: number | null
}

/** A piece of a plant as one expects it, to be corrected: named within the skeleton, not yet in any journal. */
export interface ExpectedPiece {
  readonly name: string
  readonly on: string | null
  readonly alongM: number
  readonly path: readonly Point[]
  readonly seasonsOld: number
  readonly baseMm: number
  readonly role: PieceRole | null
  readonly side: 'left' | 'right' | 'up' | null
  readonly buds: number | null
}

/**
 * A training system: everything that is particular to one way of growing a plant. The bench, the solver and the tie
 * plan go by these answers alone and know no system by name.
 */
export interface TrainingSystem {
  readonly id: string
  readonly kinds: readonly PlantKindId[]
  /** It is trained along level wires and cannot do without. */
  readonly needsWires: boolean
  readonly positions: (view: PlantView) => readonly Position[]
  readonly tasks: (view: PlantView) => readonly Task[]
  /** What is to be chosen now; `null` where nothing is. */
  readonly question: (view: PlantView) => Question | null
  /** The wood that a plant of so many years has in this system at this place. */
  readonly skeleton: (view: PlantView, years: number) => readonly ExpectedPiece[]
}
