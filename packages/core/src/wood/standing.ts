import type { Frame } from '../frame/index.ts'
import { distance3M, flat, nearestOnPath } from '../geometry/index.ts'
import type { DeepPoint } from '../geometry/index.ts'
import { linePath } from './tie-points.ts'
import type { Support } from './address.ts'
import type { Tie } from './wood.ts'

/**
 * How a tie stands to what it holds on to: where it was made; beside it, since the wire is elsewhere now; or
 * free, since there is no such wire or stake any more. `unknown` for one of which only the place was written
 * down.
 */
export type TieStanding =
  | { readonly is: 'sound' | 'unknown' | 'free' }
  | {
      readonly is: 'elsewhere'
      readonly now: DeepPoint
      readonly byM: number
      /** How much higher what it holds on to is now; negative when lower. */
      readonly higherM: number
    }

/** A tie and its wire are together when they are this near: a loop's own play. */
const TOGETHER_M = 0.03
/** In space wood lies beside what it is tied to, or between the two wires of a pair. */
const BESIDE_M = 0.08
const reachOf = ({ at, supportDiameterMm = 0 }: Tied): number =>
  at.zM === undefined ? TOGETHER_M : BESIDE_M + supportDiameterMm / 2000

/** What a tie can hold on to, as its place is known: in space, or from the front. */
function supportPath(frame: Frame, support: Support, at: DeepPoint): readonly DeepPoint[] {
  const path =
    support.on === 'line'
      ? linePath(frame, support.lineId)
      : (frame.members.find((member) => member.id === support.memberId)?.path ?? [])
  return at.zM === undefined ? path.map(flat) : path
}

type Tied = Pick<Tie, 'support' | 'at'> & Partial<Pick<Tie, 'supportDiameterMm'>>

export function tieStanding(tie: Tied, frames: ReadonlyMap<string, Frame>): TieStanding {
  const { support, at } = tie
  if (support === null) return { is: 'unknown' }
  const frame = frames.get(support.frameId)
  const path = frame ? supportPath(frame, support, at) : []
  if (path.length < 2) return { is: 'free' }
  const near = nearestOnPath(path, at)
  if (near.distanceM <= reachOf(tie)) return { is: 'sound' }
  return {
    is: 'elsewhere',
    now: near.point,
    byM: near.distanceM,
    higherM: near.point.yM - at.yM,
  }
}

/**
 * What of a frame a tie at a place holds on to: the nearest wire or stake within a loop's reach, `null`
 * without one.
 */
export function supportAt(frameId: string, frame: Frame, at: DeepPoint): Support | null {
  let best: Support | null = null
  let bestM = TOGETHER_M
  const offer = (way: readonly DeepPoint[], part: (alongM: number) => Support) => {
    if (way.length < 2) return
    const path = at.zM === undefined ? way.map(flat) : way
    const near = nearestOnPath(path, at)
    if (near.distanceM < bestM) {
      bestM = near.distanceM
      best = part(near.alongM)
    }
  }
  for (const { id: lineId, role } of frame.lines) {
    if (role !== 'tie-back')
      offer(linePath(frame, lineId), (alongM) => ({ on: 'line', frameId, lineId, alongM }))
  }
  for (const { id: memberId, path } of frame.members)
    offer(path, (alongM) => ({ on: 'member', frameId, memberId, alongM }))
  return best
}

/** A tie that a revision of its frame leaves beside its wire or without one. */
export interface MovedTie {
  readonly tie: Tie
  readonly support: Support
  readonly standing: Extract<TieStanding, { is: 'elsewhere' }> | { readonly is: 'free' }
}

/**
 * Ties that hold at a frame now and would not where they are once it is revised. Ties of which only the place
 * is known hold on to what is there before.
 */
export function tiesMovedBy(frameId: string, before: Frame, after: Frame, ties: Iterable<Tie>): MovedTie[] {
  const [was, will] = [new Map([[frameId, before]]), new Map([[frameId, after]])]
  const moved: MovedTie[] = []
  for (const tie of ties) {
    if (tie.endedOn !== null) continue
    const support = tie.support ?? supportAt(frameId, before, tie.at)
    if (support?.frameId !== frameId) continue
    const of = { ...tie, support }
    // What stands elsewhere already is told already.
    if (tieStanding(of, was).is !== 'sound') continue
    const standing = tieStanding(of, will)
    if (standing.is === 'elsewhere') {
      // From where the wire was, and not from the loop, which has its own play.
      const from = nearestOnPath(supportPath(before, support, tie.at), tie.at).point
      const byM = distance3M(from, standing.now)
      moved.push({ tie, support, standing: { ...standing, byM, higherM: standing.now.yM - from.yM } })
    }
    if (standing.is === 'free') moved.push({ tie, support, standing: { is: 'free' } })
  }
  return moved
}
