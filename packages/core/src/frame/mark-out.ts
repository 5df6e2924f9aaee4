import type { Frame, NodeState } from './frame.ts'
import type { Site } from './site.ts'

export interface MarkOutRow {
  /** A fixing in the wall, a post, stake or leg in the ground, an anchor. */
  readonly what: 'node' | 'post' | 'anchor'
  readonly label: string
  readonly nodeId: string
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
      nodeId: node.id,
      alongM: along(node.at.xM),
      heightM: node.at.yM,
      outM: 0,
      idealAlongM: along(node.ideal.xM),
      idealHeightM: node.ideal.yM,
      movedM: node.movedM,
      state: node.state,
    }))
  const shifts = new Map(frame.shifts.map((shift) => [shift.id, shift]))
  const onGround = (
    what: 'post' | 'anchor',
    id: string,
    label: string,
    at: { xM: number; zM: number },
  ): MarkOutRow => {
    const movedM = shifts.get(id)?.movedM ?? 0
    const state = shifts.get(id)?.spot ? 'blocked' : movedM > 0 ? 'moved' : 'set'
    return {
      what,
      label,
      nodeId: id,
      alongM: along(at.xM),
      heightM: 0,
      outM: at.zM,
      idealAlongM: along(at.xM),
      idealHeightM: 0,
      movedM,
      state,
    }
  }
  const feet = frame.members.flatMap((member) =>
    member.foot && member.label ? [onGround('post', member.id, member.label, member.foot)] : [],
  )
  const anchors = frame.anchors.flatMap((anchor) =>
    anchor.head === 'eye' ? [onGround('anchor', anchor.id, anchor.label, anchor.at)] : [],
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
