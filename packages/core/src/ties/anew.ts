import type { PlantKind } from '../kinds/index.ts'
import type { CalendarDate, Hemisphere } from '../season/index.ts'
import { baseDiameterMm } from '../wood/index.ts'
import type { Piece, Tie, TieFailure } from '../wood/index.ts'
import { tightDiameterMm, usualLoopMm } from './loop.ts'
import type { TieMaterial } from './materials.ts'

export interface Anew {
  /** How thick the wood under the tie is taken to be, mm to a tenth. */
  readonly stemDiameterMm: number
  /** The usual slack round that, mm. */
  readonly loopLengthMm: number
}

/**
 * The loop that a tie gets when it is let out or tied anew on a day: the usual slack round the wood as thick as its kind
 * has it by then. A tie that has bitten in tells more than the kind does: the wood fills it, so it is as thick at the
 * least as the loop, stretched as far as its material gives, lets it be. `failure` is `null` for a tie that held.
 */
export function tiedAnew(
  tie: Tie,
  piece: Piece,
  kind: PlantKind,
  material: TieMaterial | undefined,
  on: CalendarDate,
  hemisphere: Hemisphere,
  failure: TieFailure | null,
): Anew {
  const filledMm =
    failure === 'bitten'
      ? tightDiameterMm({ ...tie, loopLengthMm: tie.loopLengthMm * (1 + (material?.stretch ?? 0)) })
      : 0
  const thickMm = Math.max(tie.stemDiameterMm, baseDiameterMm(piece, kind, on, hemisphere), filledMm)
  const stemDiameterMm = Math.round(thickMm * 10) / 10
  return { stemDiameterMm, loopLengthMm: usualLoopMm(tie.hitch, stemDiameterMm, tie.supportDiameterMm) }
}
