import { requireFinite } from '../errors/index.ts'
import { lerp, requirePoint } from './point.ts'
import type { Point } from './point.ts'

/**
 * A point of a frame in space: on the elevation, and `zM` metres behind its front plane (towards the viewer
 * is negative).
 */
export interface Point3 extends Point {
  readonly zM: number
}

/** A point of wood: as `Point3`, or of the front plane itself where nothing says how far behind it. */
export interface DeepPoint extends Point {
  readonly zM?: number
}

export function at3(xM: number, yM: number, zM = 0): Point3 {
  return { xM, yM, zM }
}

/** The point on the elevation alone, without its depth: what is written down of wood and nodes. */
export function flat({ xM, yM }: Point): Point {
  return { xM, yM }
}

/** A point of wood with its depth said. */
export const inSpace = ({ xM, yM, zM = 0 }: DeepPoint): Point3 => ({ xM, yM, zM })

export function distance3M(a: DeepPoint, b: DeepPoint): number {
  const [dx, dy, dz] = [b.xM - a.xM, b.yM - a.yM, (b.zM ?? 0) - (a.zM ?? 0)]
  return Math.sqrt(dx * dx + dy * dy + dz * dz)
}

/** Between two points; of two that lie in the front plane it lies there too. */
export function lerp3(a: DeepPoint, b: DeepPoint, share: number): DeepPoint {
  const on = lerp(a, b, share)
  if (a.zM === undefined && b.zM === undefined) return on
  const [from, to] = [a.zM ?? 0, b.zM ?? 0]
  return { ...on, zM: from + (to - from) * share }
}

/** Length in metres of a way in space; 0 for fewer than two points. */
export function pathLengthM(path: readonly DeepPoint[]): number {
  path.forEach(requirePoint)
  let sum = 0
  for (let i = 1; i < path.length; i++) sum += distance3M(path[i - 1]!, path[i]!)
  return sum
}

/** The point `alongM` metres from the start of a way in space, held to its ends. Throws `core/*`. */
export function alongPath(path: readonly DeepPoint[], alongM: number): DeepPoint {
  path.forEach(requirePoint)
  let left = Math.max(0, requireFinite('alongM', alongM))
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1]!, path[i]!]
    const step = distance3M(a, b)
    if (left <= step && step > 0) return lerp3(a, b, left / step)
    left -= step
  }
  return path.at(-1)!
}

/** The first `lengthM` metres of a way in space; the whole of it where it is no longer. Throws `core/*`. */
export function cutPath(path: readonly DeepPoint[], lengthM: number): DeepPoint[] {
  path.forEach(requirePoint)
  const kept: DeepPoint[] = [path[0]!]
  let left = requireFinite('lengthM', lengthM)
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1]!, path[i]!]
    const step = distance3M(a, b)
    if (step >= left) {
      if (left > 0) kept.push(lerp3(a, b, left / step))
      return kept
    }
    kept.push(b)
    left -= step
  }
  return kept
}

/** The same way so long: cut off, or run on the way it ends. Throws `core/*`. */
export function pathOfLength(path: readonly DeepPoint[], lengthM: number): DeepPoint[] {
  const longM = pathLengthM(path)
  if (requireFinite('lengthM', lengthM) <= longM || path.length < 2) return cutPath(path, lengthM)
  const [a, b] = [path.at(-2)!, path.at(-1)!]
  const step = distance3M(a, b)
  if (step === 0) return [...path]
  return [...path.slice(0, -1), lerp3(a, b, 1 + (lengthM - longM) / step)]
}

const SAME_M = 1e-9

/** The part of a way in space between two lengths of it; run backwards where `toM` is the lesser. Throws `core/*`. */
export function partOfPath(path: readonly DeepPoint[], fromM: number, toM: number): DeepPoint[] {
  if (toM < fromM) return partOfPath(path, toM, fromM).reverse()
  const part = [alongPath(path, fromM)]
  let run = 0
  for (let i = 1; i < path.length; i++) {
    run += distance3M(path[i - 1]!, path[i]!)
    if (run > fromM + SAME_M && run < toM - SAME_M) part.push(path[i]!)
  }
  return [...part, alongPath(path, toM)]
}

/** The place on a way in space nearest to a point: the point, how far off it is, and metres along from the start. */
export function nearestOnPath(
  path: readonly DeepPoint[],
  p: DeepPoint,
): { readonly point: DeepPoint; readonly distanceM: number; readonly alongM: number } {
  let best = { point: path[0]!, distanceM: distance3M(path[0]!, p), alongM: 0 }
  let run = 0
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1]!, path[i]!]
    const step = distance3M(a, b)
    const point = lerp3(a, b, step === 0 ? 0 : Math.min(1, Math.max(0, dotFrom(a, b, p) / (step * step))))
    const gap = distance3M(point, p)
    if (gap < best.distanceM) best = { point, distanceM: gap, alongM: run + distance3M(a, point) }
    run += step
  }
  return best
}

const dotFrom = (a: DeepPoint, b: DeepPoint, p: DeepPoint): number =>
  (b.xM - a.xM) * (p.xM - a.xM) +
  (b.yM - a.yM) * (p.yM - a.yM) +
  ((b.zM ?? 0) - (a.zM ?? 0)) * ((p.zM ?? 0) - (a.zM ?? 0))

/** How one looks at a frame: from the front, from its right end, or from above. */
export type ViewDirection = 'elevation' | 'side' | 'plan'

/**
 * A point as seen from one direction: from the side, depth runs to the right; from above, depth runs upward.
 */
export function project(p: Point3, view: ViewDirection): Point {
  switch (view) {
    case 'elevation':
      return { xM: p.xM, yM: p.yM }
    case 'side':
      return { xM: p.zM, yM: p.yM }
    case 'plan':
      return { xM: p.xM, yM: p.zM }
  }
}
