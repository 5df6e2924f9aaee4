export { findKind, formsPlanted, plantKinds, spacedAlong } from './kinds.ts'
export type {
  Hazard,
  KnownPlantKind,
  PlantKindId,
  Hold,
  Light,
  PlantKind,
  PlantWeight,
  PruningStage,
  Winding,
} from './kinds.ts'
