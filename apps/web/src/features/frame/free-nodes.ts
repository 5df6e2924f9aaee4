import type { NodeId } from '@klados/core/frame'
import type { PatternOf } from './change.ts'

type Free = PatternOf<'free'>

export function withoutNode(pattern: Free, id: NodeId): Free {
  return {
    ...pattern,
    nodes: pattern.nodes.filter((node) => node.id !== id),
    runs: pattern.runs.filter((run) => !run.includes(id)),
  }
}

/** Puts a wire between two nodes, or takes the one that is there away. */
export function toggleRun(pattern: Free, a: NodeId, b: NodeId): Free {
  const rest = pattern.runs.filter((run) => !(run.includes(a) && run.includes(b)))
  return { ...pattern, runs: rest.length < pattern.runs.length ? rest : [...rest, [a, b]] }
}

export function movedNode(pattern: Free, id: NodeId, at: { xM: number; yM: number }): Free {
  return {
    ...pattern,
    nodes: pattern.nodes.map((node) => (node.id === id ? { ...node, xM: at.xM, yM: at.yM } : node)),
  }
}
