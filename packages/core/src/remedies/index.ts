export { INCH_GRAIN, METRIC_GRAIN, levers } from './levers.ts'
export type { Grain, Lever, LeverStep, LeverValue } from './levers.ts'
export { adviseAll } from './remedies.ts'
export type { Advice, AdviceContext, AllAdvice, Remedy } from './remedies.ts'
