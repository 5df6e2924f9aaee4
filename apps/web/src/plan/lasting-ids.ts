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

export type WithIds = (design: FrameDesign) => FrameDocument['body']['design']

/**
 * Gives a changed design the ids by which its parts are known: those of what it keeps of the frame as it was
 * saved, or of the revision that was brought back, and new ones for what is new. A frame that was never saved
 * has none to keep.
 */
export function useLastingIds(
  gardenId: string,
  place: PlaceBody,
  saved: { readonly frame: Frame | null; readonly version: number },
  draft: Pick<FrameDraft, 'basis'> | undefined,
): WithIds {
  const catalogue = useCatalogue(gardenId)
  const basis = draft?.basis?.design
  const frame = useMemo(
    () => (basis ? tryFrame(place, basis, catalogue) : saved.frame),
    [basis, place, catalogue, saved.frame],
  )
  const { version } = saved
  return useCallback(
    (design) => withLastingIds(place, design, version > 0 ? { frame, version } : null, catalogue),
    [place, frame, version, catalogue],
  )
}
