import { CoreError } from '../errors/index.ts'
import { at3 } from '../geometry/index.ts'
import type { LayoutBuilder } from './layout.ts'

/** A tub or pot that a frame stands in; heights of the frame count from its soil. */
export interface Pot {
  readonly shape: 'round' | 'square'
  readonly widthM: number
  readonly heightM: number
  /** Stones or slabs low down, against the wind. */
  readonly ballastKg: number
  /** Gravel or shards on the bottom, so that water does not stand in the soil. */
  readonly drainageM: number
  readonly hasCharcoal: boolean
  /** Whoever plans has it already: it is not bought. */
  readonly isThere: boolean
}

/** Soil ends so far under the rim, or water runs over it. */
export const HEAD_SPACE_M = 0.025
/** What holds less than this is sold as a pot. */
const TUB_FROM_LITRES = 25

/** What of a frame has to go into its pot: how deep, and how wide at the soil. */
interface Foot {
  readonly buriedM: number
  readonly acrossM: number
  /** Litres of the pot that the frame's own parts take up below its soil line. */
  readonly takesLitres?: number
}

/**
 * Draws the pot in the middle of the place and returns where its soil is; without a pot that is the ground.
 */
export function standIn(
  builder: LayoutBuilder,
  pot: Pot | null,
  midM: number,
  { buriedM, acrossM, takesLitres = 0 }: Foot,
  id = 'pot',
): number {
  if (!pot) return 0
  const { widthM, heightM } = pot
  if (buriedM > heightM - HEAD_SPACE_M + 1e-9) {
    throw new CoreError('frame/not-in-pot', `${buriedM} m does not go into a pot of ${heightM} m`, {
      buriedM,
      potM: heightM,
      mostM: Math.max(0, heightM - HEAD_SPACE_M),
    })
  }
  if (acrossM > widthM + 1e-9) {
    throw new CoreError(
      'frame/wider-than-pot',
      `A foot ${acrossM} m across does not stand in a pot of ${widthM} m`,
      { acrossM, potM: widthM },
    )
  }
  const half = widthM / 2
  const outline = [
    at3(midM - half, 0),
    at3(midM + half, 0),
    at3(midM + half, heightM),
    at3(midM - half, heightM),
  ]
  const good = potSoilLitres(pot) < TUB_FROM_LITRES ? 'pot' : 'tub'
  builder.unit({ id, good, outline, isThere: pot.isThere })
  layFilling(builder, pot, id, takesLitres)
  return heightM - HEAD_SPACE_M
}

/** Charcoal keeps the soil of a pot sweet: a twentieth of it. */
const CHARCOAL_SHARE = 0.05

/** What goes into a pot besides what the frame takes up: drainage below, charcoal and soil above it. */
function layFilling(builder: LayoutBuilder, pot: Pot, id: string, takesLitres: number): void {
  const litres = potSoilLitres(pot)
  const share = Math.min(1, pot.drainageM / Math.max(1e-6, pot.heightM - HEAD_SPACE_M))
  const charcoal = pot.hasCharcoal ? litres * (1 - share) * CHARCOAL_SHARE : 0
  builder.fill({ id: `${id}-drainage`, good: 'gravel', litres: litres * share })
  builder.fill({ id: `${id}-charcoal`, good: 'charcoal', litres: charcoal })
  builder.fill({ id: `${id}-soil`, good: 'soil', litres: litres * (1 - share) - charcoal - takesLitres })
}

export function potSoilLitres({ shape, widthM, heightM }: Pot): number {
  const areaM2 = shape === 'round' ? (Math.PI / 4) * widthM ** 2 : widthM ** 2
  return areaM2 * Math.max(0, heightM - HEAD_SPACE_M) * 1000
}
