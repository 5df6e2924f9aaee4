export { plugHoldingN } from './plug.ts'
export type { PlugRating } from './plug.ts'
export { nailWithdrawalN, specificGravity, withdrawalN } from './withdrawal.ts'
export type { WoodSpecies } from './withdrawal.ts'
