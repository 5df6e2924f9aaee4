import type { Point } from './point.ts'

/**
 * A point of a frame in space: on the elevation, and `zM` metres behind its front plane (towards the viewer
 * is negative).
 */
export interface Point3 extends Point {
  readonly zM: number
}

export function at3(xM: number, yM: number, zM = 0): Point3 {
  return { xM, yM, zM }
}

/** The point on the elevation alone, without its depth: what is written down of wood and nodes. */
export function flat({ xM, yM }: Point): Point {
  return { xM, yM }
}

export function distance3M(a: Point3, b: Point3): number {
  const [dx, dy, dz] = [b.xM - a.xM, b.yM - a.yM, b.zM - a.zM]
  return Math.sqrt(dx * dx + dy * dy + dz * dz)
}

export function pathLengthM(path: readonly Point3[]): number {
  let sum = 0
  for (let i = 1; i < path.length; i++) sum += distance3M(path[i - 1]!, path[i]!)
  return sum
}

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
