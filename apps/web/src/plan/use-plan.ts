import { planFrame } from '@klados/core/plan'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, PlaceBody } from '@klados/contract'
import { NOTHING_BUILT } from '@klados/core/journal'
import type { FrameCondition } from '@klados/core/journal'
import { useMemo } from 'react'
import { useCatalogue } from '../data/catalogue.ts'
import { selectFramesNow } from '../data/readings.ts'
import { useAppSelector } from '../data/store.ts'

/** What has been built of a frame so far. */
export function useCondition(frameId: string): FrameCondition {
  return useAppSelector(selectFramesNow).get(frameId) ?? NOTHING_BUILT
}

/**
 * All that follows from a design here, with the garden's own catalogue and the anchors as they were driven.
 */
export function usePlan(
  gardenId: string,
  frameId: string,
  place: PlaceBody,
  design: FrameBody['design'],
): FramePlan {
  const catalogue = useCatalogue(gardenId)
  const { drives } = useCondition(frameId)
  return useMemo(() => planFrame(place, design, { catalogue, drives }), [place, design, catalogue, drives])
}
