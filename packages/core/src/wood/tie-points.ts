import type { Frame, LineId, MemberId } from '../frame/index.ts'
import { tracksOf, wireFor } from '../frame/index.ts'
import type { WireName } from '../frame/index.ts'
import {
  alongPath,
  distance3M,
  flat,
  inSpace,
  nearestOnPath,
  pathLengthM,
  segmentCrossing,
} from '../geometry/index.ts'
import type { DeepPoint, Point, Point3 } from '../geometry/index.ts'
import type { Support } from './address.ts'

/**
 * Something that wood can be tied to: a wire or a stake, pole or post, as a line in space and as thick as it is.
 */
export interface TieSupport {
  readonly frameId: string
  readonly part:
    | { readonly on: 'line'; readonly lineId: LineId }
    | { readonly on: 'member'; readonly memberId: MemberId }
  readonly path: readonly DeepPoint[]
  readonly diameterMm: number
  /** Wood runs along it and is tied every so often; or it crosses and is tied where it does. */
  readonly isUpright: boolean
}

/** What of the frames at a place wood can be tied to. */
export function tieSupports(
  frames: readonly { readonly frameId: string; readonly frame: Frame }[],
  thickness: {
    readonly wireMm: (frameId: string, wire: WireName) => number
    readonly stockM: (stockId: string) => number
  },
): TieSupport[] {
  return frames.flatMap(({ frameId, frame }) => {
    const stockOf = new Map(frame.members.map(({ id, stockId }) => [id, stockId]))
    return tracksOf(frame).map(({ part, way, isStem }): TieSupport => {
      return part.on === 'line'
        ? {
            frameId,
            part: { on: 'line', lineId: part.lineId },
            path: way,
            diameterMm: thickness.wireMm(frameId, wireFor(part.role)),
            isUpright: false,
          }
        : {
            frameId,
            part: { on: 'member', memberId: part.memberId },
            path: way,
            diameterMm: thickness.stockM(stockOf.get(part.memberId)!) * 1000,
            isUpright: isStem,
          }
    })
  })
}

/** A wire from its first node to its last, as seen from the front. */
export function linePath(frame: Frame, lineId: LineId): Point[] {
  const path: Point[] = []
  for (const run of frame.runs) {
    if (run.line.id !== lineId) continue
    if (path.length === 0) path.push(frame.nodes[run.from]!.at)
    path.push(frame.nodes[run.to]!.at)
  }
  return path
}

export interface TiePoint {
  readonly at: DeepPoint
  readonly alongM: number
  readonly support: Support
  readonly supportDiameterMm: number
}

/** A stem running along a wire meets it at every sample; ties nearer together than this are one. */
const SAME_PLACE_M = 0.02
/** Wood in space is tied to what it passes this near: in between the two wires of a pair, or beside a stake. */
const REACH_M = 0.06
/** How near wood must pass a wire's corner or node to be tied there. */
const NODE_REACH_M = 0.03
/** Wood leans on a stake when its middle is this near beside the stake's own half thickness, metres. */
const LEAN_M = 0.06
/** Along a stake or pole one ties every so often, metres. */
const STAKE_STEP_M = 0.25
/** The last of a stem is soft and is never tied, as a share of its length. */
const SOFT_SHARE = 0.02

const hasDepth = (path: readonly DeepPoint[]): boolean => path.some(({ zM }) => zM !== undefined)

const fromFront = new WeakMap<TieSupport, TieSupport>()

/** What wood of a line can be tied to, as it meets it: for wood without depth, as seen from the front. */
export function supportsOf(path: readonly DeepPoint[], all: readonly TieSupport[]): readonly TieSupport[] {
  if (hasDepth(path)) return all
  return all.map((support) => {
    const known = fromFront.get(support)
    if (known) return known
    const seen = { ...support, path: support.path.map(flat) }
    fromFront.set(support, seen)
    return seen
  })
}

/**
 * Where a piece can be tied: where it crosses a wire or passes one of its nodes, and at every step along a
 * stake or pole that it leans on; in order along the piece. The soft tip is left free. Wood without depth meets what it
 * meets as seen from the front.
 */
