import { projection } from '../fold/index.ts'
import type { EntryOf } from '../fold/index.ts'
import type { AnchorId, LineId, MemberId, NodeId } from '../frame/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Drive } from '../ground/index.ts'
import type { CalendarDate } from '../season/index.ts'
import { frameEntries } from './entries.ts'

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
  /** Heights that lifted wires are at. */
  readonly lifted: ReadonlyMap<LineId, { readonly on: CalendarDate; readonly heightM: number }>
  /** Since when the cover is on or off; `null` when nobody has said. */
  readonly cover: { readonly on: CalendarDate; readonly is: 'on' | 'off' } | null
}

type Writable<T> = {
  -readonly [K in keyof T]: T[K] extends ReadonlyMap<infer Key, infer V> ? Map<Key, V> : T[K]
}
type Draft = Writable<FrameCondition>

const nothing = (): Draft => ({
  fixings: new Map(),
  posts: new Map(),
  drives: new Map(),
  tensions: new Map(),
  lifted: new Map(),
  cover: null,
})
export const NOTHING_BUILT: FrameCondition = nothing()

/** Every frame's condition, by frame id: later entries over earlier ones. */
export const frameLogProjection = projection({
  name: 'frame-log',
  version: 1,
  kinds: frameEntries,
  initial: () => new Map<string, Draft>(),
  apply,
  copy: (frames: Map<string, Draft>) => new Map([...frames].map(([id, one]) => [id, copyOf(one)])),
})

const copyOf = ({ fixings, posts, drives, tensions, lifted, cover }: Draft): Draft => ({
  fixings: new Map(fixings),
  posts: new Map(posts),
  drives: new Map(drives),
  tensions: new Map(tensions),
  lifted: new Map(lifted),
  cover,
})

function apply(frames: Map<string, Draft>, entry: EntryOf<typeof frameEntries>): void {
  const known = frames.get(entry.body.frameId)
  const frame = known ?? nothing()
  if (!known) frames.set(entry.body.frameId, frame)
  const on = entry.at
  switch (entry.kind) {
    case 'fixing.set':
      frame.fixings.set(entry.body.nodeId, { on, at: entry.body.at })
      return
    case 'post.placed':
      frame.posts.set(entry.body.postId, { on, xM: entry.body.xM })
      return
    case 'anchor.driven': {
      const { v: _, frameId: __, anchorId, depthM, angleDeg, ...rest } = entry.body
      const angleFromVerticalRad = (angleDeg * Math.PI) / 180
      frame.drives.set(anchorId, { on, depthAlongM: depthM, angleFromVerticalRad, ...rest })
      return
    }
    case 'wire.tensioned':
    case 'wire.measured': {
      const { line, tensionN, temperatureC } = entry.body
      const what = entry.kind === 'wire.tensioned' ? 'set' : 'found'
      frame.tensions.set(line, [...(frame.tensions.get(line) ?? []), { on, what, tensionN, temperatureC }])
      return
    }
    case 'wire.lifted':
      frame.lifted.set(entry.body.line, { on, heightM: entry.body.toHeightM })
      return
    case 'cover.changed':
      frame.cover = { on, is: entry.body.is }
      return
  }
}
