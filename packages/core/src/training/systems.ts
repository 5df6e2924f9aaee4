import { findKind } from '../kinds/index.ts'
import { isWithin } from '../season/index.ts'
import type { PlantView } from './plant.ts'
import type { Question } from './question.ts'
import type { TrainingSystem } from './system.ts'
import { systems } from './systems/index.ts'

export const trainingSystems: readonly TrainingSystem[] = systems

export const findSystem = (id: string | null): TrainingSystem | null =>
  trainingSystems.find((system) => system.id === id) ?? null

/** Systems that a kind is grown in: those that suit how it grows. */
export function systemsFor(kindId: string): readonly TrainingSystem[] {
  const habit = findKind(kindId)?.habit
  return habit === undefined ? [] : trainingSystems.filter(({ suits }) => suits(habit))
}

/** What a plant asks at this stage of its year, in the order of the year. */
export const openQuestions = (system: TrainingSystem, view: PlantView): readonly Question[] =>
  system
    .year(view)
    .filter(({ window }) => isWithin(view.stage, window))
    .flatMap(({ code }) => system.question(view, code) ?? [])
