export { CoreError, coreErrorCodes, requireFinite, requirePositive, requireRange } from './core-error.ts'
export type { CoreErrorCode } from './core-error.ts'
