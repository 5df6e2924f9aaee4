import type { PatternKind } from '@klados/core/frame'

/**
 * Parameters that an editor of its own asks for, since they hang together or are drawn: the cells of
 * diamonds, the wires and ends of a row. Lists and alternatives always have one.
 */
export const EDITED_APART: Readonly<Partial<Record<PatternKind, readonly string[]>>> = {
  diamonds: ['cell', 'cellHeightM', 'rows', 'closeCutEnd'],
  row: ['armStockId', 'end', 'levels', 'roomBeyondM'],
}
