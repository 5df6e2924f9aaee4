import type { Rect } from '../geometry/index.ts'

export type WallEnd = 'left' | 'right'

/** A place where no fixing may land: a round spot, or a band across the whole height (`vertical`) or width. */
export type AvoidSpot =
  | { readonly id: string; readonly kind: 'point'; readonly xM: number; readonly yM: number; readonly radiusM: number; readonly what: string }
  | { readonly id: string; readonly kind: 'band'; readonly axis: 'vertical' | 'horizontal'; readonly fromM: number; readonly toM: number; readonly what: string } // prettier-ignore

/**
 * The measured wall or fence that a frame stands on. Metres. The usable height is counted from the first fork (where
 * the plant will first branch, above the soil) up to the highest sound fixing line, as growers measure it.
 */
export interface Wall {
  readonly widthM: number
  readonly usableHeightM: number
  readonly firstForkM: number
  readonly viewingEnd: WallEnd
  readonly avoid: readonly AvoidSpot[]
}

/** Greatest wall that is taken for real: a longer one is a slip of the decimal point. */
export const MAX_WALL_M = 1000

/** The part of the wall in which a pattern is laid out. */
export function usableRect(wall: Wall): Rect {
  return {
    leftM: 0,
    rightM: wall.widthM,
    bottomM: wall.firstForkM,
    topM: wall.firstForkM + wall.usableHeightM,
  }
}

/** From "so far from the viewing end" to x from the left. */
export function alongToX(wall: Pick<Wall, 'widthM' | 'viewingEnd'>, alongM: number): number {
  return wall.viewingEnd === 'left' ? alongM : wall.widthM - alongM
}
