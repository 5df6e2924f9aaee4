import type { Plant } from '@klados/contract'
import type { Piece, Tie } from '@klados/core/wood'
import type { BenchState } from './bench-state.ts'
import type { WoodBenchData } from './use-bench.ts'

/** What is chosen, and whose plant it is: the one picked, or the one that the chosen part is of. */
export interface Chosen {
  readonly piece: Piece | undefined
  readonly tie: Tie | undefined
  readonly plant: Plant | null
  readonly isGone: boolean
}

export function chosenIn(
  data: WoodBenchData,
  { chosen, plantId }: Pick<BenchState, 'chosen' | 'plantId'>,
): Chosen {
  const piece = chosen?.kind === 'wood' ? data.state.pieces.get(chosen.id) : undefined
  const tie = chosen?.kind === 'tie' ? data.state.ties.get(chosen.id) : undefined
  const footId = chosen?.kind === 'foot' ? chosen.id : null
  const ownerId = plantId ?? piece?.plantId ?? tie?.plantId ?? footId
  // Where one plant stands alone there is none to choose: it is the one.
  const only = data.plants.length === 1 ? data.plants[0] : undefined
  const plant = [...data.plants, ...data.gone].find((one) => one.id === ownerId) ?? only ?? null
  return { piece, tie, plant, isGone: plant !== null && data.gone.includes(plant) }
}
