import { CoreError, requireRange, requireWhole } from '../errors/index.ts'
import { fewestGroups, MOST_FEW_RUNS } from './few-runs.ts'
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
  /** No plan can do with fewer pieces than this, wherever they end. */
  readonly leastPieces: number
  /** Ends of pieces at nodes where none is wanted. */
  readonly endsElsewhere: number
}

export interface StringingLimits {
  /** Longest piece that one person handles, end wraps included, metres. */
  readonly handlingLengthM: number
  /** Wire for wrapping one end round itself, metres. */
  readonly endWrapM: number
  /** Nodes at which wire may end, by their index; all of them unless said. */
  readonly endsAt?: ReadonlySet<number>
}

/** Lengths closer than this are equal, so that ten runs of 0.1 m fit in 1 m. */
const LENGTH_TOLERANCE_M = 1e-6
/** A closed tour may be opened anywhere; more than this many openings are not worth trying. */
const MAX_OPENINGS = 64

/**
 * Continuous pieces that cover every run exactly once, end only at nodes and are no longer than the handling
 * length. Each of the fewest Euler walks is cut as late as possible, which is the fewest for that walk;
 * closed walks are opened where that saves a piece. A connected part of few runs that this does not prove
 * fewest is searched through. `leastPieces` is the bound to hold the plan against. With `endsAt` a walk is
 * cut at those nodes only, and elsewhere just where the room leaves no choice or a walk has to end (an odd
 * node); it may then take more pieces. Throws `stringing/piece-too-short` when a single run does not fit.
 */
export function planStringing(graph: RunGraph, limits: StringingLimits): StringingPlan {
  requireGraph(graph)
  const handling = requireRange('handlingLengthM', limits.handlingLengthM, 1e-6, MOST_M)
  const wraps = 2 * requireRange('endWrapM', limits.endWrapM, 0, MOST_M)
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
  const { endsAt } = limits
  const parts = partsOf(graph, fewestTrails(graph)).map((walks) =>
    stringPart(graph, walks, { roomM, mayEnd: (node) => endsAt === undefined || endsAt.has(node) }),
  )
  const pieces = parts.flatMap((part) => part.pieces).map((trail) => toPiece(graph, trail, wraps))
  const sum = (pick: (piece: WirePiece) => number) => pieces.reduce((total, piece) => total + pick(piece), 0)
  return {
    pieces,
    netLengthM: sum((p) => p.netLengthM),
    cutLengthM: sum((p) => p.cutLengthM),
    leastPieces: parts.reduce((total, part) => total + part.least, 0),
    endsElsewhere: endsAt
      ? sum((p) => [p.nodes[0]!, p.nodes.at(-1)!].filter((node) => !endsAt.has(node)).length)
      : 0,
  }
}

/** Wire on a roll ends long before this, metres. */
const MOST_M = 1e6

/** Throws `core/*` for a run that has no length, or an end at a node that there is not. */
function requireGraph({ nodes, runs }: RunGraph): void {
  for (const { from, to, lengthM } of runs) {
    requireWhole('from', from, 0, nodes.length - 1)
    requireWhole('to', to, 0, nodes.length - 1)
    requireRange('lengthM', lengthM, 0, MOST_M)
  }
}

function toPiece(graph: RunGraph, trail: Trail, wrapsM: number): WirePiece {
  const netLengthM = trail.runs.reduce((sum, run) => sum + graph.runs[run]!.lengthM, 0)
  return { nodes: trail.nodes, runs: trail.runs, netLengthM, cutLengthM: netLengthM + wrapsM }
}

/** How long a piece may be and where it may end. */
interface Cutting {
  readonly roomM: number
  readonly mayEnd: (node: number) => boolean
}

function cutTrail(graph: RunGraph, trail: Trail, { roomM, mayEnd }: Cutting): Trail[] {
  const lengths = trail.runs.map((run) => graph.runs[run]!.lengthM)
  const wanted = trail.nodes.map(mayEnd)
  const isClosed = trail.nodes[0] === trail.nodes.at(-1)
  let opening = isClosed ? Math.max(0, wanted.indexOf(true)) : 0
  let ends = greedyEnds(lengths, wanted, opening, roomM)
  if (!isClosed) return slices(trail, 0, ends)
  // Only openings inside the first piece can differ: any later one is a shift of the same cuts.
  const least = leastForRuns(lengths, roomM)
  const last = opening + Math.min(ends[0]!, MAX_OPENINGS)
  for (let shift = opening + 1; shift < last && shift < lengths.length && ends.length > least; shift++) {
    if (!wanted[shift]) continue
    const other = greedyEnds(lengths, wanted, shift, roomM)
    if (other.length < ends.length) [ends, opening] = [other, shift]
  }
  return slices(trail, opening, ends)
}

