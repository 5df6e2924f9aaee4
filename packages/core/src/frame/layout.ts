import { at3, pathLengthM } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'
import type { GoodId, ScrewOnOffer } from '../catalogue/index.ts'
import type { Axis } from './axis.ts'
import { anchorId, lineId, memberId, nodeId } from './parts.ts'
import type { AnchorId, Line, LineId, LineRole, MemberId, MemberRole, NodeId } from './parts.ts'

/**
 * What happens at a node: an eye in the wall, a staple at a line post, a wire's end, a lashing of cane to
 * wire, a bolt, or a wire or bar that passes through and takes nothing to hold.
 */
export type Joint = 'eye' | 'staple' | 'end' | 'lashing' | 'bolt' | 'through'

export interface LaidNode {
  readonly id: NodeId
  readonly ideal: Point3
  /** Where a plant begins: a line starts here at the foot of the pattern. */
  readonly isStart: boolean
  readonly joint: Joint
  /**
   * What it is called in the order of stringing where it has no number on the mark-out, such as the name of
   * its post.
   */
  readonly label: string | null
}

export interface LaidRun {
  readonly from: number
  readonly to: number
  /** The straight wire that it is a span of. */
  readonly line: Line
  /** Cord taken up by wraps and knots at the ends of this run, metres. */
  readonly wrapM: number
}

/** Anything long and stiff. Its path is its centre line, what is in the ground included. */
export interface Member {
  readonly id: MemberId
  readonly role: MemberRole
  readonly path: readonly Point3[]
  readonly stockId: string
  /** Of one piece of it. */
  readonly cutLengthM: number
  /** Joined of so many alike; their laps are in their lengths. */
  readonly pieces: number
  readonly buriedM: number
  /** Where it goes into the ground, for what stands in it; marked out with the posts. */
  readonly foot: Point3 | null
  readonly label: string | null
  /** Distances from one end at which a bar is bent. */
  readonly bendsM: readonly number[]
}

export interface Anchor {
  readonly id: AnchorId
  readonly head: ScrewOnOffer['head']
  readonly screwId: string
  readonly at: Point3
  /** Where what it holds comes from. */
  readonly towards: Point3
  readonly label: string
  /** Stands behind another in one line: there is no room for its name on the drawing. */
  readonly isBehind?: boolean
}

/** Something flat: a mesh, a net, a wrapping. The area is what is bought; the outline is what is seen. */
export interface Sheet {
  readonly id: string
  readonly good: GoodId
  readonly outline: readonly Point3[]
  readonly areaM2: number
  /** Size to cut, where it is cut from a roll of mesh. */
  readonly cut: { readonly widthM: number; readonly lengthM: number } | null
  /** Edge that is clipped to its neighbour, metres. */
  readonly seamM: number
}

/** A thing bought as one: a tub, a module. */
export interface Unit {
  readonly id: string
  readonly good: GoodId
  readonly outline: readonly Point3[]
  /** Not to be bought. */
  readonly isThere?: boolean
}

export interface Fill {
  readonly id: string
  readonly good: GoodId
  readonly litres: number
}

/** Where the pattern wants a plant that no node marks. */
export interface PlantSpot {
  readonly id: NodeId
  readonly at: Point3
}

export const figureKeys = [
  'string-length',
  'string-turns',
  'ring-cut',
  'first-bend',
  'bend-every',
  'corner-loop',
  'mesh-width',
  'mesh-height',
  'medium',
  'soil-left',
  'hole-lower',
  'hole-upper',
  'span',
  'headroom',
  'hoop-length',
  'cover-area',
  'seams',
  'tie-back-distance',
  'rib-longest',
  'modules',
  'core-length',
  'core-pieces',
  'core-lap',
  'joint-ties',
  'head-space',
  'wrap-string',
  'wrap-turns',
  'seam-ties',
  'tie-length',
] as const

/** A figure for the eye, that only this kind of frame has; no computation reads it. */
export interface Figure {
  readonly key: (typeof figureKeys)[number]
  readonly unit: 'm' | 'litres' | 'count' | 'm2'
  readonly value: number
}

/** Lengths and areas of a frame that loads and checks go by; `null` where the kind has none. */
export interface FrameMeasures {
  /** Widest distance between neighbouring posts. */
  readonly bayM: number | null
  /** Between posts the other way, where they stand on a grid. */
  readonly bayAcrossM: number | null
  readonly coverM2: number | null
  /** Longest rib. */
  readonly reachM: number | null
  /**
   * Between which heights above the ground leaf hangs in the open, where that is not simply from top to
   * bottom.
   */
  readonly leafBandM: readonly [number, number] | null
}

/** A post that stands elsewhere than at equal steps, or could not. */
export interface Shift {
  readonly id: MemberId
  readonly label: string
  readonly movedM: number
  /** The spot that it stands on all the same. */
  readonly spot: string | null
}

/** What a pattern makes of a place, before spots are avoided. Runs join nodes by their index. */
export interface Layout {
  readonly nodes: readonly LaidNode[]
  readonly runs: readonly LaidRun[]
  readonly lines: readonly Line[]
  readonly members: readonly Member[]
  readonly anchors: readonly Anchor[]
  readonly sheets: readonly Sheet[]
  readonly units: readonly Unit[]
  readonly fills: readonly Fill[]
  readonly plants: readonly PlantSpot[]
  readonly figures: readonly Figure[]
  readonly measures: FrameMeasures
  readonly shifts: readonly Shift[]
  /** What stands in order in it, with the ids that it goes by. */
  readonly axes: Readonly<Record<string, Axis>>
  /** Whole cells, half cells and what is left of the width, for patterns that have cells. */
  readonly cells: { readonly whole: number; readonly half: number; readonly remainderM: number } | null
}

