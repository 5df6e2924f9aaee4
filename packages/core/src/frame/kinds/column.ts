import { CoreError, requireRange } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import { length, pot, stock, whole } from '../field.ts'
import { LEAST_M, NO_WIRES, WALL_WIRE, frameKind } from '../kind.ts'
import type { Laying, PatternOf } from '../kind.ts'
import { LayoutBuilder } from '../layout.ts'
import type { Layout } from '../layout.ts'
import { corner } from '../polygon.ts'
import { HEAD_SPACE_M, standIn } from '../pot.ts'

/** Plants stand so far from the middle, as a share of the tub's width. */
const PLANT_SHARE = 0.3

const fields = {
  columnStockId: stock('post', 'bar'),
  barStockId: stock('bar'),
  lowerM: length(LEAST_M, 10),
  upperM: length(LEAST_M, 10),
  reachM: length(LEAST_M, 5, 'short'),
  gravelM: length(0, 5, 'short'),
  plants: whole(1, 12),
  tub: pot,
} as const
export type ColumnPattern = PatternOf<'column', typeof fields>

/**
 * A column on the bottom of its tub with a bar through it each way at two heights, a padded mesh on them,
 * plants round its foot. The bars must clear each other, so the levels differ by more than a bar's thickness,
 * or the pattern is refused with the least difference.
 */
export const column = frameKind({
  kind: 'column',
  fields,
  traits: {
    stands: 'on-legs',
    isOverPeople: 'never',
    fills: 'outline',
    posts: 'tamped',
    followsSlope: false,
    isCover: false,
    touchesFlesh: true,
  },
  places: { bench: 6, tub: 6 },
  usualPlant: 'vanilla',
  startWith: WALL_WIRE,
  start: ({ widthM }) => ({
    kind: 'column',
    tub: {
      shape: 'square',
      widthM: Math.min(0.6, Math.max(0.4, widthM)),
      heightM: 0.5,
      ballastKg: 0,
      drainageM: 0,
      hasCharcoal: false,
      isThere: false,
    },
    columnStockId: 'post-steel-48',
    barStockId: 'rod-steel-12',
    lowerM: 1.4,
    upperM: 1.44,
    reachM: 0.7,
    gravelM: 0.08,
    plants: 4,
  }),
  wires: NO_WIRES,
  checks: () => ['leg-bending', 'tub-tips'],
  sheet: ['members'],
  later: ['columnStockId', 'barStockId', 'upperM', 'gravelM'],
  lay: layColumn,
})

function layColumn({ site, options, idsOf }: Laying, pattern: ColumnPattern): Layout {
  const { tub, lowerM, upperM, reachM, gravelM, plants } = pattern
  requireRange('gravelM', gravelM, 0, tub.heightM)
  const barM = options.stockWidthM(pattern.barStockId)
  if (upperM - lowerM <= barM) {
    throw new CoreError(
      'frame/levels-do-not-clear',
      `Levels ${upperM - lowerM} m apart do not clear bars of ${barM} m`,
      { apartM: upperM - lowerM, barM },
    )
  }
  const midM = site.widthM / 2
  const [left, right] = [midM - reachM / 2, midM + reachM / 2]
  const builder = new LayoutBuilder()
  const columnM = options.stockWidthM(pattern.columnStockId)
  const tubM2 = tub.shape === 'round' ? (Math.PI / 4) * tub.widthM ** 2 : tub.widthM ** 2
  const columnM2 = (Math.PI / 4) * columnM ** 2
  const filledM2 = tubM2 - columnM2
  const filledM = Math.max(0, tub.heightM - HEAD_SPACE_M)
  const gravelLitres = filledM2 * Math.min(gravelM, filledM) * 1000
  const takesLitres = gravelLitres + columnM2 * filledM * 1000
  const soilM = standIn(builder, tub, midM, { buriedM: 0, acrossM: 0, takesLitres })
  builder.member({
    id: 'column',
    role: 'column',
    path: [at3(midM, 0), at3(midM, soilM + upperM + barM)],
    stockId: pattern.columnStockId,
    buriedM: soilM,
    foot: at3(midM, soilM),
    label: 'column',
  })
  const [lowY, highY] = [soilM + lowerM, soilM + upperM]
  const bar = { role: 'bar', stockId: pattern.barStockId } as const
  builder.member({ ...bar, id: 'lower', path: [at3(left, lowY), at3(right, lowY)] })
  builder.member({ ...bar, id: 'upper', path: [at3(midM, highY, -reachM / 2), at3(midM, highY, reachM / 2)] })
  builder.joint('hole-lower', at3(midM, lowY), 'bolt')
  builder.joint('hole-upper', at3(midM, highY), 'bolt')
  const meshY = highY + barM / 2
  const outline = [
    at3(left, meshY, -reachM / 2),
    at3(right, meshY, -reachM / 2),
    at3(right, meshY, reachM / 2),
    at3(left, meshY, reachM / 2),
  ]
  const head = { outline, areaM2: reachM ** 2, cut: { widthM: reachM, lengthM: reachM } }
  builder.sheet({ ...head, id: 'head', good: 'mesh' })
  builder.sheet({ ...head, id: 'pad', good: 'padding' })
  builder.fill({ id: 'gravel', good: 'gravel', litres: gravelLitres })
  builder.figure('soil-left', 'litres', filledM2 * Math.max(0, filledM - gravelM) * 1000)
  // From the column's foot, which stands on the bottom of the tub.
  builder.figure('hole-lower', 'm', lowY)
  builder.figure('hole-upper', 'm', highY)
  const around = Array.from({ length: plants }, (_, k) => k)
  idsOf(builder, 'plant', around).forEach((id, k) =>
    builder.plant(`plant${id}`, corner(midM, tub.widthM * PLANT_SHARE, k + 0.5, plants, soilM)),
  )
  return builder.build()
}
