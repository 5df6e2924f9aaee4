import { CoreError } from '../errors/index.ts'
import type { Point } from './point.ts'

/** A place on a photo: pixels from its upper left corner, y downward. */
export interface Pixel {
  readonly xPx: number
  readonly yPx: number
}

/** Rows of a plane projective map; the last number is 1. */
export type Matrix3 = readonly [
  readonly [number, number, number],
  readonly [number, number, number],
  readonly [number, number, number],
]

export interface PhotoMap {
  /** Pixels to metres on the wall. */
  readonly matrix: Matrix3
  readonly toWall: (pixel: Pixel) => Point
  readonly toPixel: (point: Point) => Pixel
  /** Whether a pixel shows a point of the wall, or what lies beyond its horizon. */
  readonly shows: (pixel: Pixel) => boolean
}

export interface MarkedPoint {
  readonly pixel: Pixel
  readonly at: Point
}

/**
 * Sine of the least angle between two edges at which three marks still count as a triangle: about a tenth of
 * a degree.
 */
const LEAST_SINE = 2e-3

/**
 * The map between a photo and the wall from four marked points, by direct linear transformation with h33 = 1
 * (Hartley and Zisserman, Multiple View Geometry, ch. 4). Throws `geometry/points-in-line` when three of the
 * four lie in one line or two coincide, on the photo or on the wall, and `geometry/points-crossed` when they
 * fold the picture over or mirror it; the map itself throws `geometry/beyond-horizon` for a pixel that shows no
 * point of the wall, and for a point that no pixel shows.
 */
export function photoMap(marks: readonly [MarkedPoint, MarkedPoint, MarkedPoint, MarkedPoint]): PhotoMap {
  const pixels = marks.map(({ pixel }) => [pixel.xPx, pixel.yPx] as const)
  const places = marks.map(({ at }) => [at.xM, at.yM] as const)
  for (const [side, points] of [
    ['photo', pixels],
    ['wall', places],
  ] as const)
    requireSpread(side, points)
  const rows = marks.flatMap(({ pixel: { xPx: x, yPx: y }, at: { xM: u, yM: v } }) => [
    [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
    [0, 0, 0, x, y, 1, -v * x, -v * y, v],
  ])
  const [a, b, c, d, e, f, g, h] = solve(rows) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ]
  const matrix: Matrix3 = [
    [a, b, c],
    [d, e, f],
    [g, h, 1],
  ]
  // The marks must all lie on one side of the photo's horizon, or the picture is turned inside out.
  const sides = pixels.map(([x, y]) => Math.sign(g * x + h * y + 1))
  if (sides.some((side) => side !== sides[0])) {
    throw new CoreError(
      'geometry/points-crossed',
      'The four marks are not in the same order on photo and wall',
    )
  }
  // What runs clockwise on the photo runs clockwise on the wall: y is downward on the one and upward on the other.
  if (turn(pixels) * turn(places) > 0) {
    throw new CoreError('geometry/points-crossed', 'The four marks are mirrored between photo and wall')
  }
  const inverse = adjugate(matrix)
  const side = scaleOf(matrix, ...pixels[0]!)
  const inverseSide = scaleOf(inverse, ...places[0]!)
  return {
    matrix,
    shows: ({ xPx, yPx }) => isOnSide(matrix, xPx, yPx, side),
    toWall: ({ xPx, yPx }) => {
      requireSide(matrix, xPx, yPx, side)
      const [xM, yM] = apply(matrix, xPx, yPx)
      return { xM, yM }
    },
    toPixel: ({ xM, yM }) => {
      requireSide(inverse, xM, yM, inverseSide)
      const [xPx, yPx] = apply(inverse, xM, yM)
      return { xPx, yPx }
    },
  }
}

const scaleOf = (m: Matrix3, x: number, y: number): number => m[2][0] * x + m[2][1] * y + m[2][2]

/** Nearer to the horizon than this share of what a mark is, a pixel shows a point too far off to tell. */
const LEAST_SCALE = 1e-6

const isOnSide = (m: Matrix3, x: number, y: number, atMark: number): boolean =>
  scaleOf(m, x, y) / atMark > LEAST_SCALE

function requireSide(m: Matrix3, x: number, y: number, side: number): void {
  if (!isOnSide(m, x, y, side))
    throw new CoreError('geometry/beyond-horizon', 'What is marked lies beyond the horizon of the wall', {})
}

/** Twice the area that the points go round, signed by the way they turn. */
function turn(points: readonly (readonly [number, number])[]): number {
  return points.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = points[(i + 1) % points.length]!
    return sum + x * nextY - y * nextX
  }, 0)
}

function apply(m: Matrix3, x: number, y: number): [number, number] {
  const scale = m[2][0] * x + m[2][1] * y + m[2][2]
  return [(m[0][0] * x + m[0][1] * y + m[0][2]) / scale, (m[1][0] * x + m[1][1] * y + m[1][2]) / scale]
}

function requireSpread(side: 'photo' | 'wall', points: readonly (readonly [number, number])[]): void {
  for (let skipped = 0; skipped < 4; skipped++) {
    const [p, q, r] = points.filter((_, i) => i !== skipped) as [
      [number, number],
      [number, number],
      [number, number],
    ]
    const [ux, uy, vx, vy, wx, wy] = [
      q[0] - p[0],
      q[1] - p[1],
      r[0] - p[0],
      r[1] - p[1],
      r[0] - q[0],
      r[1] - q[1],
    ]
    const area = Math.abs(ux * vy - uy * vx)
    const longest = Math.max(Math.hypot(ux, uy), Math.hypot(vx, vy), Math.hypot(wx, wy))
    if (!(area > LEAST_SINE * longest * longest)) {
      throw new CoreError(
        'geometry/points-in-line',
        `Three of the four marks lie in one line on the ${side}`,
        { side },
      )
    }
  }
}

/** Gauss elimination with row exchange on eight rows of eight unknowns and a right side. */
function solve(rows: number[][]): number[] {
  const n = rows.length
  for (let column = 0; column < n; column++) {
    let pivot = column
    for (let row = column + 1; row < n; row++)
      if (Math.abs(rows[row]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = row
    ;[rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!]
    for (let row = 0; row < n; row++) {
      if (row === column) continue
      const share = rows[row]![column]! / rows[column]![column]!
      if (share !== 0) for (let k = column; k <= n; k++) rows[row]![k]! -= share * rows[column]![k]!
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!)
}

function adjugate([[a, b, c], [d, e, f], [g, h, i]]: Matrix3): Matrix3 {
  return [
    [e * i - f * h, c * h - b * i, b * f - c * e],
    [f * g - d * i, a * i - c * g, c * d - a * f],
    [d * h - e * g, b * g - a * h, a * e - b * d],
  ]
}
