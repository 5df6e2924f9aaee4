import type { Wall } from '@klados/core/frame'
import { findWire } from '@klados/core/materials'
import type { FrameDesign } from '@klados/core/materials'

/** The worked example shown before there is anything of one's own. */
export const sampleWall: Wall = {
  widthM: 9.2,
  usableHeightM: 1.65,
  firstForkM: 0.3,
  viewingEnd: 'left',
  avoid: [],
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
  handlingLengthM: 10,
  rolls: findWire('stainless-2')!.rolls,
  fixingId: 'eye-100',
}
