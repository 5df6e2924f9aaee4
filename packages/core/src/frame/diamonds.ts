import { CoreError, requirePositive, requireWhole } from '../errors/index.ts'
import { LENGTH_TOLERANCE_M, LayoutBuilder, MAX_NODES, wholeTimes } from './layout.ts'
import type { Layout } from './layout.ts'
import { alongToX } from './site.ts'
import type { Site } from './site.ts'
import type { DiamondsPattern } from './pattern.ts'

/** Width and height of a cell as the pattern and the wall make it, metres. */
export function diamondCell(wall: Site, pattern: DiamondsPattern): { widthM: number; heightM: number } {
  const rows = requireWhole('rows', pattern.rows, 1, 50)
  const heightM = pattern.cellHeightM ?? wall.usableHeightM / rows
  if (pattern.cell.by === 'width') return { widthM: pattern.cell.widthM, heightM }
  const cells = requireWhole('count', pattern.cell.count, 1, MAX_NODES) + (pattern.cell.halfAtEnd ? 0.5 : 0)
  return { widthM: wall.widthM / cells, heightM }
}

/**
 * Rows of rhombi stacked corner to corner from the first fork up, beginning with a whole cell at the viewing
 * end. After the whole cells comes the near half of one more where at least half a cell's width is left,
 * otherwise nothing. Corners that cells share are one node. Throws `frame/cell-too-large` when not one whole
 * cell fits.
 */
export function layDiamonds(wall: Site, pattern: DiamondsPattern): Layout {
  const { widthM: w, heightM: h } = diamondCell(wall, pattern)
  requirePositive('cellWidthM', w)
  requirePositive('cellHeightM', h)
  const rows = pattern.rows
  const whole = wholeTimes(wall.widthM, w)
  if (whole < 1) {
    throw new CoreError(
      'frame/cell-too-large',
      `A cell ${w} m wide does not fit a wall of ${wall.widthM} m`,
      {
        side: 'width',
        cellM: w,
        spaceM: wall.widthM,
      },
    )
  }
  if (rows * h > wall.usableHeightM + LENGTH_TOLERANCE_M) {
    throw new CoreError(
      'frame/cell-too-large',
      `${rows} cells of ${h} m are higher than ${wall.usableHeightM} m`,
      {
        side: 'height',
        cellM: h,
        rows,
        spaceM: wall.usableHeightM,
      },
    )
  }
  const left = wall.widthM - whole * w
  const half = left >= w / 2 - LENGTH_TOLERANCE_M
  if ((whole + 1) * rows * 3 > MAX_NODES) {
    throw new CoreError('frame/too-many-nodes', `${whole * rows} cells are too many`, { cells: whole * rows })
  }
  const builder = new LayoutBuilder()
  const x = (halves: number) => alongToX(wall, (halves * w) / 2)
  // Corners above and below the cells lie on levels 0..rows; corners beside them half a cell higher, one line
  // a row.
  const corner = (level: number, cell: number) =>
    builder.node(`c${level}.${cell}`, x(2 * cell + 1), wall.firstForkM + level * h, level === 0)
  const side = (row: number, cell: number) =>
    builder.node(`s${row}.${cell}`, x(2 * cell), wall.firstForkM + (row + 0.5) * h)
  for (let row = 0; row < rows; row++) {
    for (let cell = 0; cell < whole; cell++) {
      builder.run(side(row, cell), corner(row + 1, cell))
      builder.run(corner(row + 1, cell), side(row, cell + 1))
      builder.run(side(row, cell), corner(row, cell))
      builder.run(corner(row, cell), side(row, cell + 1))
    }
    if (half) {
      builder.run(side(row, whole), corner(row + 1, whole))
      builder.run(side(row, whole), corner(row, whole))
      if (pattern.closeCutEnd) builder.run(corner(row, whole), corner(row + 1, whole))
    }
  }
  const remainderM = Math.max(0, left - (half ? w / 2 : 0))
  return builder.build({ whole: whole * rows, half: half ? rows : 0, remainderM })
}
