import { tracksOf } from '../frame/index.ts'
import type { Frame, Track } from '../frame/index.ts'
import { alongPath, distance3M, distanceM, inSpace, nearestOnPath, rolledUp } from '../geometry/index.ts'
import type { DeepPoint, Point3, Round } from '../geometry/index.ts'
import { ON_IT, courseOn } from './winding.ts'
import type { Course } from './winding.ts'
import type { Stretch } from './way.ts'

/** A track of one of the frames of a place. */
export interface FrameTrack extends Track {
  readonly frameId: string
}

/** All tracks of some frames, each knowing which it is of. */
export const frameTracks = (
  frames: readonly { readonly frameId: string; readonly frame: Frame }[],
): FrameTrack[] =>
  frames.flatMap(({ frameId, frame }) => tracksOf(frame).map((track) => ({ ...track, frameId })))

/** How near to a track the ends of a part of a line lie for it to run along that track, metres. */
const ON_TRACK_M = 0.02
/** Shorter than this a part of a line runs along nothing. */
const LEAST_M = 0.04
/** What runs along a track makes its way on it, and does not cross it: by this share of its own length at least. */
const ALONG_SHARE = 0.97

interface Part {
  readonly track: FrameTrack | null
  readonly fromM: number
  readonly toM: number
  readonly from: DeepPoint
  readonly to: DeepPoint
}

/**
 * A line as a row of stretches: what of it runs along a track of the frames is led along that, the rest is free. A line
 * drawn from the front has no depth; it takes that of the tracks it runs along, and between them evenly from that of
 * its base. Of several tracks behind one another it is the nearest.
 */
export function wayFrom(path: readonly DeepPoint[], tracks: readonly FrameTrack[], baseZM = 0): Stretch[] {
  const seen = tracks.map((track) => ({ track, front: track.way.map(({ xM, yM }) => ({ xM, yM })) }))
  const parts: Part[] = []
  for (let i = 1; i < path.length; i++) {
    const [from, to] = [path[i - 1]!, path[i]!]
    const on = trackOf(from, to, seen)
    const last = parts.at(-1)
    if (on && last?.track === on.track && Math.abs(last.toM - on.fromM) < ON_TRACK_M * 2)
      parts[parts.length - 1] = { ...last, to, toM: on.toM }
    else parts.push({ from, to, ...(on ?? { track: null, fromM: 0, toM: 0 }) })
  }
  return withDepth(parts, baseZM)
}

function trackOf(
  from: DeepPoint,
  to: DeepPoint,
  seen: readonly { readonly track: FrameTrack; readonly front: readonly DeepPoint[] }[],
): { readonly track: FrameTrack; readonly fromM: number; readonly toM: number } | null {
  const isDeep = from.zM !== undefined || to.zM !== undefined
  const lengthM = isDeep ? distance3M(from, to) : distanceM(from, to)
  if (lengthM < LEAST_M) return null
  let best: { track: FrameTrack; fromM: number; toM: number } | null = null
  let bestDepthM = Number.POSITIVE_INFINITY
  for (const { track, front } of seen) {
    const way = isDeep ? track.way : front
    const [a, b] = [nearestOnPath(way, from), nearestOnPath(way, to)]
    if (a.distanceM > ON_TRACK_M || b.distanceM > ON_TRACK_M) continue
    if (Math.abs(b.alongM - a.alongM) < lengthM * ALONG_SHARE) continue
    // Along the front view a track that runs back is shorter than it is: what is written down is its own length.
    const share = isDeep ? 1 : track.lengthM / lengthOfFront(front)
    const depthM = Math.abs(alongPath(track.way, a.alongM * share).zM ?? 0)
    if (depthM < bestDepthM) {
      best = { track, fromM: a.alongM * share, toM: b.alongM * share }
      bestDepthM = depthM
    }
  }
  return best
}

const lengthOfFront = (front: readonly DeepPoint[]): number =>
  front.reduce((sum, p, i) => (i === 0 ? 0 : sum + distanceM(front[i - 1]!, p)), 0) || 1

