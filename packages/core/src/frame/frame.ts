import { requirePositive, requireRange } from '../errors/index.ts'
import { distanceM } from '../geometry/index.ts'
import type { Point, Rect } from '../geometry/index.ts'
import { isInSpot, nearestFreePoint } from './avoid.ts'
import { layDiamonds } from './diamonds.ts'
import { layFan, layGrid, layTiers, layZigzag } from './lines.ts'
import type { Layout } from './layout.ts'
import type { Pattern } from './pattern.ts'
import { MAX_WALL_M } from './wall.ts'
import type { Wall } from './wall.ts'

/** `set`: as the pattern says; `moved`: off an avoided spot; `dragged`: put there by hand; `blocked`: nowhere to go. */
export type NodeState = 'set' | 'moved' | 'dragged' | 'blocked'

export interface FrameNode {
  readonly id: string
  /** Number on the mark-out, from the viewing end and from below, starting at 1. */
  readonly number: number
  readonly ideal: Point
  readonly at: Point
  readonly state: NodeState
  readonly movedM: number
  readonly isStart: boolean
}

export interface FrameRun {
  readonly id: string
  readonly from: number
  readonly to: number
  readonly lengthM: number
}

/** Something about a frame that the grower has to know; not an error. */
export type FrameFinding =
  | { readonly code: 'frame/spot-unavoidable'; readonly nodeId: string; readonly number: number; readonly spot: string; readonly toleranceM: number }
  | { readonly code: 'frame/dragged-onto-spot'; readonly nodeId: string; readonly number: number; readonly spot: string } // prettier-ignore

export interface Frame {
  readonly nodes: readonly FrameNode[]
  readonly runs: readonly FrameRun[]
  readonly cells: Layout['cells']
  readonly findings: readonly FrameFinding[]
}

export interface FrameOptions {
  /** How far a node may move off an avoided spot, metres. */
  readonly moveToleranceM: number
  /** Nodes put elsewhere by hand, by node id. Ids that the pattern no longer has are passed over. */
  readonly dragged: Readonly<Record<string, Point>>
}

/**
 * Nodes and runs of a pattern on a wall, in metres on the elevation. Nodes leave avoided spots by the least distance
 * within the tolerance, or stay and are reported as findings. Throws a `frame/*` or `core/*` error for a pattern that
 * cannot be laid on this wall.
 */
export function makeFrame(wall: Wall, pattern: Pattern, options: FrameOptions): Frame {
  requirePositive('widthM', wall.widthM, MAX_WALL_M)
  requirePositive('usableHeightM', wall.usableHeightM, MAX_WALL_M)
  requireRange('firstForkM', wall.firstForkM, 0, MAX_WALL_M)
  requireRange('moveToleranceM', options.moveToleranceM, 0, MAX_WALL_M)
  const layout = layPattern(wall, pattern)
  // Below the first fork there is still wall: a node may step down there off a spot.
  const area: Rect = { leftM: 0, rightM: wall.widthM, bottomM: 0, topM: wall.firstForkM + wall.usableHeightM }
  const findings: FrameFinding[] = []
  const placed = layout.nodes.map((node) => placeNode(node.id, node.ideal, wall, options, area))
  const numbers = markOutNumbers(placed, wall)
  // Written out rather than spread: at a thousand nodes a keystroke, copying by spread is most of the time.
  const nodes = layout.nodes.map((node, index): FrameNode => {
    const { at, state, spot } = placed[index]!
    const number = numbers[index]!
    if (spot !== null) {
      findings.push(
        state === 'dragged'
          ? { code: 'frame/dragged-onto-spot', nodeId: node.id, number, spot }
          : {
              code: 'frame/spot-unavoidable',
              nodeId: node.id,
              number,
              spot,
              toleranceM: options.moveToleranceM,
            },
      )
    }
    const { id, ideal, isStart } = node
    return { id, number, ideal, at, state, movedM: distanceM(ideal, at), isStart }
  })
  const runs = layout.runs.map(([from, to]): FrameRun => ({
    id: `${nodes[from]!.id}-${nodes[to]!.id}`,
    from,
    to,
    lengthM: distanceM(nodes[from]!.at, nodes[to]!.at),
  }))
  return { nodes, runs, cells: layout.cells, findings }
}

function layPattern(wall: Wall, pattern: Pattern): Layout {
  switch (pattern.kind) {
    case 'tiers':
      return layTiers(wall, pattern)
    case 'diamonds':
      return layDiamonds(wall, pattern)
    case 'zigzag':
      return layZigzag(wall, pattern)
    case 'fan':
      return layFan(wall, pattern)
    case 'grid':
      return layGrid(wall, pattern)
  }
}

function placeNode(
  id: string,
  ideal: Point,
  wall: Wall,
  options: FrameOptions,
  area: Rect,
): { at: Point; state: NodeState; spot: string | null } {
  const dragged = options.dragged[id]
  if (dragged) {
    return { at: dragged, state: 'dragged', spot: wall.avoid.find((s) => isInSpot(dragged, s))?.what ?? null }
  }
  const free = nearestFreePoint(ideal, wall.avoid, area, options.moveToleranceM)
  if (free === ideal) return { at: ideal, state: 'set', spot: null }
  if (free) return { at: free, state: 'moved', spot: null }
  return { at: ideal, state: 'blocked', spot: wall.avoid.find((s) => isInSpot(ideal, s))?.what ?? null }
}

/** Numbers nodes along the tape from the viewing end, from below upward where two stand at one distance. */
function markOutNumbers(nodes: readonly { at: Point }[], wall: Wall): number[] {
  const towards = wall.viewingEnd === 'left' ? 1 : -1
  const steps = nodes.map((node) => towards * tapeStep(node.at.xM))
  const order = nodes
    .map((_, i) => i)
    .sort((a, b) => steps[a]! - steps[b]! || nodes[a]!.at.yM - nodes[b]!.at.yM)
  const numbers: number[] = []
  order.forEach((node, rank) => (numbers[node] = rank + 1))
  return numbers
}

/** Positions a micrometre apart are one reading of the tape; without this, binary dust would shuffle the heights. */
function tapeStep(xM: number): number {
  return Math.round(xM * 1e6)
}
