export { endStiffness } from './check-rows.ts'
export { checkFrame, isWoundWrongly } from './checks.ts'
export type { Assumption, Check, CheckCode, CheckUnit, SourceKey, Verdict } from './check.ts'
