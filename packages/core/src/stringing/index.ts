export { planStringing } from './pieces.ts'
export type { StringingLimits, StringingPlan, WirePiece } from './pieces.ts'
export { fewestTrails, trailBound } from './trails.ts'
export type { RunGraph, Trail } from './trails.ts'
