export { potForPole } from './standing.ts'
export { craftWarnings, warningCodes } from './warnings.ts'
export type { CraftWarning, WarningCode } from './warnings.ts'
