import type { AnchorId, MemberId, NodeId } from './parts.ts'
import type { Frame, NodeState } from './frame.ts'
import type { Member, Shift } from './layout.ts'
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
  /** The other foot of a hoop, which is set together with its first. */
  readonly isSecondFoot?: boolean
}

export interface MarkOut {
  /** Fixings by number, then posts and anchors, each along the tape. */
  readonly rows: readonly MarkOutRow[]
  /** Checks of the whole with a tape from mark to mark; none for a single line. */
  readonly diagonals: readonly Diagonal[]
}

/** From one outer mark to the one across: what the tape must read between them. */
export interface Diagonal {
  readonly from: string
  readonly to: string
  readonly lengthM: number
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
    .map(
      (node): MarkOutRow => ({
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
      }),
    )
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
  const feet = frame.members.flatMap((member) =>
    feetOf(member).map(({ label, at, isSecond }) => ({
      ...onGround({ what: 'post', partId: member.id }, label, at),
      isSecondFoot: isSecond,
    })),
  )
  const anchors = frame.anchors.flatMap(({ id, head, label, at }) =>
    head === 'eye' ? [onGround({ what: 'anchor', partId: id }, label, at)] : [],
  )
  const ground = [...feet, ...anchors].sort((a, b) => a.alongM - b.alongM || a.outM - b.outM)
  // Stakes and legs stand in a ring, and have no corners.
  const isSquare = frame.traits.stands !== 'on-legs'
  const diagonals =
    fixings.length > 0 ? diagonalsOf(fixings, 'heightM') : isSquare ? diagonalsOf(feet, 'outM') : []
  return { rows: [...fixings, ...ground], diagonals }
}

/** Where a member goes into the ground: at its foot, a hoop at both. */
function feetOf({ role, foot, label, path }: Member) {
  if (!foot || !label) return []
  if (role !== 'hoop') return [{ label, at: foot, isSecond: false }]
  return [
    { label: `${label}a`, at: foot, isSecond: false },
    { label: `${label}b`, at: { ...path.at(-1)!, yM: foot.yM }, isSecond: true },
  ]
}

/** Between the marks that lie farthest out in opposite corners. */
function diagonalsOf(rows: readonly MarkOutRow[], across: 'heightM' | 'outM'): Diagonal[] {
  const farthest = (along: 1 | -1, up: 1 | -1): MarkOutRow | undefined => {
    let best: MarkOutRow | undefined
    let bestM = -Infinity
    for (const row of rows) {
      const reachM = along * row.alongM + up * row[across]
      if (best === undefined || reachM > bestM + LEAST_M) [best, bestM] = [row, reachM]
    }
    return best
  }
  return ([1, -1] as const).flatMap((up) => {
    const [from, to] = [farthest(-1, -up as 1 | -1), farthest(1, up)]
    if (!from || !to) return []
    const [alongM, upM] = [Math.abs(to.alongM - from.alongM), Math.abs(to[across] - from[across])]
    if (alongM < LEAST_M || upM < LEAST_M) return []
    return [{ from: from.label, to: to.label, lengthM: Math.hypot(alongM, upM) }]
  })
}

/** Marks nearer to each other than this have no diagonal between them. */
const LEAST_M = 1e-3
