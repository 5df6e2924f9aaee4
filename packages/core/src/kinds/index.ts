export { findKind, plantKinds, spacedAlong } from './kinds.ts'
export type { Hazard, Hold, Light, PlantKind, PruningStage } from './kinds.ts'
export { plantWeight, windingOf } from './weight.ts'
export type { PlantWeight, Winding } from './weight.ts'
