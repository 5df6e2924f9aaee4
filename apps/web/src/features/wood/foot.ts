import type { Place, Plant } from '@klados/contract'
import { groundAt } from '@klados/core/frame'
import type { DeepPoint } from '@klados/core/geometry'
import type { WoodBenchData } from './use-bench.ts'

/** A plant this near to a spot of its frame stands at it, metres. */
const AT_SPOT_M = 0.05

/**
 * Where a plant comes out of the soil: at the spot of its frame that it stands at, in a pot or at a back post, else in
 * the front plane.
 */
export function footOf(
  place: Place,
  { trainedOn }: Pick<WoodBenchData, 'trainedOn'>,
  { body }: Pick<Plant, 'body'>,
): DeepPoint {
  const { xM, startNodeId } = body
  for (const { frame } of trainedOn) {
    const spot =
      frame.plants.find(({ id }) => id === startNodeId) ??
      frame.plants.find(({ at }) => at.zM === 0 && Math.abs(at.xM - xM) < AT_SPOT_M)
    if (spot) return spot.at.zM === 0 ? { xM, yM: spot.at.yM } : spot.at
  }
  return { xM, yM: groundAt(place.body, xM) }
}