/**
 * Where pieces end, each as late as the room and the wish allow, as numbers of runs walked from the opening
 * on.
 */
function greedyEnds(
  lengths: readonly number[],
  wanted: readonly boolean[],
  opening: number,
  roomM: number,
): number[] {
  const ends: number[] = []
  let lengthM = 0
  /** The last wanted end on the way, and the length walked since. */
  let last: { at: number; sinceM: number } | null = null
  for (let i = 0; i < lengths.length; i++) {
    const runM = lengths[(opening + i) % lengths.length]!
    while (lengthM + runM > roomM) {
      const cut: number = last?.at ?? i
      lengthM = last?.sinceM ?? 0
      last = null
      ends.push(cut)
    }
    lengthM += runM
    if (last) last.sinceM += runM
    if (wanted[(opening + i + 1) % lengths.length]) last = { at: i + 1, sinceM: 0 }
  }
  ends.push(lengths.length)
  return ends
}

/** The pieces of a walk that is opened at `opening` (0 for an open one) and ends them where `ends` says. */
function slices(trail: Trail, opening: number, ends: readonly number[]): Trail[] {
  const runs = [...trail.runs.slice(opening), ...trail.runs.slice(0, opening)]
  const nodes =
    opening === 0 ? trail.nodes : [...trail.nodes.slice(opening), ...trail.nodes.slice(1, opening + 1)]
  return ends.map((end, i) => {
    const start = ends[i - 1] ?? 0
    return { nodes: nodes.slice(start, end + 1), runs: runs.slice(start, end) }
  })
}

/**
 * Pieces needed for runs of these lengths in any order: their sum over the room, or their number over how
 * many of the shortest fit.
 */
function leastForRuns(lengths: readonly number[], roomM: number): number {
  const sumM = lengths.reduce((sum, length) => sum + length, 0)
  const shortestM = lengths.reduce((least, length) => Math.min(least, length), Infinity)
  const byCount = shortestM > 0 ? Math.ceil(lengths.length / Math.floor(roomM / shortestM)) : 1
  return Math.max(1, Math.ceil(sumM / roomM - 1e-9), byCount)
}

function partsOf(graph: RunGraph, trails: readonly Trail[]): Trail[][] {
  const parts = new Map<number, Trail[]>()
  const root = partOfNode(graph)
  for (const trail of trails) {
    const key = root[trail.nodes[0]!]!
    parts.set(key, [...(parts.get(key) ?? []), trail])
  }
  return [...parts.values()]
}

/**
 * One connected part, in its fewest walks: cut along them, or from scratch where that may save a piece and is
 * quick.
 */
function stringPart(
  graph: RunGraph,
  walks: readonly Trail[],
  cutting: Cutting,
): { pieces: readonly Trail[]; least: number } {
  const runs = walks.flatMap((walk) => walk.runs)
  const lengths = runs.map((run) => graph.runs[run]!.lengthM)
  const least = Math.max(walks.length, leastForRuns(lengths, cutting.roomM))
  const pieces = walks.flatMap((walk) => cutTrail(graph, walk, cutting))
  if (pieces.length === least || runs.length > MOST_FEW_RUNS) return { pieces, least }
  const groups = fewestGroups(graph, runs, cutting.roomM)
  const isFree = walks.every((walk) => walk.nodes.every(cutting.mayEnd))
  if (groups.length === pieces.length || !isFree) return { pieces, least: groups.length }
  return { pieces: groups.map((group) => walkOf(graph, group)), least: groups.length }
}

function walkOf(graph: RunGraph, runs: readonly number[]): Trail {
  const [walk] = fewestTrails({ nodes: graph.nodes, runs: runs.map((run) => graph.runs[run]!) })
  return { nodes: walk!.nodes, runs: walk!.runs.map((i) => runs[i]!) }
}

function partOfNode(graph: RunGraph): number[] {
  const parent = graph.nodes.map((_, i) => i)
  const find = (i: number): number => {
    let at = i
    // Each step up is shortened to two: long chains are walked once.
    while (parent[at] !== at) at = parent[at] = parent[parent[at]!]!
    return at
  }
  for (const run of graph.runs) parent[find(run.from)] = find(run.to)
  return parent.map((_, i) => find(i))
}
