import type { Frame, NodeState } from './frame.ts'
import type { Wall } from './wall.ts'

export interface MarkOutRow {
  readonly number: number
  readonly nodeId: string
  /** Along the tape from the viewing end of the wall, metres. Never falls from row to row. */
  readonly alongM: number
  /** Above the soil, metres. */
  readonly heightM: number
  readonly idealAlongM: number
  readonly idealHeightM: number
  readonly movedM: number
  readonly state: NodeState
}

export interface MarkOut {
  readonly rows: readonly MarkOutRow[]
  /** Both diagonals of the outer rectangle of nodes must read this, or it is out of square. `null` for a single line. */
  readonly diagonalM: number | null
}

/** Every node as running distance from one datum, the viewing end at the soil: distances do not add up errors. */
export function markOut(frame: Frame, wall: Pick<Wall, 'widthM' | 'viewingEnd'>): MarkOut {
  const along = (xM: number) => (wall.viewingEnd === 'left' ? xM : wall.widthM - xM)
  const rows = frame.nodes
    .map((node): MarkOutRow => ({
      number: node.number,
      nodeId: node.id,
      alongM: along(node.at.xM),
      heightM: node.at.yM,
      idealAlongM: along(node.ideal.xM),
      idealHeightM: node.ideal.yM,
      movedM: node.movedM,
      state: node.state,
    }))
    .sort((a, b) => a.number - b.number)
  return { rows, diagonalM: outerDiagonalM(rows) }
}

function outerDiagonalM(rows: readonly MarkOutRow[]): number | null {
  const span = (values: number[]) =>
    values.reduce((a, b) => Math.max(a, b)) - values.reduce((a, b) => Math.min(a, b))
  const width = span(rows.map((r) => r.alongM))
  const height = span(rows.map((r) => r.heightM))
  return width < 1e-6 || height < 1e-6 ? null : Math.hypot(width, height)
}
