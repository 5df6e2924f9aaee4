export { warningCodes } from './warning.ts'
export type { CraftWarning } from './warning.ts'
export { craftWarnings } from './warnings.ts'
