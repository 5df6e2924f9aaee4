export { gripsMm, offWallM } from './kind.ts'
export { findKind, formsPlanted, plantKinds, spacedAlong } from './kinds.ts'
export type { KnownPlantKind, PlantKindId } from './kinds.ts'
export type { Habit, Hazard, Hold, Light, PlantKind, PlantWeight, PruningStage, Winding } from './kind.ts'
