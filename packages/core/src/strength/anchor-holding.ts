import type { ScrewOnOffer } from '../catalogue/index.ts'
import type { Anchor } from '../frame/index.ts'
import { screwHolding } from '../ground/index.ts'
import type { Drive, Holding, Soil } from '../ground/index.ts'

/** Where what an anchor holds pulls from, radians from the vertical. */
export function pullFromVerticalRad({ at, towards }: Anchor): number {
  const outM = Math.hypot(towards.xM - at.xM, towards.zM - at.zM)
  return Math.min(Math.PI / 2, Math.max(0, Math.atan2(outM, towards.yM - at.yM)))
}

/** As it should go in: in full, in the line of its pull. */
export const fullDrive = (screw: ScrewOnOffer, anchor: Anchor): Drive => ({
  depthAlongM: screw.lengthM,
  angleFromVerticalRad: Math.min(1.4, pullFromVerticalRad(anchor)),
  reworks: 0,
  torqueNm: null,
  pullTestN: null,
})

/** What a screw holds of its anchor's pull as it was driven, or driven as it should be. */
export const anchorHolding = (
  screw: ScrewOnOffer,
  soil: Soil,
  anchor: Anchor,
  drive: Drive = fullDrive(screw, anchor),
): Holding => screwHolding(screw, soil, drive, pullFromVerticalRad(anchor))
