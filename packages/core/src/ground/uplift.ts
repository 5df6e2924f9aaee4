import { requireRange } from '../errors/index.ts'
import { MOST_M } from './limits.ts'
import type { Soil } from './soils.ts'

/** Earth that was tamped back presses about half as much sideways as it weighs. */
const AT_REST = 0.5
/** Wood slides on earth at so much of the earth's own angle. */
const SLIDES_AT = 2 / 3
/** Cohesive earth sticks to a post with so much of its cohesion. */
const STICKS = 0.5
const SAFETY = 2

/**
 * What the earth round a post holds it down with, newtons, from the least to the most that the soil shows: friction
 * of tamped earth at rest on its sides, ½ K0 γ d² tan(2φ/3) U, and half its cohesion on the same sides, over a
 * safety of 2 (earth pressure at rest; adhesion of short piles, both as in any manual of foundations).
 */
export function pullOutN(
  soil: Soil,
  post: { readonly depthM: number; readonly widthM: number },
): readonly [number, number] {
  const d = requireRange('depthM', post.depthM, 0, MOST_M)
  const aroundM = Math.PI * requireRange('widthM', post.widthM, 1e-4, MOST_M)
  const held = (end: 0 | 1) => {
    const slide = Math.tan((SLIDES_AT * soil.frictionDeg[end] * Math.PI) / 180)
    const rubN = (AT_REST * soil.unitWeightNPerM3 * d * d * slide * aroundM) / 2
    return (rubN + STICKS * soil.cohesionPa[end] * d * aroundM) / SAFETY
  }
  return [held(0), held(1)]
}
