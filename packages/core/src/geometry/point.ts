import { requireRange } from '../errors/index.ts'

/** A point of an elevation, metres: x to the right from the left end, y up from the soil. */
export interface Point {
  readonly xM: number
  readonly yM: number
}

export interface Rect {
  readonly leftM: number
  readonly bottomM: number
  readonly rightM: number
  readonly topM: number
}

/** Farther out than this there is no garden, and figures would lose their millimetres. */
const FARTHEST_M = 1e6

/** Throws `core/*` for a point that nobody can have measured; returns it. */
export function requirePoint<P extends Point>(p: P): P {
  if (Math.abs(p.xM) <= FARTHEST_M && Math.abs(p.yM) <= FARTHEST_M) return p
  requireRange('xM', p.xM, -FARTHEST_M, FARTHEST_M)
  requireRange('yM', p.yM, -FARTHEST_M, FARTHEST_M)
  return p
}

/**
 * Straight distance in metres. Not by `Math.hypot`: it guards against overflow that walls do not reach, at
 * ten times the cost.
 */
export function distanceM(a: Point, b: Point): number {
  const dx = b.xM - a.xM
  const dy = b.yM - a.yM
  return Math.sqrt(dx * dx + dy * dy)
}

export function lerp(a: Point, b: Point, share: number): Point {
  return { xM: a.xM + (b.xM - a.xM) * share, yM: a.yM + (b.yM - a.yM) * share }
}

/** The point of segment ab nearest to p, and how far along ab it lies (0 to 1). Throws `core/*`. */
export function nearestOnSegment(p: Point, a: Point, b: Point): { point: Point; share: number } {
  for (const one of [p, a, b]) requirePoint(one)
  const dx = b.xM - a.xM
  const dy = b.yM - a.yM
  const length2 = dx * dx + dy * dy
  const share =
    length2 === 0 ? 0 : Math.min(1, Math.max(0, ((p.xM - a.xM) * dx + (p.yM - a.yM) * dy) / length2))
  return { point: lerp(a, b, share), share }
}

/** Where segments ab and cd cross, as shares along each; `null` when they do not meet or run parallel. */
export function segmentCrossing(
  a: Point,
  b: Point,
  c: Point,
  d: Point,
): { point: Point; shareAb: number; shareCd: number } | null {
  for (const one of [a, b, c, d]) requirePoint(one)
  const rx = b.xM - a.xM
  const ry = b.yM - a.yM
  const sx = d.xM - c.xM
  const sy = d.yM - c.yM
  const cross = rx * sy - ry * sx
  if (Math.abs(cross) < 1e-15) return null
  const shareAb = ((c.xM - a.xM) * sy - (c.yM - a.yM) * sx) / cross
  const shareCd = ((c.xM - a.xM) * ry - (c.yM - a.yM) * rx) / cross
  const slack = 1e-9
  if (shareAb < -slack || shareAb > 1 + slack || shareCd < -slack || shareCd > 1 + slack) return null
  return { point: lerp(a, b, shareAb), shareAb, shareCd }
}
