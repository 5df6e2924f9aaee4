import type { BudGoal } from '../budget/index.ts'

/** What "a pencil", "a hand" and "short" mean in a garden; the craft's defaults, which a grower may set. */
export interface TrainingSettings {
  /** A cane worth laying is about a pencil thick. */
  readonly pencilMm: readonly [thin: number, thick: number]
  /** Joints longer than the kind's by this factor are long, the mark of a cane that grew too fast. */
  readonly longJoint: number
  readonly spurBuds: number
  /** Between spurs along an arm. */
  readonly spurStepM: number
  /** Wood this near to the head counts as the head's. */
  readonly headReachM: number
  /** A hand. */
  readonly handM: number
  /** Shoots left at a head in spring, counted up to a limit above it. */
  readonly shootsPerHead: number
  readonly shootLimitM: number
  /** Laterals of a laid main are cut back to so many buds. */
  readonly lateralBuds: number
  /** Wood shorter than this is short. */
  readonly shortM: number
  /** From this thickness on a cut is the saw's, millimetres. */
  readonly sawMm: number
  readonly goal: BudGoal
}

export const usualSettings: TrainingSettings = {
  pencilMm: [7, 12],
  longJoint: 1.25,
  spurBuds: 2,
  spurStepM: 0.16,
  headReachM: 0.3,
  handM: 0.1,
  shootsPerHead: 4,
  shootLimitM: 0.2,
  lateralBuds: 3,
  shortM: 0.45,
  sawMm: 25,
  goal: { by: 'plain', aim: 30, min: 26, max: 34 },
}
