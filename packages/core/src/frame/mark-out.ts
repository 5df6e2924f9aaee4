import type { AnchorId, MemberId, NodeId } from './parts.ts'
import type { Frame, NodeState } from './frame.ts'
import type { Shift } from './layout.ts'
import type { Site } from './site.ts'

/** A fixing in the wall; a post, stake or leg in the ground; an anchor. */
type MarkedPart =
  | { readonly what: 'node'; readonly partId: NodeId }
  | { readonly what: 'post'; readonly partId: MemberId }
  | { readonly what: 'anchor'; readonly partId: AnchorId }

export type MarkOutRow = MarkedPart & Mark
interface Mark {
  readonly label: string
  /** Along the tape from the viewing end of the place, metres. */
  readonly alongM: number
  /** Above the soil, metres; 0 for what is marked out on the ground. */
  readonly heightM: number
  /** Behind the front line of the frame, metres. */
  readonly outM: number
  readonly idealAlongM: number
  readonly idealHeightM: number
  readonly movedM: number
  readonly state: NodeState
}

export interface MarkOut {
  /** Fixings by number, then posts and anchors, each along the tape. */
  readonly rows: readonly MarkOutRow[]
  /**
   * Both diagonals of the outer rectangle must read this, or it is out of square. `null` for a single line.
   */
  readonly diagonalM: number | null
}

/**
 * Everything to be marked out as running distance from one datum, the viewing end at the soil: distances do
 * not add up errors.
 */
export function markOut(frame: Frame, site: Pick<Site, 'widthM' | 'viewingEnd'>): MarkOut {
  const along = (xM: number) => (site.viewingEnd === 'left' ? xM : site.widthM - xM)
  const fixings = frame.nodes
    .filter((node) => node.number > 0)
    .sort((a, b) => a.number - b.number)
    .map((node): MarkOutRow => ({
      what: 'node',
      label: node.label,
      partId: node.id,
      alongM: along(node.at.xM),
      heightM: node.at.yM,
      outM: 0,
      idealAlongM: along(node.ideal.xM),
      idealHeightM: node.ideal.yM,
      movedM: node.movedM,
      state: node.state,
    }))
  const shifts = new Map<MemberId, Shift>(frame.shifts.map((shift) => [shift.id, shift]))
  const onGround = (part: MarkedPart, label: string, at: { xM: number; zM: number }): MarkOutRow => {
    const shift = part.what === 'post' ? shifts.get(part.partId) : undefined
    const movedM = shift?.movedM ?? 0
    return {
      ...part,
      label,
      alongM: along(at.xM),
      heightM: 0,
      outM: at.zM,
      idealAlongM: along(at.xM),
      idealHeightM: 0,
      movedM,
      state: shift?.spot ? 'blocked' : movedM > 0 ? 'moved' : 'set',
    }
  }
  const feet = frame.members.flatMap(({ id, foot, label }) =>
    foot && label ? [onGround({ what: 'post', partId: id }, label, foot)] : [],
  )
  const anchors = frame.anchors.flatMap(({ id, head, label, at }) =>
    head === 'eye' ? [onGround({ what: 'anchor', partId: id }, label, at)] : [],
  )
  const ground = [...feet, ...anchors].sort((a, b) => a.alongM - b.alongM || a.outM - b.outM)
  const diagonalM = fixings.length > 0 ? diagonal(fixings, 'heightM') : diagonal(feet, 'outM')
  return { rows: [...fixings, ...ground], diagonalM }
}

function diagonal(rows: readonly MarkOutRow[], across: 'heightM' | 'outM'): number | null {
  if (rows.length === 0) return null
  const span = (values: number[]) =>
    values.reduce((a, b) => Math.max(a, b)) - values.reduce((a, b) => Math.min(a, b))
  const width = span(rows.map((r) => r.alongM))
  const height = span(rows.map((r) => r[across]))
  return width < 1e-6 || height < 1e-6 ? null : Math.hypot(width, height)
}
