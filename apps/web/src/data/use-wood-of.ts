import type { WoodState } from '@klados/core/journal'
import { useMemo } from 'react'
import { useSame } from '../ui/use-same.ts'
import { joinedWood, selectPartsOfPlants } from './readings.ts'
import { useAppSelector } from './store.ts'

/** The wood of some plants and of whatever hangs together with it; the same object while none of it changes. */
export function useWoodOf(plantIds: readonly string[]): WoodState {
  const byPlant = useAppSelector(selectPartsOfPlants)
  const parts = useSame([...new Set(plantIds.flatMap((id) => byPlant.get(id) ?? []))])
  return useMemo(() => joinedWood(parts.map((part) => part.now())), [parts])
}
