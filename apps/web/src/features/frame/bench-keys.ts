import type { Frame } from '@klados/core/frame'
import type { FramePlan } from '@klados/core/plan'
import type { UnitSystem } from '@klados/core/units'
import type { FrameEdits } from './use-frame-edits.ts'
import { stepBy } from './Stringing.tsx'
import type { Step } from './Stringing.tsx'

/** What is chosen on the bench: a node of the frame, and a step of the stringing. */
export interface Chosen {
  readonly nodeId: string | null
  readonly onNode: (id: string | null) => void
  readonly step: Step | null
  readonly onStep: (step: Step | null) => void
}

/** The next or last of the numbered nodes, round and round. */
export function nodeBeside(frame: Frame, nodeId: string | null, by: number): string | null {
  const order = frame.nodes.filter((node) => node.number > 0).sort((a, b) => a.number - b.number)
  if (order.length === 0) return null
  const at = order.findIndex((node) => node.id === nodeId)
  return order[(at + by + order.length) % order.length]!.id
}

const STEP_M = { metric: 0.01, imperial: 0.0127 } as const
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

/**
 * The drawing by keyboard: n and p through the nodes, . and , through the stringing, Shift and an arrow
 * moves the node by a centimetre or half an inch, Delete puts it back.
 */
export function benchKeys(
  plan: FramePlan,
  frame: Frame | null,
  { nodeId, onNode, step, onStep }: Chosen,
  edits: Pick<FrameEdits, 'moveNode' | 'putBack'> | null,
  system: UnitSystem,
): (event: React.KeyboardEvent) => boolean {
  return ({ key, shiftKey }) => {
    if (key === 'n' || key === 'p') {
      if (frame) onNode(nodeBeside(frame, nodeId, key === 'n' ? 1 : -1) ?? nodeId)
      return true
    }
    if (key === '.' || key === ',') {
      onStep(stepBy(plan, step, key === '.' ? 1 : -1))
      return true
    }
    if (key === 'Escape') {
      onNode(null)
      onStep(null)
      return true
    }
    const node = frame?.nodes.find((one) => one.id === nodeId)
    if (!node || !edits) return false
    if (key === 'Delete' || key === 'Backspace') {
      edits.putBack(node.id)
      return true
    }
    const arrow = ARROWS[key]
    if (!shiftKey || !arrow) return false
    const stepM = STEP_M[system]
    edits.moveNode(node.id, { xM: node.at.xM + arrow[0] * stepM, yM: node.at.yM + arrow[1] * stepM })
    return true
  }
}