/** A pattern of more nodes than this is a slip of the decimal point, and would freeze the screen. */
export const MAX_NODES = 20_000

type MemberInput = Pick<Member, 'role' | 'path' | 'stockId'> & { readonly id: string } & Partial<
    Omit<Member, 'id'>
  >

/** Collects what a pattern lays, nodes by id so that shared corners count once. */
export class LayoutBuilder {
  private readonly indexById = new Map<string, number>()
  private readonly nodes: LaidNode[] = []
  private readonly runs: LaidRun[] = []
  private readonly lines = new Map<LineId, Line>()
  private readonly members: Member[] = []
  private readonly anchors: Anchor[] = []
  private readonly sheets: Sheet[] = []
  private readonly units: Unit[] = []
  private readonly fills: Fill[] = []
  private readonly plants: PlantSpot[] = []
  private readonly figures: Figure[] = []
  private readonly shifts: Shift[] = []
  private readonly axes: Record<string, Axis> = {}
  private measured: FrameMeasures = {
    bayM: null,
    bayAcrossM: null,
    coverM2: null,
    reachM: null,
    leafBandM: null,
  }

  /** A node of a pattern on a wall: an eye. */
  node(id: string, xM: number, yM: number, isStart = false): number {
    return this.joint(id, at3(xM, yM), 'eye', { isStart })
  }

  joint(id: string, at: Point3, joint: Joint, rest: { isStart?: boolean; label?: string } = {}): number {
    const known = this.indexById.get(id)
    if (known !== undefined) return known
    this.indexById.set(id, this.nodes.length)
    const { isStart = false, label = null } = rest
    this.nodes.push({ id: nodeId(id), ideal: at, isStart, joint, label })
    return this.nodes.length - 1
  }

  /** A straight wire; runs are laid on it. */
  line(id: string, role: LineRole, rest: Partial<Pick<Line, 'level' | 'side'>> = {}): Line {
    const line: Line = { id: lineId(id), role, level: rest.level ?? null, side: rest.side ?? null }
    this.lines.set(line.id, line)
    return line
  }

  run(a: number, b: number, line: Line, wrapM = 0): void {
    this.runs.push({ from: a, to: b, line, wrapM })
  }

  /** A wire of one run, ended at both its nodes. */
  wire(a: number, b: number, role: LineRole = 'carrying'): void {
    this.run(a, b, this.line(`${this.nodes[a]!.id}-${this.nodes[b]!.id}`, role))
  }

  /** `cutLengthM` is the length of the path unless given. */
  member({ id, ...member }: MemberInput): void {
    this.members.push({
      buriedM: 0,
      foot: null,
      label: null,
      bendsM: [],
      cutLengthM: pathLengthM(member.path),
      pieces: 1,
      ...member,
      id: memberId(id),
    })
  }

  anchor({ id, ...anchor }: Omit<Anchor, 'id'> & { readonly id: string }): void {
    this.anchors.push({ ...anchor, id: anchorId(id) })
  }

  sheet(sheet: Pick<Sheet, 'id' | 'good' | 'outline' | 'areaM2'> & Partial<Sheet>): void {
    this.sheets.push({ cut: null, seamM: 0, ...sheet })
  }

  unit(unit: Unit): void {
    this.units.push(unit)
  }

  fill(fill: Fill): void {
    if (fill.litres > 0) this.fills.push(fill)
  }

  plant(id: string, at: Point3): void {
    this.plants.push({ id: nodeId(id), at })
  }

  figure(key: Figure['key'], unit: Figure['unit'], value: number): void {
    this.figures.push({ key, unit, value })
  }

  measure(measures: Partial<FrameMeasures>): void {
    this.measured = { ...this.measured, ...measures }
  }

  shift({ id, ...shift }: Omit<Shift, 'id'> & { readonly id: string }): void {
    this.shifts.push({ ...shift, id: memberId(id) })
  }

  axis(name: string, axis: Axis): void {
    this.axes[name] = axis
  }

  build(cells: Layout['cells'] = null): Layout {
    const { nodes, runs, members, anchors, sheets, units, fills, plants, figures, shifts, axes } = this
    const [lines, measures] = [[...this.lines.values()], this.measured]
    return {
      nodes,
      runs,
      lines,
      members,
      anchors,
      sheets,
      units,
      fills,
      plants,
      figures,
      measures,
      shifts,
      axes,
      cells,
    }
  }
}

/**
 * Quotients such as 1.2/0.4 are whole in decimals but not in binary; lengths nearer than this are the same
 * length.
 */
export const LENGTH_TOLERANCE_M = 1e-6

/** How often `part` fits into `whole`, forgiving binary rounding. */
export function wholeTimes(whole: number, part: number): number {
  return Math.floor((whole + LENGTH_TOLERANCE_M) / part)
}

/** The fewest equal parts of `whole` that are none longer than `most`, forgiving binary rounding. */
export function fewestParts(whole: number, most: number): number {
  return Math.max(1, Math.ceil((whole - LENGTH_TOLERANCE_M) / most))
}

/** `count` + 1 positions from 0 to `lengthM` at equal steps. */
export function equalSteps(lengthM: number, count: number): number[] {
  return Array.from({ length: count + 1 }, (_, i) => (i * lengthM) / count)
}
