import { CoreError, requireRange } from '../errors/index.ts'
import { LayoutBuilder, MAX_NODES } from './layout.ts'
import type { Layout } from './layout.ts'
import type { FreePattern } from './pattern.ts'
import { MAX_SITE_M } from './site.ts'

/**
 * Nodes where the hand put them. A run that names a node that is gone, or one node twice, is left out, as is
 * a second run between the same two.
 */
export function layFree(pattern: FreePattern): Layout {
  requireRange('nodes', pattern.nodes.length, 1, MAX_NODES)
  if (pattern.runs.length > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${pattern.runs.length} runs are too many`, {})
  const builder = new LayoutBuilder()
  const indexById = new Map<string, number>()
  for (const { id, xM, yM, isStart } of pattern.nodes) {
    requireRange('xM', xM, 0, MAX_SITE_M)
    requireRange('yM', yM, 0, MAX_SITE_M)
    indexById.set(id, builder.node(id, xM, yM, isStart))
  }
  const laid = new Set<string>()
  for (const [a, b] of pattern.runs) {
    const [from, to] = [indexById.get(a), indexById.get(b)]
    if (from === undefined || to === undefined || from === to) continue
    const key = `${Math.min(from, to)}-${Math.max(from, to)}`
    if (laid.has(key)) continue
    laid.add(key)
    builder.run(from, to)
  }
  return builder.build()
}
