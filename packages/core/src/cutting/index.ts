export { cutFromStores } from './on-hand.ts'
export type { CutOnHand, LengthOnHand } from './on-hand.ts'
export { cutFromRolls } from './rolls.ts'
export type { CuttingPlan, Effort, PieceDemand, RollSize } from './rolls.ts'
