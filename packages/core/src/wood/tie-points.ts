import type { Frame, LineId, MemberId } from '../frame/index.ts'
import { tracksOf, wireFor } from '../frame/index.ts'
import type { WireName } from '../frame/index.ts'
import {
  distanceM,
  flat,
  nearestAlong,
  pointAlong,
  polylineLengthM,
  segmentCrossing,
} from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Support } from './address.ts'

/**
 * Something that wood can be tied to: a wire or a stake, pole or post, as a line on the elevation and as
 * thick as it is.
 */
export interface TieSupport {
  readonly frameId: string
  readonly part:
    | { readonly on: 'line'; readonly lineId: LineId }
    | { readonly on: 'member'; readonly memberId: MemberId }
  readonly path: readonly Point[]
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
      const path = way.map(flat)
      return part.on === 'line'
        ? {
            frameId,
            part: { on: 'line', lineId: part.lineId },
            path,
            diameterMm: thickness.wireMm(frameId, wireFor(part.role)),
            isUpright: false,
          }
        : {
            frameId,
            part: { on: 'member', memberId: part.memberId },
            path,
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
  readonly at: Point
  readonly alongM: number
  readonly support: Support
  readonly supportDiameterMm: number
}

/** A stem running along a wire meets it at every sample; ties nearer together than this are one. */
const SAME_PLACE_M = 0.02
/** How near wood must pass a wire's corner or node to be tied there. */
const NODE_REACH_M = 0.03
/** Wood leans on a stake when its middle is this near beside the stake's own half thickness, metres. */
const LEAN_M = 0.06
/** Along a stake or pole one ties every so often, metres. */
const STAKE_STEP_M = 0.25
/** The last of a stem is soft and is never tied, as a share of its length. */
const SOFT_SHARE = 0.02

/**
 * Where a piece can be tied: where it crosses a wire or passes one of its nodes, and at every step along a
 * stake or pole that it leans on; in order along the piece. The soft tip is left free.
 */
export function tiePoints(path: readonly Point[], supports: readonly TieSupport[]): TiePoint[] {
  const total = polylineLengthM(path)
  const found: TiePoint[] = []
  const add = (at: Point, support: TieSupport, reachM: number, apartM: number) => {
    const near = nearestAlong(path, at)
    if (near.distanceM > reachM || near.alongM > total * (1 - SOFT_SHARE) || near.alongM < 1e-6) return
    if (found.some((other) => distanceM(other.at, at) < apartM)) return
    found.push({
      at: { xM: at.xM, yM: at.yM },
      alongM: near.alongM,
      support: { ...support.part, frameId: support.frameId, alongM: nearestAlong(support.path, at).alongM },
      supportDiameterMm: support.diameterMm,
    })
  }
  const crossing = supports.filter((support) => !support.isUpright)
  for (const support of crossing)
    for (const node of support.path) add(node, support, NODE_REACH_M, SAME_PLACE_M)
  for (const support of crossing)
    for (const at of crossings(path, support.path)) add(at, support, SAME_PLACE_M, SAME_PLACE_M)
  for (const support of supports) if (support.isUpright) leaning(support)
  return found.sort((p, q) => p.alongM - q.alongM)

  function leaning(support: TieSupport): void {
    const reachM = LEAN_M + support.diameterMm / 2000
    for (const at of crossings(path, support.path)) add(at, support, SAME_PLACE_M, STAKE_STEP_M / 2)
    for (let alongM = STAKE_STEP_M; alongM < total * (1 - SOFT_SHARE); alongM += STAKE_STEP_M) {
      const on = nearestAlong(support.path, pointAlong(path, alongM))
      if (on.distanceM <= reachM) add(on.point, support, reachM, STAKE_STEP_M / 2)
    }
  }
}

function crossings(a: readonly Point[], b: readonly Point[]): Point[] {
  const found: Point[] = []
  for (let i = 1; i < a.length; i++) {
    for (let j = 1; j < b.length; j++) {
      const crossing = segmentCrossing(a[i - 1]!, a[i]!, b[j - 1]!, b[j]!)
      if (crossing) found.push(crossing.point)
    }
  }
  return found
}
