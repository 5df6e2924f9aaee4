import type { Catalogue } from '@klados/core/catalogue'
import { tryFrame } from '@klados/core/design'
import type { PlannedSite } from '@klados/core/design'
import { drawFrame, drawSite } from '@klados/core/drawing'
import type { DisplayList } from '@klados/core/drawing'
import { frameOptions } from '@klados/core/frame'
import type { Frame } from '@klados/core/frame'
import type { ViewDirection } from '@klados/core/geometry'

/** The frame alone, for pictures: `null` where its measures are impossible. */
export const layOut = tryFrame

const ANY = { moveToleranceM: 0, dragged: {}, snap: 'none', ids: {} } as const

/** How wide each stock of a catalogue is, metres. */
export const stockWidths = (catalogue: Catalogue) => frameOptions(ANY, catalogue).stockWidthM

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

/** A drawing of the whole this many times as wide as high shows posts as threads. */
const LONG = 6
export const isLong = ({ widthM, usableHeightM }: Pick<PlannedSite, 'widthM' | 'usableHeightM'>): boolean =>
  widthM > LONG * usableHeightM
