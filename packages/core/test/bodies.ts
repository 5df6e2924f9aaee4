/** A stem of one season's wood, a metre straight up from the crown; a test says over it what it is about. */
export const grewBody = <R extends object>(pieceId: string, rest?: R) => ({
  v: 1 as const,
  pieceId,
  parent: { on: 'crown', leadId: null } as const,
  path: [
    { xM: 0, yM: 0 },
    { xM: 0, yM: 1 },
  ],
  seasonsOld: 1,
  baseMm: 9,
  tipMm: null,
  buds: null,
  side: null,
  role: null,
  ...rest,
})

/** A loop of jute around a stem and nothing else, half a metre up it; said over likewise. */
export const tieBody = <R extends object>(tieId: string, pieceId: string, rest?: R) => ({
  v: 2 as const,
  tieId,
  pieceId,
  alongM: 0.5,
  support: null,
  materialId: 'soft-jute',
  hitch: 'belt' as const,
  supportDiameterMm: 2,
  stemDiameterMm: 9,
  loopLengthMm: 60,
  ...rest,
})
