export { INCH_GRAIN, METRIC_GRAIN, levers } from './levers.ts'
export type { Grain, LeverStep, LeverValue } from './levers.ts'
export { adviseAll } from './remedies.ts'
export type { AllAdvice, Remedy } from './remedies.ts'
