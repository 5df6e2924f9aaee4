import { distance3M, pathLengthM } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'
import type { Frame } from './frame.ts'
import { isUpright } from './parts.ts'
import type { Line, LineId, MemberId, MemberRole } from './parts.ts'

/** How a track runs, as far as it decides how wood is led along it. */
export type TrackForm = 'level' | 'upright' | 'inclined' | 'curved' | 'wound'

/** Which part of its frame a track is. */
export type TrackPart =
  | {
      readonly on: 'line'
      readonly lineId: LineId
      readonly role: Line['role']
      readonly side: Line['side']
    }
  | { readonly on: 'member'; readonly memberId: MemberId; readonly role: MemberRole }

/** Anything of a frame that wood can follow: a wire, string, rib, stake, pole, hoop, leg, ring, rafter. */
export interface Track {
  readonly part: TrackPart
  /** In three dimensions, metres, in the order in which it was laid: what is written down of it counts from there. */
  readonly way: readonly Point3[]
  readonly form: TrackForm
  readonly lengthM: number
  /** Wood runs up along it and is tied every so often, or winds round it; else it crosses and is tied there. */
  readonly isStem: boolean
}

/** Wires for pipes and pulls bear no wood; neither do what stiffens a frame, nor the posts of a row, which shift. */
const LINES: ReadonlySet<Line['role']> = new Set(['carrying', 'foliage', 'cord'])
const MEMBERS: ReadonlySet<MemberRole> = new Set([
  'stake',
  'leg',
  'hoop',
  'core',
  'column',
  'rib',
  'rung',
  'bar',
  'ring',
  'rafter',
  'beam',
  'post',
  'twig',
])
/** Wood is led up these as up a stake. */
const STEMS: ReadonlySet<MemberRole> = new Set(['rib', 'post', 'twig'])

/** A line that rises by more than this share of its length across is not level. */
const LEVEL_SLOPE = 0.08
const UPRIGHT_SLOPE = 0.2
/** A way that is longer than the straight between its ends by this share goes round or over something. */
const BENT_SHARE = 0.02
/** What turns right round and rises is wound. */
const TURN = 2 * Math.PI * 0.9

/** All tracks of a frame, its lines first, each in the order in which they were laid. */
export function tracksOf(frame: Frame): Track[] {
  const runs = new Map<LineId, { readonly line: Line; readonly way: Point3[] }>()
  for (const { line, from, to } of frame.runs) {
    if (!LINES.has(line.role)) continue
    const known = runs.get(line.id)
    const end = frame.nodes[to]!.at
    if (known) known.way.push(end)
    else runs.set(line.id, { line, way: [frame.nodes[from]!.at, end] })
  }
  const lines = [...runs.values()].map(({ line, way }) =>
    trackOf({ on: 'line', lineId: line.id, role: line.role, side: line.side }, way, false),
  )
  const members = frame.members
    .filter(({ role, path }) => MEMBERS.has(role) && path.length > 1)
    .map(({ id, role, path }) =>
      trackOf({ on: 'member', memberId: id, role }, path, isUpright(role) || STEMS.has(role)),
    )
  return [...lines, ...members]
}

const trackOf = (part: TrackPart, way: readonly Point3[], isStem: boolean): Track => ({
  part,
  way,
  form: formOf(way),
  lengthM: pathLengthM(way),
  isStem,
})

function formOf(path: readonly Point3[]): TrackForm {
  const [a, b] = [path[0]!, path.at(-1)!]
  const straightM = distance3M(a, b)
  const lengthM = pathLengthM(path)
  if (lengthM > straightM * (1 + BENT_SHARE)) {
    const riseM = Math.abs(b.yM - a.yM)
    return Math.abs(turned(path)) >= TURN && riseM > straightM * LEVEL_SLOPE && riseM > 0.05
      ? 'wound'
      : 'curved'
  }
  const acrossM = Math.hypot(b.xM - a.xM, b.zM - a.zM)
  const riseM = Math.abs(b.yM - a.yM)
  if (riseM <= LEVEL_SLOPE * acrossM) return 'level'
  return acrossM <= UPRIGHT_SLOPE * riseM ? 'upright' : 'inclined'
}

/** The angle through which a way turns as seen from above, radians. */
function turned(path: readonly Point3[]): number {
  let sum = 0
  for (let i = 2; i < path.length; i++) {
    const [p, q, r] = [path[i - 2]!, path[i - 1]!, path[i]!]
    const [ux, uz, vx, vz] = [q.xM - p.xM, q.zM - p.zM, r.xM - q.xM, r.zM - q.zM]
    sum += Math.atan2(ux * vz - uz * vx, ux * vx + uz * vz)
  }
  return sum
}
