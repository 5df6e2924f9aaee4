import type { PlantKind } from '../kinds/index.ts'
import type { Hemisphere } from '../season/index.ts'
import type { Piece, Tie, WoodState } from '../wood/index.ts'
import { lookAgain } from './look-again.ts'
import type { LookAgain } from './look-again.ts'
import { findTieMaterial } from './materials.ts'
import type { TieMaterial } from './materials.ts'

/** A tie that is on, what it holds and with what, and when to look at it again. */
export interface TieLook {
  readonly tie: Tie
  readonly piece: Piece
  readonly material: TieMaterial
  readonly look: LookAgain
}

/** Every tie that is on some wood of one kind; ties of a material that nobody knows tell no day. */
export function looksOf(
  wood: Pick<WoodState, 'pieces' | 'ties'>,
  kind: PlantKind,
  hemisphere: Hemisphere,
): TieLook[] {
  return [...wood.ties.values()].flatMap((tie): TieLook[] => {
    const piece = wood.pieces.get(tie.pieceId)
    const material = findTieMaterial(tie.materialId)
    if (tie.endedOn !== null || !piece || !material) return []
    return [{ tie, piece, material, look: lookAgain(tie, piece, kind, material, hemisphere) }]
  })
}
