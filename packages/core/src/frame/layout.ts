import type { Point } from '../geometry/index.ts'

export interface LaidNode {
  /** Stable while the pattern keeps its shape, so that a dragged node is found again after a change of measure. */
  readonly id: string
  readonly ideal: Point
  /** Where a plant begins: a line starts here at the foot of the pattern. */
  readonly isStart: boolean
}

/** What a pattern makes of a wall, before spots are avoided. Runs join nodes by their index. */
export interface Layout {
  readonly nodes: readonly LaidNode[]
  readonly runs: readonly (readonly [number, number])[]
  /** Whole cells, half cells and what is left of the width, for patterns that have cells. */
  readonly cells: { readonly whole: number; readonly half: number; readonly remainderM: number } | null
}

/** A pattern of more nodes than this is a slip of the decimal point, and would freeze the screen. */
export const MAX_NODES = 20_000

/** Collects nodes by id, so that shared corners count once. */
export class LayoutBuilder {
  private readonly indexById = new Map<string, number>()
  private readonly nodes: LaidNode[] = []
  private readonly runs: [number, number][] = []

  node(id: string, xM: number, yM: number, isStart = false): number {
    const known = this.indexById.get(id)
    if (known !== undefined) return known
    this.indexById.set(id, this.nodes.length)
    this.nodes.push({ id, ideal: { xM, yM }, isStart })
    return this.nodes.length - 1
  }

  run(a: number, b: number): void {
    this.runs.push([a, b])
  }

  build(cells: Layout['cells'] = null): Layout {
    return { nodes: this.nodes, runs: this.runs, cells }
  }
}

/** Quotients such as 1.2/0.4 are whole in decimals but not in binary; lengths nearer than this are the same length. */
export const LENGTH_TOLERANCE_M = 1e-6

/** How often `part` fits into `whole`, forgiving binary rounding. */
export function wholeTimes(whole: number, part: number): number {
  return Math.floor((whole + LENGTH_TOLERANCE_M) / part)
}

/** The fewest equal parts of `whole` that are none longer than `most`, forgiving binary rounding. */
export function fewestParts(whole: number, most: number): number {
  return Math.max(1, Math.ceil((whole - LENGTH_TOLERANCE_M) / most))
}