function withDepth(parts: readonly Part[], baseZM: number): Stretch[] {
  const stretches: Stretch[] = []
  let zM = baseZM
  parts.forEach((part, i) => {
    if (part.track) {
      const { track, fromM, toM } = part
      const stretch = alongTrack(track, { fromM, toM, turns: 0, aside: ON_IT })
      stretches.push(stretch)
      zM = stretch.points.at(-1)!.zM
      return
    }
    const next = parts.slice(i).find(({ track }) => track)
    const aheadZM = next?.track ? (alongPath(next.track.way, next.fromM).zM ?? 0) : zM
    const before = parts[i - 1]
    const isFirst = !before || before.track !== null
    const run = parts.slice(i, next ? parts.indexOf(next) : undefined)
    const wholeM = run.reduce((sum, { from, to }) => sum + distanceM(from, to), 0)
    const share = wholeM > 0 ? distanceM(part.from, part.to) / wholeM : 1
    const toZM = part.to.zM ?? zM + (aheadZM - zM) * share
    const from: Point3 = { xM: part.from.xM, yM: part.from.yM, zM: part.from.zM ?? zM }
    const to: Point3 = { xM: part.to.xM, yM: part.to.yM, zM: toZM }
    const open = stretches.at(-1)
    if (!isFirst && open?.on === 'free')
      stretches[stretches.length - 1] = { on: 'free', points: [...open.points, to] }
    else stretches.push({ on: 'free', points: [from, to] })
    zM = toZM
  })
  return stretches
}

/** Steps in which a line round something without a pole in its middle is followed, for a whole turn. */
const STEPS_A_TURN = 24

/**
 * A line drawn over what stands round an axis, from point to point of its surface: round its pole where it has one, else
 * free. Between two points it goes round the nearer way.
 */
export function wayRound(points: readonly Point3[], round: Round, pole: FrameTrack | null): Stretch[] {
  const angles = points.map(({ xM, zM }) => Math.atan2(xM - round.xM, -(zM - round.zM)))
  if (!pole) {
    const line = points.flatMap((p, i): Point3[] => {
      if (i === 0) return [p]
      const [from, turn] = [points[i - 1]!, turnTo(angles[i - 1]!, angles[i]!)]
      const steps = Math.max(1, Math.ceil((Math.abs(turn) / (2 * Math.PI)) * STEPS_A_TURN))
      return Array.from({ length: steps }, (_, k) => {
        const share = (k + 1) / steps
        const at = { xM: round.xM + (angles[i - 1]! + turn * share) * round.radiusM, yM: 0 }
        return { ...rolledUp(at, round), yM: from.yM + (p.yM - from.yM) * share }
      })
    })
    return [{ on: 'free', points: line }]
  }
  return points.slice(1).flatMap((to, i): Stretch[] => {
    const from = points[i]!
    const [a, b] = [nearestOnPath(pole.way, from), nearestOnPath(pole.way, to)]
    // What leaves the pole, above it or below, is free.
    if (Math.abs(a.alongM - b.alongM) < LEAST_M && Math.abs(to.yM - from.yM) > LEAST_M)
      return [{ on: 'free', points: [from, to] }]
    const course = {
      fromM: a.alongM,
      toM: b.alongM,
      // From left to right over the sheet is anticlockwise as seen from above.
      turns: -turnTo(angles[i]!, angles[i + 1]!) / (2 * Math.PI),
      aside: minus(from, inSpace(a.point)),
    }
    return [alongTrack(pole, course)]
  })
}

const minus = (a: Point3, b: Point3): Point3 => ({ xM: a.xM - b.xM, yM: a.yM - b.yM, zM: a.zM - b.zM })

/** From one angle to another the nearer way, radians. */
function turnTo(from: number, to: number): number {
  const turn = (to - from) % (2 * Math.PI)
  if (turn > Math.PI) return turn - 2 * Math.PI
  return turn < -Math.PI ? turn + 2 * Math.PI : turn
}

/** A stretch that runs along a track as told. */
export function alongTrack({ frameId, part, way }: FrameTrack, course: Course): Stretch {
  const along = { frameId, ...course, points: courseOn(way, course) }
  return part.on === 'line'
    ? { on: 'line', lineId: part.lineId, ...along }
    : { on: 'member', memberId: part.memberId, ...along }
}
