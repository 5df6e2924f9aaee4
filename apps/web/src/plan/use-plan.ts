import { mayCutCheaper, planFrame } from '@klados/core/plan'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, PlaceBody } from '@klados/contract'
import { NOTHING_BUILT } from '@klados/core/journal'
import type { FrameCondition } from '@klados/core/journal'
import { useMemo } from 'react'
import { useBackground } from '../compute/use-background.ts'
import { useCatalogue } from '../data/catalogue.ts'
import { selectFramesNow } from '../data/readings.ts'
import { useAppSelector } from '../data/store.ts'

/** What has been built of a frame so far. */
export function useCondition(frameId: string): FrameCondition {
  return useAppSelector(selectFramesNow).get(frameId) ?? NOTHING_BUILT
}

/** A plan of the bench; while its cheapest cutting is still looked for, it is cut in a way that does. */
export type BenchPlan = FramePlan & { readonly isSearching: boolean }

/**
 * All that follows from a design here, with the garden's own catalogue and the anchors as they were driven. What
 * takes longer than a keystroke, the cheapest way to cut many pieces, is looked for beside it.
 */
export function usePlan(
  gardenId: string,
  frameId: string,
  place: PlaceBody,
  design: FrameBody['design'],
): BenchPlan {
  const catalogue = useCatalogue(gardenId)
  const { drives } = useCondition(frameId)
  const quick = useMemo(
    () => planFrame(place, design, { catalogue, drives, effort: 'quick' }),
    [place, design, catalogue, drives],
  )
  const work = useMemo(
    () => (mayCutCheaper(quick) ? { site: place, design, catalogue } : null),
    [quick, place, design, catalogue],
  )
  const { value, isCurrent, ended } = useBackground('cut', work)
  return useMemo(() => {
    if (work === null || !value || !isCurrent)
      return { ...quick, isSearching: work !== null && ended !== 'failed' }
    return { ...quick, ...value, isSearching: false }
  }, [quick, work, value, isCurrent, ended])
}
