import type { Point, Rect } from '@klados/core/geometry'

/** From metres on the elevation to pixels of the sheet; the one place where pixels are made. */
export interface View {
  readonly widthPx: number
  readonly heightPx: number
  readonly pxPerM: number
  readonly x: (xM: number) => number
  readonly y: (yM: number) => number
  readonly toPoint: (px: number, py: number) => Point
}

/** What the person has done to the fitted view: zoom `k` and shift in pixels. */
export interface Camera {
  readonly k: number
  readonly x: number
  readonly y: number
}

export const FITTED: Camera = { k: 1, x: 0, y: 0 }

/** Room for the tapes and for labels that stand out of the wall, pixels. */
export const MARGIN_PX = { left: 56, right: 38, top: 46, bottom: 46 } as const

export function makeView(bounds: Rect, widthPx: number, heightPx: number, camera: Camera): View {
  const roomX = Math.max(40, widthPx - MARGIN_PX.left - MARGIN_PX.right)
  const roomY = Math.max(40, heightPx - MARGIN_PX.top - MARGIN_PX.bottom)
  const widthM = Math.max(0.1, bounds.rightM - bounds.leftM)
  const heightM = Math.max(0.1, bounds.topM - bounds.bottomM)
  const fit = Math.min(roomX / widthM, roomY / heightM)
  const pxPerM = fit * camera.k
  // Fitted, the wall stands in the middle of its room and on the lower edge, as a wall stands on its ground.
  const left = MARGIN_PX.left + (roomX - widthM * fit) / 2
  const foot = MARGIN_PX.top + roomY
  const originX = left * camera.k + camera.x - bounds.leftM * pxPerM
  const originY = foot * camera.k + camera.y + bounds.bottomM * pxPerM
  return {
    widthPx,
    heightPx,
    pxPerM,
    x: (xM) => originX + xM * pxPerM,
    y: (yM) => originY - yM * pxPerM,
    toPoint: (px, py) => ({ xM: (px - originX) / pxPerM, yM: (originY - py) / pxPerM }),
  }
}

/**
 * At this scale symbols have their full size; on a small picture they shrink with it, down to the least
 * share.
 */
const FULL_SIZE_PX_PER_M = 80
const LEAST_SYMBOL = 0.5
export const symbolScale = (view: View): number =>
  Math.min(1, Math.max(LEAST_SYMBOL, view.pxPerM / FULL_SIZE_PX_PER_M))
