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

/**
 * The line with as few of its corners as keep it within `toleranceM` of all of them (Ramer 1972; Douglas and Peucker
 * 1973); its ends stay. Throws `core/*`.
 */
export function simplified(points: readonly Point[], toleranceM: number): Point[] {
  points.forEach(requirePoint)
  const tolerance = Math.max(0, requireFinite('toleranceM', toleranceM))
  const isKept = new Set([0, points.length - 1])
  const open: (readonly [number, number])[] = [[0, points.length - 1]]
  for (let span = open.pop(); span; span = open.pop()) {
    const [from, to] = span
    let [farthest, gapM] = [-1, tolerance]
    for (let i = from + 1; i < to; i++) {
      const gap = distanceM(nearestOnSegment(points[i]!, points[from]!, points[to]!).point, points[i]!)
      if (gap > gapM) [farthest, gapM] = [i, gap]
    }
    if (farthest < 0) continue
    isKept.add(farthest)
    open.push([from, farthest], [farthest, to])
  }
  return points.filter((_, i) => isKept.has(i))
}

/** The same line so long: cut off, or run on the way it ends. Throws `core/*`. */
export function withLength(points: readonly Point[], lengthM: number): Point[] {
  const longM = polylineLengthM(points)
  if (requireFinite('lengthM', lengthM) <= longM || points.length < 2) return cutPolyline(points, lengthM)
  const [a, b] = [points.at(-2)!, points.at(-1)!]
  const step = distanceM(a, b)
  if (step === 0) return [...points]
  return [...points.slice(0, -1), lerp(a, b, 1 + (lengthM - longM) / step)]
}
