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
}

/** Soil ends so far under the rim, or water runs over it. */
export const HEAD_SPACE_M = 0.025
/** What holds less than this is sold as a pot. */
const TUB_FROM_LITRES = 25

/** What of a frame has to go into its pot: how deep, and how wide at the soil. */
interface Foot {
  readonly buriedM: number
  readonly acrossM: number
}

/**
 * Draws the pot in the middle of the place and returns where its soil is; without a pot that is the ground.
 */
export function standIn(
  builder: LayoutBuilder,
  pot: Pot | null,
  midM: number,
  { buriedM, acrossM }: Foot,
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
  builder.unit({ id: 'pot', good: potSoilLitres(pot) < TUB_FROM_LITRES ? 'pot' : 'tub', outline })
  return heightM - HEAD_SPACE_M
}

export function potSoilLitres({ shape, widthM, heightM }: Pot): number {
  const areaM2 = shape === 'round' ? (Math.PI / 4) * widthM ** 2 : widthM ** 2
  return areaM2 * Math.max(0, heightM - HEAD_SPACE_M) * 1000
}
