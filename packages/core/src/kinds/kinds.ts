import { requireRange } from '../errors/index.ts'
import { climbers } from './climbers.ts'
import { fruit } from './fruit.ts'
import type { PlantKind } from './kind.ts'

/** As what a plant came. */
export const formsPlanted = [
  'seedling',
  'cutting',
  'layer',
  'division',
  'bare-root',
  'potted',
  'maiden',
  'formed',
] as const

const kinds = [...fruit, ...climbers] as const

export type PlantKindId = (typeof kinds)[number]['id']
export type KnownPlantKind = PlantKind & { readonly id: PlantKindId }
export const plantKinds: readonly KnownPlantKind[] = kinds

export function findKind(id: string): KnownPlantKind | undefined {
  return plantKinds.find((kind) => kind.id === id)
}

/**
 * Plants that fit along `widthM` at the kind's spacing, at least one, half a spacing from each end. Metres
 * from the left. Throws `core/*`.
 */
export function spacedAlong(widthM: number, spacingM: number): number[] {
  const count = Math.max(
    1,
    Math.round(requireRange('widthM', widthM, 0, 1e5) / requireRange('spacingM', spacingM, 0.01, 1e5)),
  )
  return Array.from({ length: count }, (_, i) => ((i + 0.5) * widthM) / count)
}
