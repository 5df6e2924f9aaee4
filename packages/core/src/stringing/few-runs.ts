import type { RunGraph } from './trails.ts'

/** Sets of this many runs are 4,096, and their splits half a million: a few milliseconds. */
export const MOST_FEW_RUNS = 12

/**
 * The fewest groups of `runs` (indices into the graph, at most `MOST_FEW_RUNS`) of which each can be strung
 * in one go within the room, by dynamic programming over all sets of runs. Every run must fit the room by
 * itself.
 */
export function fewestGroups(graph: RunGraph, runs: readonly number[], roomM: number): number[][] {
  const sets = 1 << runs.length
  const members = (set: number) => runs.filter((_, i) => (set & (1 << i)) !== 0)
  const isOnePiece = Array.from(
    { length: sets },
    (_, set) => set > 0 && isOneWalk(graph, members(set), roomM),
  )
  const fewest = new Array<number>(sets).fill(Infinity)
  const lastGroup = new Array<number>(sets).fill(0)
  fewest[0] = 0
  for (let set = 1; set < sets; set++) {
    // The first run of the set is in one of its groups: that one is tried in every shape.
    const rest = set & (set - 1)
    const first = set ^ rest
    for (let others = rest; ; others = (others - 1) & rest) {
      const group = first | others
      if (isOnePiece[group] && fewest[set ^ group]! + 1 < fewest[set]!) {
        fewest[set] = fewest[set ^ group]! + 1
        lastGroup[set] = group
      }
      if (others === 0) break
    }
  }
  const groups: number[][] = []
  for (let set = sets - 1; set > 0; set ^= lastGroup[set]!) groups.push(members(lastGroup[set]!))
  return groups
}

/** Connected, at most two odd nodes (Euler 1736), and no longer than the room. */
function isOneWalk(graph: RunGraph, runs: readonly number[], roomM: number): boolean {
  const degree = new Map<number, number>()
  const group = new Map<number, number>()
  const find = (node: number): number => {
    const up = group.get(node)
    return up === undefined ? node : find(up)
  }
  let lengthM = 0
  for (const i of runs) {
    const run = graph.runs[i]!
    lengthM += run.lengthM
    for (const end of [run.from, run.to]) degree.set(end, (degree.get(end) ?? 0) + 1)
    const [a, b] = [find(run.from), find(run.to)]
    if (a !== b) group.set(a, b)
  }
  const odd = [...degree.values()].filter((ends) => ends % 2 === 1).length
  return lengthM <= roomM && odd <= 2 && group.size === degree.size - 1
}
