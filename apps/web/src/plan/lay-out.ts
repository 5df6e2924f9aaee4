import type { Catalogue } from '@klados/core/catalogue'
import type { FrameDesign, PlannedSite } from '@klados/core/design'
import { drawFrame, drawSite } from '@klados/core/drawing'
import type { DisplayList } from '@klados/core/drawing'
import { CoreError } from '@klados/core/errors'
import { frameOptions, makeFrame } from '@klados/core/frame'
import type { Frame } from '@klados/core/frame'
import type { ViewDirection } from '@klados/core/geometry'

/** The frame alone, for pictures: `null` where its measures are impossible. */
export function layOut(
  site: PlannedSite,
  design: Pick<FrameDesign, 'pattern' | 'moveToleranceM' | 'dragged' | 'snap'>,
  catalogue: Catalogue,
): Frame | null {
  try {
    return makeFrame(site, design.pattern, frameOptions(design, catalogue))
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

const ANY = { moveToleranceM: 0, dragged: {}, snap: 'none' } as const

export function drawLaid(frame: Frame, catalogue: Catalogue, view: ViewDirection = 'elevation'): DisplayList {
  return drawFrame(frame, { view, ...frameOptions(ANY, catalogue) })
}

/** A place with frames on it, from the front. */
export function drawPlace(
  site: PlannedSite,
  frames: readonly (Frame | null)[],
  catalogue: Catalogue,
): DisplayList {
  return [
    ...drawSite(site, site.surface),
    ...frames.flatMap((frame) => (frame ? drawLaid(frame, catalogue) : [])),
  ]
}
