import { tryFrame, withLastingIds } from '@klados/core/design'
import type { FrameDesign } from '@klados/core/design'
import type { Frame } from '@klados/core/frame'
import type { FrameDocument, PlaceBody } from '@klados/contract'
import { useCallback, useMemo } from 'react'
import { useCatalogue } from '../data/catalogue.ts'
import type { FrameDraft } from '../data/drafts.ts'

/** The frame as it was saved last, with the parts that others know; `null` for one that was never saved. */
export function useSavedFrame(
  gardenId: string,
  place: PlaceBody,
  stored: FrameDocument | undefined,
): Frame | null {
  const catalogue = useCatalogue(gardenId)
  // Laid out once for each saved version, not at every keystroke.
  return useMemo(
    () => (stored && stored.version > 0 ? tryFrame(place, stored.body.design, catalogue) : null),
    [place, stored, catalogue],
  )
}

/**
 * Gives a changed design the ids by which its parts are known: those of what it keeps of the frame as it was
 * saved, or of the revision that was brought back, and new ones for what is new. A frame that was never saved
 * has none to keep.
 */
export function useLastingIds(
  gardenId: string,
  place: PlaceBody,
  stored: FrameDocument | undefined,
  draft: Pick<FrameDraft, 'basis'> | undefined,
): (design: FrameDesign) => FrameDocument['body']['design'] {
  const catalogue = useCatalogue(gardenId)
  const saved = useSavedFrame(gardenId, place, stored)
  const basis = draft?.basis?.design
  const frame = useMemo(
    () => (basis ? tryFrame(place, basis, catalogue) : saved),
    [basis, place, catalogue, saved],
  )
  const version = stored?.version ?? 0
  return useCallback(
    (design) => withLastingIds(place, design, version > 0 ? { frame, version } : null, catalogue),
    [place, frame, version, catalogue],
  )
}
