import { CoreError } from '../../errors/index.ts'
import { flag, length, lengthOrNone, oneOf, whole } from '../field.ts'
import {
  LEAST_M,
  MAX_SIZE_M,
  MAIN_ONLY,
  ON_FACE,
  ON_FACE_CHECKS,
  LATTICE_WIRE,
  frameKind,
  wishesNear,
} from '../kind.ts'
import type { FitWish, PatternOf } from '../kind.ts'
import { LENGTH_TOLERANCE_M, LayoutBuilder, MAX_NODES, wholeTimes } from '../layout.ts'
import { alongToX } from '../site.ts'
import type { Site } from '../site.ts'

const CELL_M = 0.8

const fields = {
  cell: oneOf('by', {
    width: { widthM: length(LEAST_M, MAX_SIZE_M) },
    count: { count: whole(1, 2000), halfAtEnd: flag },
  }),
  cellHeightM: lengthOrNone(LEAST_M, MAX_SIZE_M, CELL_M),
  rows: whole(1, 12),
  closeCutEnd: flag,
} as const

export type DiamondsPattern = PatternOf<'diamonds', typeof fields>

/**
 * Width and height of a cell as the pattern and the wall make it, metres; `cellHeightM` none fills the usable
 * height.
 */
export function diamondCell(
  { widthM, usableHeightM }: Pick<Site, 'widthM' | 'usableHeightM'>,
  { cell, cellHeightM, rows }: DiamondsPattern,
): { widthM: number; heightM: number } {
  const heightM = cellHeightM ?? usableHeightM / rows
  if (cell.by === 'width') return { widthM: cell.widthM, heightM }
  return { widthM: widthM / (cell.count + (cell.halfAtEnd ? 0.5 : 0)), heightM }
}

function fit(site: Site, pattern: DiamondsPattern, toleranceShare: number): FitWish<DiamondsPattern>[] {
  const { widthM } = site
  const wantedM = diamondCell(site, pattern).widthM
  const exact: FitWish<DiamondsPattern> = {
    pattern: { ...pattern, cell: { by: 'width', widthM: wantedM } },
    sizeM: wantedM,
    offShare: 0,
    count: Math.floor(widthM / wantedM + 1e-6),
    isHalfAtEnd: false,
  }
  const counted = (halfAtEnd: boolean) =>
    wishesNear(widthM, wantedM, toleranceShare, halfAtEnd ? 0.5 : 0, (_, count) => ({
      ...pattern,
      cell: { by: 'count' as const, count, halfAtEnd },
    }))
  return [exact, ...counted(false), ...counted(true)]
}

/**
 * Rows of rhombi stacked corner to corner from the first fork up, beginning with a whole cell at the viewing
 * end. After the whole cells comes the near half of one more where at least half a cell's width is left,
 * otherwise nothing. Corners that cells share are one node. Throws `frame/cell-too-large` when not one whole
 * cell fits.
 */
export const diamonds = frameKind({
  kind: 'diamonds',
  fields,
  traits: ON_FACE,
  places: { wall: 2, fence: 2 },
  usualPlant: 'star-jasmine',
  startWith: LATTICE_WIRE,
  start: ({ widthM }) => ({
    kind: 'diamonds',
    cell: { by: 'width', widthM: Math.min(CELL_M, widthM) },
    cellHeightM: null,
    rows: 1,
    closeCutEnd: false,
  }),
  wires: MAIN_ONLY,
  checks: ON_FACE_CHECKS,
  sheet: ['stringing'],
  fit,
  lay: ({ site, idsOf }, pattern) => {
    const { widthM: w, heightM: h } = diamondCell(site, pattern)
    const { rows } = pattern
    const whole = wholeTimes(site.widthM, w)
    if (whole < 1) {
      throw new CoreError(
        'frame/cell-too-large',
        `A cell ${w} m wide does not fit a wall of ${site.widthM} m`,
        { side: 'width', cellM: w, spaceM: site.widthM },
      )
    }
    if (rows * h > site.usableHeightM + LENGTH_TOLERANCE_M) {
      throw new CoreError(
        'frame/cell-too-large',
        `${rows} cells of ${h} m are higher than ${site.usableHeightM} m`,
        { side: 'height', cellM: h, rows, spaceM: site.usableHeightM },
      )
    }
    const left = site.widthM - whole * w
    const half = left >= w / 2 - LENGTH_TOLERANCE_M
    if ((whole + 1) * rows * 3 > MAX_NODES) {
      throw new CoreError('frame/too-many-nodes', `${whole * rows} cells are too many`, {
        cells: whole * rows,
      })
    }
    const builder = new LayoutBuilder()
    const cells = idsOf(
      builder,
      'cell',
      Array.from({ length: whole + 1 }, (_, i) => i * w),
    )
    const levels = idsOf(
      builder,
      'level',
      Array.from({ length: rows + 1 }, (_, i) => site.firstForkM + i * h),
    )
    const x = (halves: number) => alongToX(site, (halves * w) / 2)
    // Corners above and below the cells lie on levels 0..rows; corners beside them half a cell higher, one
    // line a row.
    const corner = (level: number, cell: number) =>
      builder.node(
        `c${levels[level]}.${cells[cell]}`,
        x(2 * cell + 1),
        site.firstForkM + level * h,
        level === 0,
      )
    const side = (row: number, cell: number) =>
      builder.node(`s${levels[row]}.${cells[cell]}`, x(2 * cell), site.firstForkM + (row + 0.5) * h)
    for (let row = 0; row < rows; row++) {
      for (let cell = 0; cell < whole; cell++) {
        builder.wire(side(row, cell), corner(row + 1, cell))
        builder.wire(corner(row + 1, cell), side(row, cell + 1))
        builder.wire(side(row, cell), corner(row, cell))
        builder.wire(corner(row, cell), side(row, cell + 1))
      }
      if (half) {
        builder.wire(side(row, whole), corner(row + 1, whole))
        builder.wire(side(row, whole), corner(row, whole))
        if (pattern.closeCutEnd) builder.wire(corner(row, whole), corner(row + 1, whole))
      }
    }
    const remainderM = Math.max(0, left - (half ? w / 2 : 0))
    return builder.build({ whole: whole * rows, half: half ? rows : 0, remainderM })
  },
})
