import { tryFrame, withLastingIds } from '@klados/core/design'
import type { FrameDesign } from '@klados/core/design'
import type { FrameDocument, PlaceBody } from '@klados/contract'
import { useCallback, useMemo } from 'react'
import { useCatalogue } from '../data/catalogue.ts'

/**
 * Gives a changed design the ids by which its parts are known: those of what it keeps of the frame as it was saved, and
 * new ones for what is new. A frame that was never saved has none to keep.
 */
export function useLastingIds(
  gardenId: string,
  place: PlaceBody,
  stored: FrameDocument | undefined,
): (design: FrameDesign) => FrameBodyDesign {
  const catalogue = useCatalogue(gardenId)
  // Laid out once for each saved version, not at every keystroke.
  const saved = useMemo(
    () =>
      stored && stored.version > 0
        ? { frame: tryFrame(place, stored.body.design, catalogue), version: stored.version }
        : null,
    [place, stored, catalogue],
  )
  return useCallback(
    (design) => withLastingIds(place, design, saved, catalogue) as FrameBodyDesign,
    [place, saved, catalogue],
  )
}
type FrameBodyDesign = FrameDocument['body']['design']
