import { useState } from 'react'
import { useSearchParams } from 'react-router'
import type { Hit } from '../../elevation/Elevation.tsx'
import type { WoodBenchData } from './use-bench.ts'

/** What is chosen, and whose plant it is: the one picked, or the one that the chosen part is of. */
export function useChosen(data: WoodBenchData) {
  const [search] = useSearchParams()
  const tieAsked = search.get('tie')
  const [chosen, choose] = useState<Hit | null>(tieAsked ? { kind: 'tie', id: tieAsked } : null)
  const [plantId, setPlantId] = useState<string | null>(search.get('plant'))
  const piece = chosen?.kind === 'wood' ? data.state.pieces.get(chosen.id) : undefined
  const tie = chosen?.kind === 'tie' ? data.state.ties.get(chosen.id) : undefined
  const footId = chosen?.kind === 'foot' ? chosen.id : null
  const ownerId = plantId ?? piece?.plantId ?? tie?.plantId ?? footId
  // Where one plant stands alone there is none to choose: it is the one.
  const only = data.plants.length === 1 ? data.plants[0] : undefined
  const plant = [...data.plants, ...data.gone].find((one) => one.id === ownerId) ?? only ?? null
  const isGone = plant !== null && data.gone.includes(plant)
  return { chosen, choose, plantId, setPlantId, piece, tie, plant, isGone }
}

export type Chosen = ReturnType<typeof useChosen>
