import { NOT_SEEN } from '../src/wood/index.ts'
import type { Piece, Tie } from '../src/wood/index.ts'

/**
 * A piece that is nothing in particular: two metres straight up from the crown, drawn in its first summer.
 */
export const pieceOf = (rest: Partial<Piece> = {}): Piece => ({
  id: 's',
  plantId: 'p',
  parent: { on: 'crown', leadId: null },
  path: [
    { xM: 0, yM: 0 },
    { xM: 0, yM: 2 },
  ],
  led: [],
  drawnOn: '2026-07-01',
  seasonsThen: 0,
  baseMm: 5,
  measuredOn: '2026-07-01',
  tipMm: null,
  buds: null,
  side: null,
  ...NOT_SEEN,
  isTypical: false,
  calledRole: null,
  cuts: [],
  marks: [],
  nodeCounts: [],
  removedOn: null,
  removedWhy: null,
  ...rest,
})

export const tieOf = (rest: Partial<Tie> = {}): Tie => ({
  id: 't',
  pieceId: 's',
  plantId: 'p',
  alongM: 1,
  at: { xM: 0, yM: 1 },
  support: null,
  materialId: 'soft-jute',
  hitch: 'belt',
  supportDiameterMm: 3,
  stemDiameterMm: 12,
  loopLengthMm: 60,
  madeOn: '2026-03-01',
  setOn: '2026-03-01',
  lookedOn: null,
  postponedUntil: null,
  endedOn: null,
  endedWhy: null,
  ...rest,
})
