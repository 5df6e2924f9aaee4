import { requireFinite } from '../errors/index.ts'
import { distanceM, lerp, nearestOnSegment, requirePoint } from './point.ts'
import type { Point } from './point.ts'

/** Length in metres of a line through `points`; 0 for fewer than two. */
export function polylineLengthM(points: readonly Point[]): number {
  points.forEach(requirePoint)
  let sum = 0
  for (let i = 1; i < points.length; i++) sum += distanceM(points[i - 1]!, points[i]!)
  return sum
}

/** The point `alongM` metres from the start of the line, held to its ends. Throws `core/*`. */
export function pointAlong(points: readonly Point[], alongM: number): Point {
  points.forEach(requirePoint)
  let left = Math.max(0, requireFinite('alongM', alongM))
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1]!
    const b = points[i]!
    const step = distanceM(a, b)
    if (left <= step && step > 0) return lerp(a, b, left / step)
    left -= step
  }
  return points.at(-1)!
}

/**
 * The first `lengthM` metres of the line, ending in a new point; the whole line where it is no longer than
 * that.
 */
export function cutPolyline(points: readonly Point[], lengthM: number): Point[] {
  points.forEach(requirePoint)
  const kept: Point[] = [points[0]!]
  let left = requireFinite('lengthM', lengthM)
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1]!
    const b = points[i]!
    const step = distanceM(a, b)
    if (step >= left) {
      if (left > 0) kept.push(lerp(a, b, left / step))
      return kept
    }
    kept.push(b)
    left -= step
  }
  return kept
}

/** The place on the line nearest to `p`: the point, its distance from p, and metres along from the start. */
export function nearestAlong(
  points: readonly Point[],
  p: Point,
): { point: Point; distanceM: number; alongM: number } {
  let best = { point: points[0]!, distanceM: distanceM(points[0]!, p), alongM: 0 }
  let run = 0
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1]!
    const b = points[i]!
    const step = distanceM(a, b)
    const near = nearestOnSegment(p, a, b)
    const gap = distanceM(near.point, p)
    if (gap < best.distanceM) best = { point: near.point, distanceM: gap, alongM: run + near.share * step }
    run += step
  }
  return best
}
