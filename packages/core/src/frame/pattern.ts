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

/** Level lines with slanting ones between them, corners over the middles of the bases below. */
export interface TrianglesPattern {
  readonly kind: 'triangles'
  readonly baseM: number
  readonly rows: number
}

/** Upright and level wires from edge to edge, fixed where they cross. */
export interface GridPattern {
  readonly kind: 'grid'
  readonly verticals: number
  readonly horizontals: number
}

/** Nodes and runs put there by hand, one by one. Heights are above the soil. */
export interface FreePattern {
  readonly kind: 'free'
  readonly nodes: readonly {
    readonly id: string
    readonly xM: number
    readonly yM: number
    readonly isStart: boolean
  }[]
  readonly runs: readonly (readonly [string, string])[]
}

/**
 * Ribs from the middle of the first fork to the edges of the wall, at equal angles. With a wire step the ribs
 * are canes tied to level wires; without one they are wires themselves.
 */
export interface FanPattern {
  readonly kind: 'fan'
  readonly ribs: number
  readonly spreadDeg: number
  readonly wireStepM: number | null
  readonly maxSupportSpacingM: number
  /** No rib is longer; `null` where they run to the edge of the wall. */
  readonly ribReachM: number | null
  readonly ribStockId: string
}

export interface RowLevel {
  readonly heightM: number
  readonly slot: 'main' | 'light'
  /** One wire on the posts, one on each side of them, or one on each end of a cross-arm. */
  readonly form: 'single' | 'pair' | 'arms'
  /** Between the two wires of a pair on arms. */
  readonly spreadM: number
  /** A pair that is lifted as shoots grow: how far. 0 for wires that stay. */
  readonly liftM: number
}

export type EndAssembly =
  | {
      readonly kind: 'tied-back'
      readonly attachHeightM: number
      readonly angleDeg: number
      readonly screwId: string
    }
  | {
      readonly kind: 'braced'
      readonly attachHeightM: number
      readonly angleDeg: number
      readonly stockId: string
    }
  | { readonly kind: 'free' }

/** Posts in a line with level wires, on the flat or following a slope. */
export interface RowPattern {
  readonly kind: 'row'
  readonly maxPostSpacingM: number
  readonly postHeightM: number
  readonly postBuriedM: number
  readonly postStockId: string
  readonly endStockId: string
  readonly endBuriedM: number
  readonly endLeanDeg: number
  readonly end: EndAssembly
  readonly armStockId: string
  readonly levels: readonly RowLevel[]
  /** A wire of its own for the water pipe, so that nobody cuts it with the canes. */
  readonly waterHeightM: number | null
  readonly plantSpacingM: number
}

/** Posts in two lines with beams, rafters and wires overhead; an arbour has wires up its back as well. */
export interface OverheadPattern {
  readonly kind: 'overhead'
  readonly depthM: number
  readonly headroomM: number
  readonly maxBayM: number
  readonly postStockId: string
  readonly postBuriedM: number
  readonly beamStockId: string
  readonly overhangM: number
  readonly maxRafterSpacingM: number
  readonly wireSpacingM: number
  readonly backWires: number
}

/** Hoops one behind the other with rungs along them, or one hoop by itself. */
export interface ArchPattern {
  readonly kind: 'arch'
  readonly spanM: number
  readonly heightM: number
  readonly depthM: number
  readonly hoops: number
  readonly rungStepM: number
  readonly buriedM: number
  readonly hoopStockId: string
  readonly rungStockId: string
  readonly pot: Pot | null
}

/** Posts on a grid, cables over them both ways, tied back all round, a cover in panels. */
export interface NetPattern {
  readonly kind: 'net'
  readonly depthM: number
  readonly heightM: number
  readonly maxSpacingAlongM: number
  readonly maxSpacingAcrossM: number
  readonly postStockId: string
  readonly interior: 'screw' | 'hole'
  readonly postBuriedM: number
  readonly flangeScrewId: string
  readonly anchorScrewId: string
  readonly anchorOutM: number
  readonly panelWidthM: number
  /** How far the cover hangs down at the sides. */
  readonly dropM: number
}

