import type { AnchorId, LineId, MemberId, NodeId } from '../frame/index.ts'
import type { Drive } from '../ground/index.ts'
import type { JournalEntry } from './entry.ts'
import { inForce } from './replay.ts'
import type { Point } from '../geometry/index.ts'
import type { CalendarDate } from '../season/index.ts'

export interface DriveLog extends Drive {
  readonly on: CalendarDate
  readonly isRefused: boolean
  readonly movedM: number
}

/** A pull that was set or found. */
export interface TensionLog {
  readonly on: CalendarDate
  readonly what: 'set' | 'found'
  readonly tensionN: number
  readonly temperatureC: number
}

/**
 * What has been built of a frame, and how it is: fixings and posts where they really are, anchors as driven,
 * pulls by line.
 */
export interface FrameCondition {
  readonly fixings: ReadonlyMap<NodeId, { readonly on: CalendarDate; readonly at: Point }>
  readonly posts: ReadonlyMap<MemberId, { readonly on: CalendarDate; readonly xM: number }>
  readonly drives: ReadonlyMap<AnchorId, DriveLog>
  readonly tensions: ReadonlyMap<LineId, readonly TensionLog[]>
}

interface Draft {
  readonly fixings: Map<NodeId, { on: CalendarDate; at: Point }>
  readonly posts: Map<MemberId, { on: CalendarDate; xM: number }>
  readonly drives: Map<AnchorId, DriveLog>
  readonly tensions: Map<LineId, TensionLog[]>
}

export const NOTHING_BUILT: FrameCondition = {
  fixings: new Map(),
  posts: new Map(),
  drives: new Map(),
  tensions: new Map(),
}

/**
 * Every frame's condition at the end of a day, by frame id: the fold of the entries in force, later ones over
 * earlier.
 */
export function replayFrames(
  entries: readonly JournalEntry[],
  upTo?: CalendarDate,
): ReadonlyMap<string, FrameCondition> {
  const frames = new Map<string, Draft>()
  const of = (frameId: string): Draft => {
    const known = frames.get(frameId)
    if (known) return known
    const fresh: Draft = { fixings: new Map(), posts: new Map(), drives: new Map(), tensions: new Map() }
    frames.set(frameId, fresh)
    return fresh
  }
  const ours = entries.filter((entry) => FRAME_KINDS.has(entry.kind) || entry.supersedes !== null)
  for (const entry of inForce(ours)) {
    if (upTo !== undefined && entry.at > upTo) continue
    switch (entry.kind) {
      case 'fixing.set':
        of(entry.body.frameId).fixings.set(entry.body.nodeId, { on: entry.at, at: entry.body.at })
        break
      case 'post.placed':
        of(entry.body.frameId).posts.set(entry.body.postId, { on: entry.at, xM: entry.body.xM })
        break
      case 'anchor.driven': {
        const { frameId, anchorId, depthM, angleDeg, torqueNm, reworks, isRefused, movedM, pullTestN } =
          entry.body
        of(frameId).drives.set(anchorId, {
          on: entry.at,
          depthAlongM: depthM,
          angleFromVerticalRad: (angleDeg * Math.PI) / 180,
          torqueNm,
          reworks,
          isRefused,
          movedM,
          pullTestN,
        })
        break
      }
      case 'wire.tensioned':
      case 'wire.measured': {
        const { frameId, line, tensionN, temperatureC } = entry.body
        const { tensions } = of(frameId)
        const what = entry.kind === 'wire.tensioned' ? 'set' : 'found'
        tensions.set(line, [...(tensions.get(line) ?? []), { on: entry.at, what, tensionN, temperatureC }])
        break
      }
      default:
    }
  }
  return frames
}

const FRAME_KINDS: ReadonlySet<JournalEntry['kind']> = new Set([
  'fixing.set',
  'post.placed',
  'anchor.driven',
  'wire.tensioned',
  'wire.measured',
])
