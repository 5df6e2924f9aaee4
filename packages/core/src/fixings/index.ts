export { plugHoldingN } from './plug.ts'
export { nailWithdrawalN, specificGravity, withdrawalN } from './withdrawal.ts'
