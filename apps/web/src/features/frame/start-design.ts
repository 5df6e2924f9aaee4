import type { FrameBody, PlaceBody } from '@klados/contract'
import { findWire } from '@klados/core/materials'

const TIER_STEP_M = 0.4
const CELL_M = 0.8

/** Where a new frame begins: ordinary practice on this wall, to be changed from there. */
export function startDesign(place: PlaceBody, kind: 'tiers' | 'diamonds'): FrameBody['design'] {
  const wire = findWire('stainless-2')!
  return {
    pattern: kind === 'tiers' ? startTiers(place) : startDiamonds(place),
    moveToleranceM: 0.04,
    dragged: {},
    wireId: wire.id,
    tensionN: wire.usualTensionN,
    endWrapM: 0.15,
    handlingLengthM: 12,
    rolls: wire.rolls.map((roll) => ({ ...roll })),
    fixingId: 'eye-100',
  }
}

export function startTiers(place: PlaceBody): FrameBody['design']['pattern'] {
  const tiers = Math.max(1, Math.min(12, Math.floor(place.usableHeightM / TIER_STEP_M + 1e-6) + 1))
  const heightsM = Array.from(
    { length: tiers },
    (_, i) => Math.round((place.firstForkM + i * TIER_STEP_M) * 1000) / 1000,
  )
  return { kind: 'tiers', heightsM, maxSupportSpacingM: 2.4 }
}

export function startDiamonds(place: PlaceBody): FrameBody['design']['pattern'] {
  const widthM = Math.min(CELL_M, place.widthM)
  return { kind: 'diamonds', cell: { by: 'width', widthM }, cellHeightM: null, rows: 1, closeCutEnd: false }
}