export function tiePoints(path: readonly DeepPoint[], all: readonly TieSupport[]): TiePoint[] {
  const isDeep = hasDepth(path)
  const supports = supportsOf(path, all)
  const total = pathLengthM(path)
  const found: TiePoint[] = []
  const add = (at: DeepPoint, support: TieSupport, reachM: number, apartM: number) => {
    const near = nearestOnPath(path, at)
    if (near.distanceM > reachM || near.alongM > total * (1 - SOFT_SHARE) || near.alongM < 1e-6) return
    if (found.some((other) => distance3M(other.at, at) < apartM)) return
    found.push({
      at: isDeep ? at : flat(at),
      alongM: near.alongM,
      support: {
        ...support.part,
        frameId: support.frameId,
        alongM: nearestOnPath(support.path, at).alongM,
      },
      supportDiameterMm: support.diameterMm,
    })
  }
  const [meets, reachM] = isDeep ? [meetings, REACH_M] : [crossings, SAME_PLACE_M]
  const crossing = supports.filter((support) => !support.isUpright)
  for (const support of crossing)
    for (const node of support.path) add(node, support, NODE_REACH_M, SAME_PLACE_M)
  for (const support of crossing)
    for (const at of meets(path, support.path)) add(at, support, reachM, isDeep ? REACH_M : SAME_PLACE_M)
  for (const support of supports) if (support.isUpright) leaning(support)
  return found.sort((p, q) => p.alongM - q.alongM)

  function leaning(support: TieSupport): void {
    const leanM = LEAN_M + support.diameterMm / 2000
    for (const at of meets(path, support.path)) add(at, support, reachM, STAKE_STEP_M / 2)
    for (let alongM = STAKE_STEP_M; alongM < total * (1 - SOFT_SHARE); alongM += STAKE_STEP_M) {
      const on = nearestOnPath(support.path, alongPath(path, alongM))
      if (on.distanceM <= leanM) add(on.point, support, leanM, STAKE_STEP_M / 2)
    }
  }
}

function crossings(a: readonly DeepPoint[], b: readonly DeepPoint[]): DeepPoint[] {
  const found: Point[] = []
  for (let i = 1; i < a.length; i++) {
    for (let j = 1; j < b.length; j++) {
      const crossing = segmentCrossing(a[i - 1]!, a[i]!, b[j - 1]!, b[j]!)
      if (crossing) found.push(crossing.point)
    }
  }
  return found
}

/** Where two ways in space come as near to each other as a tie reaches, once for each pair of their straight parts. */
function meetings(a: readonly DeepPoint[], b: readonly DeepPoint[]): DeepPoint[] {
  const found: DeepPoint[] = []
  for (let i = 1; i < a.length; i++) {
    for (let j = 1; j < b.length; j++) {
      const on = nearestOfSegments([a[i - 1]!, a[i]!], [b[j - 1]!, b[j]!])
      if (on) found.push(on)
    }
  }
  return found
}

type Segment = readonly [DeepPoint, DeepPoint]

/** The place of the second of two segments that is nearest to the first, where they come within a tie's reach. */
function nearestOfSegments(a: Segment, b: Segment): DeepPoint | null {
  // From either's ends, and from where two lines that are not alike in direction are nearest (Ericson 2005, 5.1.9).
  const [p, q] = [inSpace(a[0]), inSpace(b[0])]
  const u = minus(inSpace(a[1]), p)
  const v = minus(inSpace(b[1]), q)
  const w = minus(p, q)
  const [uu, uv, vv, uw, vw] = [dot(u, u), dot(u, v), dot(v, v), dot(u, w), dot(v, w)]
  const denominator = uu * vv - uv * uv
  const s = denominator > 1e-12 ? clamp((uv * vw - vv * uw) / denominator) : 0
  const t = vv > 1e-12 ? clamp((uv * s + vw) / vv) : 0
  const on: DeepPoint = { xM: q.xM + v.xM * t, yM: q.yM + v.yM * t, zM: q.zM + v.zM * t }
  return nearestOnPath(a, on).distanceM <= REACH_M ? on : null
}

const clamp = (share: number): number => Math.min(1, Math.max(0, share))
const minus = (a: Point3, b: Point3): Point3 => ({ xM: a.xM - b.xM, yM: a.yM - b.yM, zM: a.zM - b.zM })
const dot = (a: Point3, b: Point3): number => a.xM * b.xM + a.yM * b.yM + a.zM * b.zM
