import type { GoodId, ScrewOnOffer } from '../catalogue/index.ts'
import { at3, pathLengthM } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'

/**
 * What happens at a node: an eye in the wall, a staple at a line post, a wire's end, a lashing of cane to
 * wire, a bolt, or a wire or bar that passes through and takes nothing to hold.
 */
export type Joint = 'eye' | 'staple' | 'end' | 'lashing' | 'bolt' | 'through'

/**
 * Which of a design's wires a run is made of: the one that carries, or the light one for foliage and water.
 */
export type WireSlot = 'main' | 'light'

export interface LaidNode {
  /**
   * Stable while the pattern keeps its shape, so that a dragged node is found again after a change of
   * measure.
   */
  readonly id: string
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
  readonly slot: WireSlot
  /**
   * Runs of one line are one straight wire that slides over its supports; `null` where a run ends at both its
   * nodes.
   */
  readonly line: string | null
  /** String taken up by wraps and knots at the ends of this run, metres. */
  readonly wrapM: number
}

export type MemberPart =
  | 'end-post'
  | 'line-post'
  | 'post'
  | 'brace'
  | 'cross-arm'
  | 'beam'
  | 'rafter'
  | 'hoop'
  | 'stake'
  | 'leg'
  | 'rung'
  | 'rib'
  | 'ring'
  | 'bar'
  | 'core'
  | 'column'
  | 'twig'

/** Anything long and stiff. Its path is its centre line, what is in the ground included. */
export interface Member {
  readonly id: string
  readonly part: MemberPart
  readonly path: readonly Point3[]
  readonly stockId: string
  readonly cutLengthM: number
  readonly buriedM: number
  /** Where it goes into the ground, for what stands in it; marked out with the posts. */
  readonly foot: Point3 | null
  readonly label: string | null
  /** Distances from one end at which a bar is bent. */
  readonly bendsM: readonly number[]
}

export interface Anchor {
  readonly id: string
  readonly head: ScrewOnOffer['head']
  readonly screwId: string
  readonly at: Point3
  /** Where what it holds comes from. */
  readonly towards: Point3
  readonly label: string
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
}

export interface Fill {
  readonly id: string
  readonly good: GoodId
  readonly litres: number
}

/** Where the pattern wants a plant that no node marks. */
export interface PlantSpot {
  readonly id: string
  readonly at: Point3
}

/** A figure that only this kind of frame has, for the slip. */
export interface Figure {
  readonly key:
    | 'string-length'
    | 'string-turns'
    | 'ring-cut'
    | 'bend-every'
    | 'mesh-width'
    | 'mesh-height'
    | 'medium'
    | 'soil-left'
    | 'hole-lower'
    | 'hole-upper'
    | 'span'
    | 'headroom'
    | 'hoop-length'
    | 'cover-area'
    | 'seams'
    | 'tie-back-distance'
    | 'rib-longest'
    | 'modules'
    | 'core-length'
  readonly unit: 'm' | 'litres' | 'count' | 'm2'
  readonly value: number
}

/** What a pattern makes of a place, before spots are avoided. Runs join nodes by their index. */
export interface Layout {
  readonly nodes: readonly LaidNode[]
  readonly runs: readonly LaidRun[]
  readonly members: readonly Member[]
  readonly anchors: readonly Anchor[]
  readonly sheets: readonly Sheet[]
  readonly units: readonly Unit[]
  readonly fills: readonly Fill[]
  readonly plants: readonly PlantSpot[]
  readonly figures: readonly Figure[]
  /** Posts that stand elsewhere than at equal steps, or could not. */
  readonly shifts: readonly Shift[]
  /** Whole cells, half cells and what is left of the width, for patterns that have cells. */
  readonly cells: { readonly whole: number; readonly half: number; readonly remainderM: number } | null
}

export interface Shift {
  readonly id: string
  readonly label: string
  readonly movedM: number
  /** The spot that it stands on all the same. */
  readonly spot: string | null
}

/** A pattern of more nodes than this is a slip of the decimal point, and would freeze the screen. */
export const MAX_NODES = 20_000

/** Collects what a pattern lays, nodes by id so that shared corners count once. */
export class LayoutBuilder {
  private readonly indexById = new Map<string, number>()
  private readonly nodes: LaidNode[] = []
  private readonly runs: LaidRun[] = []
  private readonly members: Member[] = []
  private readonly anchors: Anchor[] = []
  private readonly sheets: Sheet[] = []
  private readonly units: Unit[] = []
  private readonly fills: Fill[] = []
  private readonly plants: PlantSpot[] = []
  private readonly figures: Figure[] = []
  private readonly shifts: Shift[] = []

  /** A node of a pattern on a wall: an eye. */
  node(id: string, xM: number, yM: number, isStart = false): number {
    return this.joint(id, at3(xM, yM), 'eye', { isStart })
  }

  joint(id: string, at: Point3, joint: Joint, rest: { isStart?: boolean; label?: string } = {}): number {
    const known = this.indexById.get(id)
    if (known !== undefined) return known
    this.indexById.set(id, this.nodes.length)
    this.nodes.push({ id, ideal: at, isStart: rest.isStart ?? false, joint, label: rest.label ?? null })
    return this.nodes.length - 1
  }

  run(a: number, b: number, rest: Partial<Omit<LaidRun, 'from' | 'to'>> = {}): void {
    this.runs.push({
      from: a,
      to: b,
      slot: rest.slot ?? 'main',
      line: rest.line ?? null,
      wrapM: rest.wrapM ?? 0,
    })
  }

  /** `cutLengthM` is the length of the path unless given. */
  member(member: Pick<Member, 'id' | 'part' | 'path' | 'stockId'> & Partial<Member>): void {
    this.members.push({
      buriedM: 0,
      foot: null,
      label: null,
      bendsM: [],
      cutLengthM: pathLengthM(member.path),
      ...member,
    })
  }

  anchor(anchor: Anchor): void {
    this.anchors.push(anchor)
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
    this.plants.push({ id, at })
  }

  figure(key: Figure['key'], unit: Figure['unit'], value: number): void {
    this.figures.push({ key, unit, value })
  }

  shift(shift: Shift): void {
    this.shifts.push(shift)
  }

  build(cells: Layout['cells'] = null): Layout {
    const { nodes, runs, members, anchors, sheets, units, fills, plants, figures, shifts } = this
    return { nodes, runs, members, anchors, sheets, units, fills, plants, figures, shifts, cells }
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
