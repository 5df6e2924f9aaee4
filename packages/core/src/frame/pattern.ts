/** Level wires at the given heights above the soil, each held at its ends and in between. */
export interface TiersPattern {
  readonly kind: 'tiers'
  readonly heightsM: readonly number[]
  readonly maxSupportSpacingM: number
}

export type CellWidth =
  | { readonly by: 'width'; readonly widthM: number }
  | { readonly by: 'count'; readonly count: number; readonly halfAtEnd: boolean }

/** Rhombi corner to corner, whole at the viewing end, a half or nothing at the other. */
export interface DiamondsPattern {
  readonly kind: 'diamonds'
  readonly cell: CellWidth
  /** Height of one cell; `null` fills the usable height with `rows` cells. */
  readonly cellHeightM: number | null
  readonly rows: number
  /** Closes a half cell by an upright wire. */
  readonly closeCutEnd: boolean
}

/** One line to and fro between the first fork and the top. */
export interface ZigzagPattern {
  readonly kind: 'zigzag'
  readonly strokeWidthM: number
}

/** Ribs from the middle of the bottom edge to the edges of the wall, at equal angles. */
export interface FanPattern {
  readonly kind: 'fan'
  readonly ribs: number
  readonly spreadDeg: number
}

/** Upright and level wires from edge to edge, fixed where they cross. */
export interface GridPattern {
  readonly kind: 'grid'
  readonly verticals: number
  readonly horizontals: number
}

export type Pattern = TiersPattern | DiamondsPattern | ZigzagPattern | FanPattern | GridPattern