/** A tub or pot that a frame stands in; heights of the frame count from its soil. */
export interface Pot {
  readonly shape: 'round' | 'square'
  readonly widthM: number
  readonly heightM: number
}

/** Stakes at the corners of a regular polygon, held at the top, with a string wound up round them. */
export interface SpiralPattern {
  readonly kind: 'spiral'
  readonly stakes: number
  readonly circleRadiusM: number
  readonly heightM: number
  readonly buriedM: number
  readonly startHeightM: number
  readonly turns: number
  readonly wrapsPerContact: 0 | 1
  readonly knotEvery: number
  readonly knotAllowanceM: number
  /** As seen from above, going up. */
  readonly winding: 'clockwise' | 'anticlockwise'
  readonly top: 'ring' | 'polygon'
  readonly stakeStockId: string
  readonly topStockId: string
  readonly pot: Pot | null
}

export interface ObeliskPattern {
  readonly kind: 'obelisk'
  readonly form: 'obelisk' | 'cone' | 'ladder'
  readonly legs: number
  readonly baseM: number
  readonly topM: number
  readonly heightM: number
  readonly buriedM: number
  readonly rungs: number
  readonly legStockId: string
  readonly rungStockId: string
  readonly pot: Pot | null
}

/** A pole that aerial roots grow into: a cylinder of mesh, a wrapped core, or open modules one on another. */
export interface PolePattern {
  readonly kind: 'pole'
  readonly form: 'mesh' | 'wrapped' | 'modules'
  readonly heightM: number
  readonly buriedM: number
  readonly diameterM: number
  readonly lapM: number
  readonly moduleM: number
  readonly coreStockId: string
  readonly pot: Pot | null
}

/** Single stakes in a line. */
export interface StakesPattern {
  readonly kind: 'stakes'
  readonly count: number
  readonly spacingM: number
  readonly heightM: number
  readonly buriedM: number
  readonly stakeStockId: string
  readonly pot: Pot | null
}

/** A column in a tub with two levels of bars that cross, a padded mesh on them, and plants round its foot. */
export interface ColumnPattern {
  readonly kind: 'column'
  readonly tub: Pot
  readonly columnStockId: string
  readonly barStockId: string
  readonly lowerM: number
  readonly upperM: number
  readonly reachM: number
  readonly gravelM: number
  readonly plants: number
}

/** Twiggy brush pushed into the ground in rows. */
export interface BrushPattern {
  readonly kind: 'brush'
  readonly rows: number
  readonly rowSpacingM: number
  readonly twigStepM: number
  readonly heightM: number
  readonly buriedM: number
  readonly twigStockId: string
}

export type Pattern =
  | TiersPattern
  | DiamondsPattern
  | ZigzagPattern
  | TrianglesPattern
  | GridPattern
  | FreePattern
  | FanPattern
  | RowPattern
  | OverheadPattern
  | ArchPattern
  | NetPattern
  | SpiralPattern
  | ObeliskPattern
  | PolePattern
  | StakesPattern
  | ColumnPattern
  | BrushPattern

export type PatternKind = Pattern['kind']

/** What may stand in a pot, and the pot. */
export function potOf(pattern: Pattern): Pot | null {
  if (pattern.kind === 'column') return pattern.tub
  return 'pot' in pattern ? pattern.pot : null
}

/** The wires that a pattern is strung with. */
export function wireSlots(pattern: Pattern): readonly ('main' | 'light')[] {
  switch (pattern.kind) {
    case 'row':
      return pattern.waterHeightM !== null || pattern.levels.some((level) => level.slot === 'light')
        ? ['main', 'light']
        : ['main']
    case 'arch':
    case 'obelisk':
    case 'pole':
    case 'stakes':
    case 'column':
    case 'brush':
      return []
    default:
      return ['main']
  }
}
