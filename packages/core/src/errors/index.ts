export { CoreError, coreErrorCodes, requirePositive, requireRange } from './core-error.ts'
export type { CoreErrorCode } from './core-error.ts'
