import { requireRange } from '../errors/index.ts'
import { MOST_M, MOST_N } from './limits.ts'

export interface Embedment {
  readonly depthM: number
  /** A = 2.34 P/(S1 b), metres. */
  readonly factorAM: number
  /** S1 with the soil factor: allowable pressure at a third of the depth. */
  readonly bearingPa: number
}

/** IBC counts soil pressure no deeper than 12 ft. */
export const DEPTH_CAP_M = 12 * 0.3048

/**
 * Depth of a post that nothing holds at the ground line under a level load P at height h, by the
 * International Building Code 1807.3.2.1: d = A/2 (1 + √(1 + 4.36 h/A)), A = 2.34 P/(S1 b). With bearing
 * given per metre of depth, S1 is that rate times a third of the depth, at most of `DEPTH_CAP_M`; d is then
 * the positive root of d³ − K d − 1.09 h K = 0, K = 7.02 P/(rate b). `soilFactor` 2 is allowed by the code
 * for lone posts that may move a little. Throws `core/*` for loads or widths that are not positive.
 */
export function embedment(input: {
  readonly lateralLoadN: number
  readonly loadHeightM: number
  readonly postWidthM: number
  readonly soilFactor?: number
  readonly bearing: { readonly paPerM: number } | { readonly pa: number }
}): Embedment {
  const P = requireRange('lateralLoadN', input.lateralLoadN, 1e-9, MOST_N)
  const h = requireRange('loadHeightM', input.loadHeightM, 0, MOST_M)
  const b = requireRange('postWidthM', input.postWidthM, 1e-4, MOST_M)
  const factor = requireRange('soilFactor', input.soilFactor ?? 1, 1e-3, 1e3)
  if ('pa' in input.bearing)
    return atPressure(P, h, b, requireRange('lateralBearingPa', input.bearing.pa, 1e-3, MOST_N) * factor)
  const rate = requireRange('lateralBearingPaPerM', input.bearing.paPerM, 1e-3, MOST_N) * factor
  const depthM = depthAtRate((7.02 * P) / (rate * b), h)
  if (depthM > DEPTH_CAP_M) return atPressure(P, h, b, (rate * DEPTH_CAP_M) / 3)
  const bearingPa = (rate * depthM) / 3
  return { depthM, factorAM: (2.34 * P) / (bearingPa * b), bearingPa }
}

function atPressure(P: number, h: number, b: number, S1: number): Embedment {
  const A = (2.34 * P) / (S1 * b)
  return { depthM: (A / 2) * (1 + Math.sqrt(1 + (4.36 * h) / A)), factorAM: A, bearingPa: S1 }
}

/** Positive root of d³ − K d − 1.09 h K = 0: Newton from above, where the cubic is convex and rising. */
function depthAtRate(K: number, h: number): number {
  let d = Math.sqrt(K) + Math.cbrt(1.09 * h * K)
  for (let step = 0; step < 100; step++) {
    const next = d - (d ** 3 - K * d - 1.09 * h * K) / (3 * d * d - K)
    if (Math.abs(next - d) <= 1e-14 * d) return next
    d = next
  }
  return d
}

/**
 * The level load at height h that a post of this depth may carry: the same equation solved for P. Returns
 * newtons; 0 for a post that stands on the ground.
 */
export function lateralHoldingN(input: {
  readonly depthM: number
  readonly loadHeightM: number
  readonly postWidthM: number
  readonly soilFactor?: number
  readonly paPerM: number
}): number {
  const d = requireRange('depthM', input.depthM, 0, MOST_M)
  const h = requireRange('loadHeightM', input.loadHeightM, 0, MOST_M)
  const S1 =
    (requireRange('paPerM', input.paPerM, 1e-3, MOST_N) *
      (input.soilFactor ?? 1) *
      Math.min(d, DEPTH_CAP_M)) /
    3
  // From d = A/2 (1 + √(1 + 4.36 h/A)): A = d²/(d + 1.09 h).
  return d === 0
    ? 0
    : ((d * d) / (d + 1.09 * h)) * S1 * (requireRange('postWidthM', input.postWidthM, 1e-4, MOST_M) / 2.34)
}
