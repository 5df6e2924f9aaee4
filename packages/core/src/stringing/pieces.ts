import { CoreError, requirePositive, requireRange } from '../errors/index.ts'
import { fewestTrails } from './trails.ts'
import type { RunGraph, Trail } from './trails.ts'

export interface WirePiece {
  /** Node indices in the order of stringing: from, through …, to. */
  readonly nodes: readonly number[]
  readonly runs: readonly number[]
  /** Centre to centre along its runs. */
  readonly netLengthM: number
  /** What to cut: net length and the wrap at both ends. */
  readonly cutLengthM: number
}

export interface StringingPlan {
  readonly pieces: readonly WirePiece[]
  readonly netLengthM: number
  readonly cutLengthM: number
  /** No plan can do with fewer pieces than this. */
  readonly leastPieces: number
}

export interface StringingLimits {
  /** Longest piece that one person handles, end wraps included, metres. */
  readonly handlingLengthM: number
  /** Wire for wrapping one end round itself, metres. */
  readonly endWrapM: number
}

/** Lengths closer than this are equal, so that ten runs of 0.1 m fit in 1 m. */
const LENGTH_TOLERANCE_M = 1e-6
/** A closed tour may be opened anywhere; more than this many openings are not worth trying. */
const MAX_OPENINGS = 64

/**
 * Continuous pieces that cover every run exactly once, end only at nodes and are no longer than the handling length.
 * Each of the fewest Euler walks is cut as late as possible, which is the fewest for that walk; closed walks are opened
 * where that saves a piece. `leastPieces` is the bound to hold the plan against. Throws `stringing/piece-too-short`
 * when a single run does not fit.
 */
export function planStringing(graph: RunGraph, limits: StringingLimits): StringingPlan {
  const handling = requirePositive('handlingLengthM', limits.handlingLengthM)
  const wraps = 2 * requireRange('endWrapM', limits.endWrapM, 0)
  const roomM = handling - wraps + LENGTH_TOLERANCE_M
  const longest = graph.runs.reduce((most, run) => Math.max(most, run.lengthM), 0)
  if (longest > roomM) {
    throw new CoreError(
      'stringing/piece-too-short',
      `A run of ${longest} m and its wraps exceed ${handling} m`,
      {
        runM: longest,
        handlingM: handling,
        wrapsM: wraps,
      },
    )
  }
  const trails = fewestTrails(graph)
  const pieces = trails
    .flatMap((trail) => cutTrail(graph, trail, roomM))
    .map((trail) => toPiece(graph, trail, wraps))
  const sum = (pick: (piece: WirePiece) => number) => pieces.reduce((total, piece) => total + pick(piece), 0)
  return {
    pieces,
    netLengthM: sum((p) => p.netLengthM),
    cutLengthM: sum((p) => p.cutLengthM),
    leastPieces: leastPieces(graph, trails, roomM),
  }
}

function toPiece(graph: RunGraph, trail: Trail, wrapsM: number): WirePiece {
  const netLengthM = trail.runs.reduce((sum, run) => sum + graph.runs[run]!.lengthM, 0)
  return { ...trail, netLengthM, cutLengthM: netLengthM + wrapsM }
}

function cutTrail(graph: RunGraph, trail: Trail, roomM: number): Trail[] {
  const isClosed = trail.nodes[0] === trail.nodes.at(-1)
  let best = cutGreedily(graph, trail, roomM)
  // Only openings inside the first piece can differ: any later one is a shift of the same cuts.
  const openings = isClosed ? Math.min(best[0]!.runs.length, MAX_OPENINGS) : 1
  for (let shift = 1; shift < openings && best.length > 1; shift++) {
    const cut = cutGreedily(graph, rotate(trail, shift), roomM)
    if (cut.length < best.length) best = cut
  }
  return best
}

function cutGreedily(graph: RunGraph, trail: Trail, roomM: number): Trail[] {
  const pieces: Trail[] = []
  let start = 0
  let lengthM = 0
  trail.runs.forEach((run, i) => {
    const runM = graph.runs[run]!.lengthM
    if (lengthM + runM > roomM) {
      pieces.push(slice(trail, start, i))
      start = i
      lengthM = 0
    }
    lengthM += runM
  })
  pieces.push(slice(trail, start, trail.runs.length))
  return pieces
}

function slice(trail: Trail, from: number, to: number): Trail {
  return { nodes: trail.nodes.slice(from, to + 1), runs: trail.runs.slice(from, to) }
}

function rotate(trail: Trail, by: number): Trail {
  const open = trail.nodes.slice(0, -1)
  const nodes = [...open.slice(by), ...open.slice(0, by)]
  return { nodes: [...nodes, nodes[0]!], runs: [...trail.runs.slice(by), ...trail.runs.slice(0, by)] }
}

/** Per walk: its length over the room of a piece, and its runs over how many of the shortest fit; the larger of these. */
function leastPieces(graph: RunGraph, trails: readonly Trail[], roomM: number): number {
  const parts = new Map<number, { walks: number; runs: number; lengthM: number; shortestM: number }>()
  const root = partOfNode(graph)
  for (const trail of trails) {
    const key = root[trail.nodes[0]!]!
    const part = parts.get(key) ?? { walks: 0, runs: 0, lengthM: 0, shortestM: Infinity }
    part.walks++
    part.runs += trail.runs.length
    for (const run of trail.runs) {
      part.lengthM += graph.runs[run]!.lengthM
      part.shortestM = Math.min(part.shortestM, graph.runs[run]!.lengthM)
    }
    parts.set(key, part)
  }
  let least = 0
  for (const part of parts.values()) {
    const byLength = Math.ceil(part.lengthM / roomM - 1e-9)
    const byCount = part.shortestM > 0 ? Math.ceil(part.runs / Math.floor(roomM / part.shortestM)) : 1
    least += Math.max(part.walks, byLength, byCount)
  }
  return least
}

function partOfNode(graph: RunGraph): number[] {
  const parent = graph.nodes.map((_, i) => i)
  const find = (i: number): number => {
    let root = i
    while (parent[root] !== root) root = parent[root]!
    parent[i] = root
    return root
  }
  for (const run of graph.runs) parent[find(run.from)] = find(run.to)
  return parent.map((_, i) => find(i))
}
