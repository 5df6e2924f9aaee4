import type { Frame } from './frame.ts'
import type { Line, LineId } from './parts.ts'

/**
 * What a wire is called where ids say nothing to anybody: the so-manieth of its role from below, and its side
 * of a pair.
 */
export interface LineName {
  readonly role: Line['role']
  readonly number: number
  readonly side: Line['side']
}

/** Names of all wires of a frame, in the order in which they are laid; the two of a pair share a number. */
export function lineNames(frame: Pick<Frame, 'lines'>): ReadonlyMap<LineId, LineName> {
  const counts = new Map<Line['role'], number>()
  const names = new Map<LineId, LineName>()
  for (const { id, role, side } of frame.lines) {
    const number = (counts.get(role) ?? 0) + (side === 'back' ? 0 : 1)
    counts.set(role, number)
    names.set(id, { role, number, side })
  }
  return names
}
