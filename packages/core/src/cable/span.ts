import { MAX_STEPS, RELATIVE_STEP } from './cable.ts'

/**
 * Unstretched length in metres of an elastic catenary on a level span: the root of span = H L0/EA + (2H/w)
 * asinh(wL0/2H) (Irvine 1981, ch. 2). All arguments positive, `w` may be 0; not checked here.
 */
export function unstretchedOnSpan(spanM: number, H: number, w: number, EA: number): number {
  let L0 = spanM / (1 + H / EA)
  if (w === 0) return L0
  for (let step = 0; step < MAX_STEPS; step++) {
    const x = (w * L0) / (2 * H)
    const error = (H * L0) / EA + (2 * H * Math.asinh(x)) / w - spanM
    const slope = H / EA + 1 / Math.sqrt(1 + x * x)
    const next = L0 - error / slope
    // The curve is concave and rising, so Newton from the left never overshoots below zero.
    if (Math.abs(next - L0) <= RELATIVE_STEP * L0) return next
    L0 = next
  }
  return L0
}

/** How fast that length falls as the pull rises, metres per newton, by the implicit function theorem. */
export function unstretchedSlope(L0: number, H: number, w: number, EA: number): number {
  if (w === 0) return -L0 / (EA * (1 + H / EA))
  const x = (w * L0) / (2 * H)
  const root = Math.sqrt(1 + x * x)
  const byPull = L0 / EA + (2 * Math.asinh(x)) / w - L0 / (H * root)
  return -byPull / (H / EA + 1 / root)
}

/**
 * Midspan sag in the plane of the load, metres. √(1+x²) − 1 is written as x²/(1+√(1+x²)): a taut wire has x
 * near 1e-4, where the difference would lose half its digits.
 */
export function spanSag(L0: number, H: number, w: number, EA: number): number {
  const x = (w * L0) / (2 * H)
  return (w * L0 * L0) / (8 * EA) + (L0 * x) / (2 * (1 + Math.sqrt(1 + x * x)))
}
