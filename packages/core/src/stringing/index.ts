export { planStringing } from './pieces.ts'
export type { StringingLimits, StringingPlan, WirePiece } from './pieces.ts'
export { trailBound } from './trails.ts'
export type { RunGraph } from './trails.ts'
