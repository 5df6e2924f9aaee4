import type { LineId, MemberId } from '../frame/index.ts'
import { choice, noneOr, number, oneOf, part, uuid } from '../shape/index.ts'
import type { ValueOf } from '../shape/index.ts'

/** Distance along a piece or a support; longer than any that is taken for real. */
export const alongM = number(0, 1000)

export const parentShape = oneOf(
  'on',
  { on: choice('piece'), pieceId: uuid, alongM },
  { on: choice('crown'), leadId: noneOr(uuid) },
  { on: choice('below-graft') },
  { on: choice('ground') },
)

export const supportShape = oneOf(
  'on',
  { on: choice('line'), frameId: uuid, lineId: part<LineId>(), alongM },
  { on: choice('member'), frameId: uuid, memberId: part<MemberId>(), alongM },
)

/**
 * Where a piece begins: on another piece, so many metres from that one's base; at the crown, for one of the
 * plant's leads where it has several; below the graft; out of the ground.
 */
export type Parent = ValueOf<typeof parentShape>

/** A wire, stake, pole or post that a tie holds on to, and where along it, metres from its start. */
export type Support = ValueOf<typeof supportShape>
