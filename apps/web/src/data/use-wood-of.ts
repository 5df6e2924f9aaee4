import type { WoodState } from '@klados/core/journal'
import { useDeferredValue, useMemo } from 'react'
import { shallowEqual } from 'react-redux'
import { joinedWood, selectPartsOfPlants } from './readings.ts'
import type { PartWood } from './readings.ts'
import { useAppSelector } from './store.ts'

/** The parts that tell of some plants; whoever asks is not bothered by what is written of others. */
function usePartsOf(plantIds: readonly string[]): readonly PartWood[] {
  return useAppSelector((state) => {
    const byPlant = selectPartsOfPlants(state)
    return [...new Set(plantIds.flatMap((id) => byPlant.get(id) ?? []))]
  }, shallowEqual)
}

function useJoined(parts: readonly PartWood[]): WoodState {
  return useMemo(() => joinedWood(parts.map((part) => part.now())), [parts])
}

/** The wood of some plants and of whatever hangs together with it; the same object while none of it changes. */
export const useWoodOf = (plantIds: readonly string[]): WoodState => useJoined(usePartsOf(plantIds))

/** The same a breath later, for what the thumb does not wait for. */
export const useWoodOfLater = (plantIds: readonly string[]): WoodState =>
  useJoined(useDeferredValue(usePartsOf(plantIds)))
