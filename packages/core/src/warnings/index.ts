export { potForPole } from './standing.ts'
export { warningCodes } from './warning.ts'
export type { CraftWarning, WarningCode } from './warning.ts'
export { craftWarnings } from './warnings.ts'
