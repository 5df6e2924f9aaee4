import type { Point } from '../geometry/index.ts'

/** Nodes and runs of a frame as a graph: `runs[i]` joins two node indices. */
export interface RunGraph {
  readonly nodes: readonly Point[]
  readonly runs: readonly { readonly from: number; readonly to: number; readonly lengthM: number }[]
}

/** A walk along runs: `nodes` has one more item than `runs`. */
export interface Trail {
  readonly nodes: readonly number[]
  readonly runs: readonly number[]
}

interface Half {
  readonly run: number
  readonly to: number
}

const VIRTUAL = -1

/**
 * The fewest walks that follow every run exactly once: for each connected part max(1, odd nodes / 2) (Euler
 * 1736; Listing 1847). Odd nodes are joined in pairs by imagined runs, a closed tour is walked by
 * Hierholzer's method, and the tour is opened at the imagined runs. At a node the walk goes on as straight as
 * it can, as a wire lies best.
 */
export function fewestTrails(graph: RunGraph): Trail[] {
  const halves = halvesByNode(graph)
  const trails: Trail[] = []
  for (const part of connectedParts(halves)) {
    const odd = part.filter((node) => halves[node]!.length % 2 === 1)
    // One pair of odd nodes stays unjoined when the walk starts at one of them and ends at the other.
    const start = odd[0] ?? part.find((node) => halves[node]!.length > 0)!
    for (let i = 1; i + 1 < odd.length; i += 2) {
      halves[odd[i]!]!.push({ run: VIRTUAL - i, to: odd[i + 1]! })
      halves[odd[i + 1]!]!.push({ run: VIRTUAL - i, to: odd[i]! })
    }
    trails.push(...openAtVirtual(hierholzer(start, halves, graph.nodes)))
  }
  return trails
}

/** How many walks are needed at the least, and how many odd nodes there are, without walking. */
export function trailBound(graph: RunGraph): { minTrails: number; oddNodes: number } {
  const halves = halvesByNode(graph)
  let minTrails = 0
  let oddNodes = 0
  for (const part of connectedParts(halves)) {
    const odd = part.filter((node) => halves[node]!.length % 2 === 1).length
    minTrails += Math.max(1, odd / 2)
    oddNodes += odd
  }
  return { minTrails, oddNodes }
}

function halvesByNode(graph: RunGraph): Half[][] {
  const halves: Half[][] = graph.nodes.map(() => [])
  graph.runs.forEach((run, i) => {
    halves[run.from]!.push({ run: i, to: run.to })
    halves[run.to]!.push({ run: i, to: run.from })
  })
  return halves
}

/** Groups of nodes that hang together; nodes without runs are left out. */
function connectedParts(halves: readonly (readonly Half[])[]): number[][] {
  const seen = new Set<number>()
  const parts: number[][] = []
  halves.forEach((own, first) => {
    if (own.length === 0 || seen.has(first)) return
    const part = [first]
    seen.add(first)
    for (let i = 0; i < part.length; i++) {
      for (const { to } of halves[part[i]!]!) {
        if (!seen.has(to)) {
          seen.add(to)
          part.push(to)
        }
      }
    }
    parts.push(part.sort((a, b) => a - b))
  })
  return parts
}

/**
 * One walk over all runs reachable from `start`, imagined ones included. Runs in time linear in runs times
 * degree.
 */
function hierholzer(start: number, halves: readonly (readonly Half[])[], points: readonly Point[]): Trail {
  const used = new Set<number>()
  const stack: { node: number; run: number | null }[] = [{ node: start, run: null }]
  const nodes: number[] = []
  const runs: number[] = []
  while (stack.length > 0) {
    const top = stack.at(-1)!
    const free = halves[top.node]!.filter((half) => !used.has(half.run))
    if (free.length === 0) {
      stack.pop()
      nodes.push(top.node)
      if (top.run !== null) runs.push(top.run)
      continue
    }
    const before = stack.at(-2)?.node
    const next = before === undefined ? free[0]! : straightest(points, before, top.node, free)
    used.add(next.run)
    stack.push({ node: next.to, run: next.run })
  }
  return { nodes: nodes.reverse(), runs: runs.reverse() }
}

function straightest(points: readonly Point[], before: number, here: number, free: readonly Half[]): Half {
  const [a, b] = [points[before]!, points[here]!]
  const incoming = Math.atan2(b.yM - a.yM, b.xM - a.xM)
  let best = free[0]!
  let bestTurn = Infinity
  for (const half of free) {
    const c = points[half.to]!
    const turn = Math.abs(Math.atan2(c.yM - b.yM, c.xM - b.xM) - incoming)
    const folded = turn > Math.PI ? 2 * Math.PI - turn : turn
    if (folded < bestTurn - 1e-9) {
      best = half
      bestTurn = folded
    }
  }
  return best
}

function openAtVirtual(tour: Trail): Trail[] {
  const trails: Trail[] = []
  let nodes: number[] = [tour.nodes[0]!]
  let runs: number[] = []
  tour.runs.forEach((run, i) => {
    const next = tour.nodes[i + 1]!
    if (run <= VIRTUAL) {
      if (runs.length > 0) trails.push({ nodes, runs })
      nodes = [next]
      runs = []
    } else {
      nodes.push(next)
      runs.push(run)
    }
  })
  if (runs.length > 0) trails.push({ nodes, runs })
  return trails
}
