export { endStiffness } from './check-rows.ts'
export { assumptions, coverage, missingInputs, outcomeOf, sources, verdicts } from './check.ts'
export type { Assumption, Check, CheckUnit, Missing, Outcome, SourceKey, Verdict } from './check.ts'
export { checkFrame, isWoundWrongly } from './checks.ts'
