export {
  CoreError,
  coreErrorCodes,
  requireFinite,
  requirePositive,
  requireRange,
  requireWhole,
} from './core-error.ts'
