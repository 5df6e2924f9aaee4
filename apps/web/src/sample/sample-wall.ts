import type { FrameDesign, PlannedSite } from '@klados/core/design'

/** The worked example shown before there is anything of one's own. */
export const sampleWall: PlannedSite = {
  widthM: 9.2,
  usableHeightM: 1.65,
  firstForkM: 0.3,
  viewingEnd: 'left',
  avoid: [],
  surface: 'brick',
  setting: 'open',
  // Written out, so that the door does not carry the whole of planning with it.
  conditions: {
    soil: 'loam',
    frostDepthM: 0.5,
    coldestC: -15,
    hottestC: 35,
    windMPerS: 22,
    snowPa: 0,
    iceMm: 0,
  },
}

export const sampleDesign: FrameDesign = {
  pattern: {
    kind: 'diamonds',
    cell: { by: 'width', widthM: 0.8 },
    cellHeightM: null,
    rows: 1,
    closeCutEnd: false,
  },
  moveToleranceM: 0.04,
  dragged: {},
  wireId: 'stainless-2',
  tensionN: 150,
  endWrapM: 0.15,
  wireEnding: null,
  strainers: 1,
  handlingLengthM: 10,
  endsAt: 'any',
  rolls: [
    { lengthM: 25, price: 14 },
    { lengthM: 50, price: 25 },
  ],
  fixingId: 'eye-130',
  snap: 'none',
  ids: {},
  light: null,
  setC: 12,
  plantKindId: null,
  repeat: 1,
  standOffM: null,
  plantOffM: null,
  feetBallastKg: 0,
  unknown: [],
  boughtPrice: null,
}
