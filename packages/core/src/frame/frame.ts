import { requirePositive, requireRange } from '../errors/index.ts'
import { at3, distance3M } from '../geometry/index.ts'
import type { Point, Point3, Rect } from '../geometry/index.ts'
import { isInSpot, nearestFreePoint, nearestOnLines, spotsInOrder } from './avoid.ts'
import { requireFields } from './field.ts'
import type { FrameOptions } from './frame-options.ts'
import { createLaying } from './kind.ts'
import type { FrameTraits } from './kind.ts'
import { kindOf } from './kinds/index.ts'
import type { Pattern, PatternKind } from './kinds/index.ts'
import type { Joint, LaidNode, Layout } from './layout.ts'
import type { Line, MemberId, NodeId } from './parts.ts'
import { MAX_SITE_M, measuredAt } from './site.ts'
import type { AvoidSpot, Site } from './site.ts'

/**
 * `set`: as the pattern says; `moved`: off an avoided spot; `dragged`: put there by hand; `blocked`: nowhere
 * to go.
 */
export type NodeState = 'set' | 'moved' | 'dragged' | 'blocked'

export interface FrameNode {
  readonly id: NodeId
  /**
   * Number on the mark-out, from the viewing end and from below, starting at 1; 0 for what is not marked out.
   */
  readonly number: number
  /** What it is called: its number, or the name of the post that it is on. */
  readonly label: string
  readonly joint: Joint
  readonly ideal: Point3
  readonly at: Point3
  readonly state: NodeState
  readonly movedM: number
  readonly isStart: boolean
}

export interface FrameRun {
  readonly id: string
  readonly from: number
  readonly to: number
  /** The straight wire that it is a span of. */
  readonly line: Line
  /** Between its nodes. */
  readonly lengthM: number
  /** Cord taken up by wraps and knots. */
  readonly wrapM: number
}

/** Something about a frame that the grower has to know; not an error. */
export type FrameFinding =
  | {
      readonly code: 'frame/spot-unavoidable'
      readonly nodeId: NodeId
      readonly number: number
      readonly spot: string
      readonly toleranceM: number
    }
  | {
      readonly code: 'frame/dragged-onto-spot'
      readonly nodeId: NodeId
      readonly number: number
      readonly spot: string
    }
  | {
      readonly code: 'frame/no-line-near'
      readonly nodeId: NodeId
      readonly number: number
      readonly toleranceM: number
    }
  | {
      readonly code: 'frame/post-on-spot'
      readonly nodeId: MemberId
      readonly label: string
      readonly spot: string
      readonly toleranceM: number
    }

export interface Frame extends Omit<Layout, 'nodes' | 'runs'> {
  readonly kind: PatternKind
  readonly traits: FrameTraits
  readonly nodes: readonly FrameNode[]
  readonly runs: readonly FrameRun[]
  readonly findings: readonly FrameFinding[]
  /** Has parts in front of or behind its plane, so that a side view and a plan say more. */
  readonly hasDepth: boolean
  /** Rise of the ground over its length; rows follow it. */
  readonly slope: number
  /** Length of the ground that was measured. */
  readonly widthM: number
}

/** Height of the ground under a frame, metres: beyond what was measured it goes on level. */
export const groundUnder = (frame: Pick<Frame, 'slope' | 'widthM'>, xM: number): number =>
  frame.slope * measuredAt(frame, xM)

/**
 * A pattern laid out at a place: nodes, wires and whatever else stands, in metres. Fixings in the wall leave
 * avoided spots and go to lines of the wall by the least distance within the tolerance, each by itself, which
 * is the least in total; those that cannot are reported as findings. Throws a `frame/*` or `core/*` error for
 * a pattern that cannot be laid here.
 */
export function makeFrame(measured: Site, pattern: Pattern, options: FrameOptions): Frame {
  const site = { ...measured, avoid: spotsInOrder(measured.avoid) }
  const layout = layPattern(site, pattern, options)
  // Below the first fork there is still wall: a node may step down there off a spot.
  const area: Rect = { leftM: 0, rightM: site.widthM, bottomM: 0, topM: site.firstForkM + site.usableHeightM }
  const findings: FrameFinding[] = []
  const holed = { ...site, avoid: site.avoid.map((spot) => widened(spot, options.holeRadiusM)) }
  const placed = layout.nodes.map((node) => placeNode(node, holed, options, area))
  const numbers = markOutNumbers(layout.nodes, placed, site)
  // Written out rather than spread: at a thousand nodes a keystroke, copying by spread is most of the time.
  const nodes = layout.nodes.map((node, index): FrameNode => {
    const { at, state, trouble } = placed[index]!
    const number = numbers[index]!
    if (trouble !== null) findings.push(findingOf(node.id, number, state, trouble, options.moveToleranceM))
    const { id, ideal, isStart, joint } = node
    const movedM = at === ideal ? 0 : distance3M(ideal, at)
    return { id, number, label: node.label ?? String(number), joint, ideal, at, state, movedM, isStart }
  })
  for (const shift of layout.shifts) {
    if (shift.spot !== null)
      findings.push({
        code: 'frame/post-on-spot',
        nodeId: shift.id,
        label: shift.label,
        spot: shift.spot,
        toleranceM: options.moveToleranceM,
      })
  }
  const strands = new Map<string, number>()
  const runs = layout.runs.map(({ from, to, line, wrapM }): FrameRun => {
    const [a, b] = [nodes[from]!, nodes[to]!]
    const ends = `${a.id}-${b.id}`
    const strand = (strands.get(ends) ?? 0) + 1
    strands.set(ends, strand)
    return {
      id: strand === 1 ? ends : `${ends}.${strand}`,
      from,
      to,
      line,
      lengthM: distance3M(a.at, b.at),
      wrapM,
    }
  })
  // A stock that the catalogue lacks is refused here, where it is named, and not where its width is missed.
  for (const stockId of new Set(layout.members.map((member) => member.stockId))) options.stockWidthM(stockId)
  const hasDepth =
    nodes.some((node) => Math.abs(node.at.zM) > 1e-3) ||
    layout.members.some((member) => member.path.some((p) => Math.abs(p.zM) > 1e-3))
  const { traits } = kindOf(pattern)
  const slope = traits.followsSlope ? (site.riseM ?? 0) / site.widthM : 0
  return {
    ...layout,
    kind: pattern.kind,
    traits,
    nodes,
    runs,
    findings,
    hasDepth,
    slope,
    widthM: site.widthM,
  }
}

