import { requireRange } from '../errors/index.ts'
import type { Hitch } from '../wood/index.ts'

/** Stems, supports and loops lie well within these, millimetres. */
const LEAST_MM = 1e-9
const MOST_MM = 1e5

/**
 * Inner length in mm of a loop that just fits round a stem and its support, two circles of diameters `stemMm`
 * and `supportMm` (> 0) whose edges are `gapMm` (≥ 0) apart. With C the distance of centres, R and r the
 * larger and smaller radius: belt 2√(C²−(R−r)²) + π(R+r) + 2(R−r) asin((R−r)/C); figure-eight 2√(C²−(R+r)²) +
 * (R+r)(π + 2 asin((R+r)/C)). Plane geometry of open and crossed belts (any machinery handbook). Throws
 * `core/*` otherwise.
 */
export function requiredLoopMm(hitch: Hitch, stemMm: number, supportMm: number, gapMm = 0): number {
  requireRange('stemDiameterMm', stemMm, LEAST_MM, MOST_MM)
  requireRange('supportDiameterMm', supportMm, LEAST_MM, MOST_MM)
  requireRange('gapMm', gapMm, 0, MOST_MM)
  const R = Math.max(stemMm, supportMm) / 2
  const r = Math.min(stemMm, supportMm) / 2
  const C = R + r + gapMm
  if (hitch === 'belt') {
    return 2 * Math.sqrt(C * C - (R - r) ** 2) + Math.PI * (R + r) + 2 * (R - r) * Math.asin((R - r) / C)
  }
  return 2 * Math.sqrt(Math.max(0, C * C - (R + r) ** 2)) + (R + r) * (Math.PI + 2 * Math.asin((R + r) / C))
}

/** What a tie needs and has; diameters and lengths in mm. */
export interface Loop {
  readonly hitch: Hitch
  readonly supportDiameterMm: number
  readonly gapMm?: number
  readonly loopLengthMm: number
}

const BISECTIONS = 200

/** Stem diameter in mm at which the loop becomes tight; 0 when it is too short even for the support alone. */
export function tightDiameterMm(loop: Loop): number {
  const need = (d: number) => requiredLoopMm(loop.hitch, d, loop.supportDiameterMm, loop.gapMm)
  let low = LEAST_MM
  let high = requireRange('loopLengthMm', loop.loopLengthMm, 0, MOST_MM)
  if (need(low) >= loop.loopLengthMm) return 0
  for (let i = 0; i < BISECTIONS && high - low > 1e-12 * high; i++) {
    const middle = (low + high) / 2
    if (need(middle) < loop.loopLengthMm) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/**
 * Days after tying at which the loop becomes tight, for a stem whose diameter on a day is `diameterMm(day)`
 * (never falling): 0 when it is tight from the start, `null` when it is not within `horizonDays`.
 */
export function tightDay(
  loop: Loop,
  diameterMm: (day: number) => number,
  horizonDays: number,
): number | null {
  const limit = tightDiameterMm(loop)
  if (diameterMm(0) >= limit) return 0
  if (diameterMm(horizonDays) < limit) return null
  let low = 0
  let high = horizonDays
  for (let i = 0; i < BISECTIONS && high - low > 1e-9; i++) {
    const middle = (low + high) / 2
    if (diameterMm(middle) < limit) low = middle
    else high = middle
  }
  return high
}

/** Slack of a fresh tie: a finger's room on soft wood, growing with the stem. */
export function usualLoopMm(hitch: Hitch, stemMm: number, supportMm: number): number {
  return Math.round(requiredLoopMm(hitch, stemMm, supportMm) + 12 + stemMm * 0.6)
}
