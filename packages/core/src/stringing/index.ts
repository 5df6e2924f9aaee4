export { planStringing } from './pieces.ts'
export type { StringingPlan } from './pieces.ts'
export { trailBound } from './trails.ts'
export type { RunGraph } from './trails.ts'
