import type { Place, Plant } from '@klados/contract'
import { distanceM, nearestAlong } from '@klados/core/geometry'
import type { Point } from '@klados/core/geometry'
import type { Stem } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'
import type { NewEntry } from '../../data/journal.ts'
import type { StemTraits } from './DrawPanel.tsx'

/** A stem drawn from this near to other wood grows from that wood. */
const GROWS_FROM_M = 0.05

/**
 * The entry for a drawn line. It belongs to the wood it starts on, else to the plant chosen, else to the
 * nearest foot.
 */
export function newStemEntry(
  points: readonly Point[],
  traits: StemTraits,
  bench: {
    place: Place
    plants: readonly Plant[]
    stems: readonly Stem[]
    plantId: string | null
    on: string
  },
): { entry: NewEntry; stemId: string } | null {
  const start = points[0]!
  const gap = (stem: Stem) => nearestAlong(stem.points, start).distanceM
  const parent = bench.stems
    .filter((stem) => stem.removedOn === null && gap(stem) <= GROWS_FROM_M)
    .sort((a, b) => gap(a) - gap(b))[0]
  const footGap = (plant: Plant) => distanceM(start, { xM: plant.body.xM, yM: 0 })
  const nearest = [...bench.plants].sort((a, b) => footGap(a) - footGap(b))[0]
  const plantId = parent?.plantId ?? bench.plantId ?? nearest?.id
  if (!plantId) return null
  const stemId = uuidv7()
  return {
    stemId,
    entry: {
      kind: 'stem.drawn',
      placeId: bench.place.id,
      plantId,
      at: bench.on,
      body: { v: 1, stemId, parentStemId: parent?.id ?? null, points, ...traits },
    },
  }
}
