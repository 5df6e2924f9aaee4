export {
  CoreError,
  coreErrorCodes,
  requireFinite,
  requirePositive,
  requireRange,
  requireWhole,
} from './core-error.ts'
export type { CoreErrorCode } from './core-error.ts'
