export { cutFromStores } from './on-hand.ts'
export type { CutOnHand, FromStores, LengthOnHand } from './on-hand.ts'
export { cutFromRolls } from './rolls.ts'
export type { CuttingPlan, CutRoll, Effort, PieceDemand, RollSize } from './rolls.ts'
