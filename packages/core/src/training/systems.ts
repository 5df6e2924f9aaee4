import { systems } from './systems/index.ts'
import type { TrainingSystem } from './system.ts'

export const trainingSystems: readonly TrainingSystem[] = systems

export const findSystem = (id: string | null): TrainingSystem | null =>
  trainingSystems.find((system) => system.id === id) ?? null

/** Systems that a kind is grown in. */
export const systemsFor = (kindId: string): readonly TrainingSystem[] =>
  trainingSystems.filter(({ kinds }) => kinds.some((id) => id === kindId))
