export { findKind, plantKinds, spacedAlong } from './kinds.ts'
export type { Hazard, Hold, Light, PlantKind, PruningStage } from './kinds.ts'
