import { CoreError } from '../../errors/index.ts'
import { flag, id, length, link, list } from '../field.ts'
import {
  MAIN_ONLY,
  MAX_SIZE_M,
  ON_FACE,
  ON_FACE_CHECKS,
  LATTICE_WIRE,
  centimetres,
  frameKind,
} from '../kind.ts'
import { LayoutBuilder, MAX_NODES } from '../layout.ts'
import { nodeId } from '../parts.ts'
import type { NodeId } from '../parts.ts'

const MOST_NODES = 400

/** The first lines drawn are no longer than wire is strung by hand, however long the wall. */
const HALF_AT_START_M = 1

/**
 * Nodes and runs put there by hand, one by one. Heights are above the soil. A run that names a node that is
 * gone, or one node twice, is left out, as is a second run between the same two.
 */
export const free = frameKind({
  kind: 'free',
  fields: {
    nodes: list(1, MOST_NODES, {
      id: id('node'),
      xM: length(0, MAX_SIZE_M),
      yM: length(0, MAX_SIZE_M),
      isStart: flag,
    }),
    runs: list(0, 3 * MOST_NODES, link),
  },
  traits: ON_FACE,
  places: { wall: 7, fence: 7 },
  usualPlant: 'clematis',
  startWith: LATTICE_WIRE,
  start: ({ widthM, firstForkM, usableHeightM }) => {
    const halfM = Math.min(widthM / 4, HALF_AT_START_M)
    const [a, b, c] = [nodeId('n1'), nodeId('n2'), nodeId('n3')]
    return {
      kind: 'free',
      nodes: [
        { id: a, xM: centimetres(widthM / 2 - halfM), yM: firstForkM, isStart: true },
        {
          id: b,
          xM: centimetres(widthM / 2),
          yM: centimetres(firstForkM + usableHeightM * 0.8),
          isStart: false,
        },
        { id: c, xM: centimetres(widthM / 2 + halfM), yM: firstForkM, isStart: true },
      ],
      runs: [
        [a, b],
        [b, c],
      ],
    }
  },
  wires: MAIN_ONLY,
  checks: ON_FACE_CHECKS,
  sheet: ['stringing'],
  lay: (_, pattern) => {
    if (pattern.runs.length > MAX_NODES)
      throw new CoreError('frame/too-many-nodes', `${pattern.runs.length} runs are too many`, {})
    const builder = new LayoutBuilder()
    const indexById = new Map<NodeId, number>()
    for (const { id: node, xM, yM, isStart } of pattern.nodes)
      indexById.set(node, builder.node(node, xM, yM, isStart))
    const laid = new Set<string>()
    for (const [a, b] of pattern.runs) {
      const [from, to] = [indexById.get(a), indexById.get(b)]
      if (from === undefined || to === undefined || from === to) continue
      const key = `${Math.min(from, to)}-${Math.max(from, to)}`
      if (laid.has(key)) continue
      laid.add(key)
      builder.wire(from, to)
    }
    return builder.build()
  },
})
