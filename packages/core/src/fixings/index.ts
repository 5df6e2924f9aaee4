export { plugHoldingN } from './plug.ts'
export type { PlugRating } from './plug.ts'
export { specificGravity, withdrawalN } from './withdrawal.ts'
export type { WoodSpecies } from './withdrawal.ts'
