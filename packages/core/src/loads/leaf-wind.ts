import { gustAt, windForceN } from './wind.ts'

/** Share of a leafy band's outline that stops wind, and its drag. */
export const LEAF_SOLIDITY = 0.5
export const LEAF_DRAG = 0.8

/**
 * Wind on a leafy band of this height, newtons for each metre of its length; `middleM` is where its middle
 * stands above the ground.
 */
export function leafWindNPerM(heightM: number, middleM: number, windMPerS: number): number {
  return windForceN({
    speedMPerS: gustAt(middleM, windMPerS),
    areaM2: heightM,
    solidity: LEAF_SOLIDITY,
    dragCoefficient: LEAF_DRAG,
  })
}
