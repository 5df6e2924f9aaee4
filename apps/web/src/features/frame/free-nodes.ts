import type { PatternOf } from './change.ts'

type Free = PatternOf<'free'>

/** The first number that no node bears: ids stay with their nodes when others go. */
export function nextNodeId(pattern: Free): string {
  const taken = new Set(pattern.nodes.map((node) => node.id))
  for (let n = 1; ; n++) if (!taken.has(`n${n}`)) return `n${n}`
}

export function withoutNode(pattern: Free, id: string): Free {
  return {
    ...pattern,
    nodes: pattern.nodes.filter((node) => node.id !== id),
    runs: pattern.runs.filter((run) => !run.includes(id)),
  }
}

/** Puts a wire between two nodes, or takes the one that is there away. */
export function toggleRun(pattern: Free, a: string, b: string): Free {
  const rest = pattern.runs.filter((run) => !(run.includes(a) && run.includes(b)))
  return { ...pattern, runs: rest.length < pattern.runs.length ? rest : [...rest, [a, b]] }
}

export function movedNode(pattern: Free, id: string, at: { xM: number; yM: number }): Free {
  return {
    ...pattern,
    nodes: pattern.nodes.map((node) => (node.id === id ? { ...node, xM: at.xM, yM: at.yM } : node)),
  }
}