/**
 * What stands in order in a pattern here and where, without placing a node: for telling what it keeps of
 * another.
 */
export function axesOf(site: Site, pattern: Pattern, options: FrameOptions): Layout['axes'] {
  return layPattern({ ...site, avoid: spotsInOrder(site.avoid) }, pattern, options).axes
}

function layPattern(site: Site, pattern: Pattern, options: FrameOptions): Layout {
  requirePositive('widthM', site.widthM, MAX_SITE_M)
  requirePositive('usableHeightM', site.usableHeightM, MAX_SITE_M)
  requireRange('firstForkM', site.firstForkM, 0, MAX_SITE_M)
  requireRange('riseM', site.riseM ?? 0, -MAX_SITE_M, MAX_SITE_M)
  requireRange('moveToleranceM', options.moveToleranceM, 0, MAX_SITE_M)
  const kind = kindOf(pattern)
  requireFields(kind.fields, pattern as unknown as Readonly<Record<string, unknown>>)
  return kind.lay(createLaying(site, options, options.ids), pattern)
}

/** What a hole must not touch is kept off by its middle by half its width. */
const widened = (spot: AvoidSpot, byM: number): AvoidSpot =>
  spot.kind === 'point'
    ? { ...spot, radiusM: spot.radiusM + byM }
    : { ...spot, fromM: spot.fromM - byM, toM: spot.toM + byM }

type Trouble = { readonly kind: 'spot'; readonly spot: string } | { readonly kind: 'line' }
interface Placed {
  readonly at: Point3
  readonly state: NodeState
  readonly trouble: Trouble | null
}

/**
 * Only fixings in the wall step aside; posts are placed by their rows, and all other joints go with what they
 * are on.
 */
function placeNode(node: LaidNode, site: Site, options: FrameOptions, area: Rect): Placed {
  const { ideal } = node
  if (node.joint !== 'eye') return { at: ideal, state: 'set', trouble: null }
  const spotAt = (p: Point): Trouble | null => {
    const spot = site.avoid.find((s) => isInSpot(p, s))
    return spot ? { kind: 'spot', spot: spot.what } : null
  }
  const dragged = options.dragged[node.id]
  if (dragged) return { at: at3(dragged.xM, dragged.yM), state: 'dragged', trouble: spotAt(dragged) }
  const lines = {
    uprights: options.snap === 'uprights' || options.snap === 'both' ? (site.uprights ?? null) : null,
    levels: options.snap === 'levels' || options.snap === 'both' ? (site.levels ?? null) : null,
  }
  const isSnapped = lines.uprights !== null || lines.levels !== null
  const free = isSnapped
    ? nearestOnLines(ideal, site.avoid, area, options.moveToleranceM, lines)
    : nearestFreePoint(ideal, site.avoid, area, options.moveToleranceM)
  if (free && (free === ideal || (free.xM === ideal.xM && free.yM === ideal.yM)))
    return { at: ideal, state: 'set', trouble: null }
  if (free) return { at: at3(free.xM, free.yM), state: 'moved', trouble: null }
  return { at: ideal, state: 'blocked', trouble: spotAt(ideal) ?? { kind: 'line' } }
}

function findingOf(
  nodeId: NodeId,
  number: number,
  state: NodeState,
  trouble: Trouble,
  toleranceM: number,
): FrameFinding {
  if (trouble.kind === 'line') return { code: 'frame/no-line-near', nodeId, number, toleranceM }
  if (state === 'dragged') return { code: 'frame/dragged-onto-spot', nodeId, number, spot: trouble.spot }
  return { code: 'frame/spot-unavoidable', nodeId, number, spot: trouble.spot, toleranceM }
}

/** Numbers fixings along the tape from the viewing end, from below upward where two stand at one distance. */
function markOutNumbers(nodes: readonly LaidNode[], placed: readonly Placed[], site: Site): number[] {
  const towards = site.viewingEnd === 'left' ? 1 : -1
  const steps = placed.map(({ at }) => towards * tapeStep(at.xM))
  const order: number[] = []
  nodes.forEach((node, i) => {
    if (node.joint === 'eye') order.push(i)
  })
  order.sort((a, b) => steps[a]! - steps[b]! || placed[a]!.at.yM - placed[b]!.at.yM)
  const numbers = nodes.map(() => 0)
  order.forEach((node, rank) => (numbers[node] = rank + 1))
  return numbers
}

/**
 * Positions a micrometre apart are one reading of the tape; without this, binary dust would shuffle the
 * heights.
 */
function tapeStep(xM: number): number {
  return Math.round(xM * 1e6)
}
