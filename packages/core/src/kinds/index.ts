export { gripsMm, offWallM } from './kind.ts'
export { findKind, formsPlanted, plantKinds, spacedAlong } from './kinds.ts'
export type { Habit, Hold, PlantKind } from './kind.ts'
