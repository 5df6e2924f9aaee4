import { alongPath, distance3M, inSpace, project } from './space.ts'
import type { DeepPoint, Point3, ViewDirection } from './space.ts'
import { distanceM, nearestOnSegment } from './point.ts'
import type { Point } from './point.ts'

/** What something is unrolled from: an upright axis, and how far from it its surface is taken to be. */
export interface Round {
  readonly xM: number
  readonly zM: number
  readonly radiusM: number
}

/**
 * From where something is looked at: the front, the right end, above; or unrolled, as if its surface were slit up its
 * back and laid flat, the front in the middle.
 */
export type Look = { readonly from: ViewDirection } | { readonly from: 'unrolled'; readonly round: Round }
export const FRONT: Look = { from: 'elevation' }

/** A line as it is seen: its points, and how far along the line itself each of them is. */
export interface SeenLine {
  readonly points: readonly Point[]
  readonly alongM: readonly number[]
}

/** Steps in which a straight way is followed round an axis, metres. */
const STEP_M = 0.02
const MOST_STEPS = 60

/** A way as it is looked at: one line, or as many as the slit of what is unrolled cuts it into. */
export function seenLines(path: readonly DeepPoint[], look: Look): SeenLine[] {
  const alongM = [0]
  for (let i = 1; i < path.length; i++) alongM.push(alongM[i - 1]! + distance3M(path[i - 1]!, path[i]!))
  if (look.from !== 'unrolled') return [{ points: path.map((p) => project(inSpace(p), look.from)), alongM }]
  return unrolled(path, alongM, look.round)
}

/** A single point as it is looked at. */
export const seenPoint = (p: DeepPoint, look: Look): Point =>
  look.from === 'unrolled' ? onSheet(inSpace(p), look.round, 0) : project(inSpace(p), look.from)

/** The place in space of a point of what is unrolled, on its surface. */
export function rolledUp({ xM, yM }: Point, { xM: midM, zM, radiusM }: Round): Point3 {
  const angle = (xM - midM) / radiusM
  return { xM: midM + radiusM * Math.sin(angle), yM, zM: zM - radiusM * Math.cos(angle) }
}

/** How far round from the front, clockwise as the sheet shows it from left to right, radians; on the axis itself as said. */
function angleOf({ xM, zM }: Point3, round: Round, onAxis: number): number {
  const [dx, dz] = [xM - round.xM, zM - round.zM]
  return Math.sqrt(dx * dx + dz * dz) < 1e-4 ? onAxis : Math.atan2(dx, -dz)
}

const onSheet = (p: Point3, round: Round, onAxis: number): Point => ({
  xM: round.xM + angleOf(p, round, onAxis) * round.radiusM,
  yM: p.yM,
})

function unrolled(path: readonly DeepPoint[], alongM: readonly number[], round: Round): SeenLine[] {
  const lines: { points: Point[]; alongM: number[] }[] = [{ points: [], alongM: [] }]
  const halfM = Math.PI * round.radiusM
  // What begins on the axis begins in front of it, where what it leads to is.
  let last: Point | null = null
  const put = (p: DeepPoint, along: number) => {
    const at = onSheet(inSpace(p), round, last ? (last.xM - round.xM) / round.radiusM : 0)
    if (last && Math.abs(at.xM - last.xM) > halfM) {
      // Over the slit: to the one edge of the sheet, and on from the other.
      const sign = at.xM > last.xM ? -1 : 1
      const toEdge = halfM - sign * (last.xM - round.xM)
      const fromEdge = halfM + sign * (at.xM - round.xM)
      const share = toEdge + fromEdge > 0 ? toEdge / (toEdge + fromEdge) : 0.5
      const yM = last.yM + (at.yM - last.yM) * share
      const open = lines.at(-1)!
      const before = open.alongM.at(-1)!
      const edgeM = before + (along - before) * share
      open.points.push({ xM: round.xM + sign * halfM, yM })
      open.alongM.push(edgeM)
      lines.push({ points: [{ xM: round.xM - sign * halfM, yM }], alongM: [edgeM] })
    }
    const open = lines.at(-1)!
    open.points.push(at)
    open.alongM.push(along)
    last = at
  }
  path.forEach((p, i) => {
    if (i > 0) {
      const [a, b] = [path[i - 1]!, p]
      const lengthM = distance3M(a, b)
      const steps = Math.min(MOST_STEPS, Math.floor(lengthM / STEP_M))
      for (let k = 1; k < steps; k++)
        put(alongPath([a, b], (lengthM * k) / steps), alongM[i - 1]! + (lengthM * k) / steps)
    }
    put(p, alongM[i]!)
  })
  return lines.filter(({ points }) => points.length > 1)
}

/** The place along a way that is nearest to a point, as both are looked at. */
export function nearestSeen(
  path: readonly DeepPoint[],
  p: Point,
  look: Look,
): { readonly distanceM: number; readonly alongM: number; readonly point: DeepPoint } {
  let best = { distanceM: Number.POSITIVE_INFINITY, alongM: 0 }
  for (const { points, alongM } of seenLines(path, look)) {
    for (let i = 1; i < points.length; i++) {
      const near = nearestOnSegment(p, points[i - 1]!, points[i]!)
      const gapM = distanceM(near.point, p)
      if (gapM < best.distanceM) {
        const [from, to] = [alongM[i - 1]!, alongM[i]!]
        best = { distanceM: gapM, alongM: from + (to - from) * near.share }
      }
    }
  }
  return { ...best, point: alongPath(path, best.alongM) }
}
