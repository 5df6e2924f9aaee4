import { CoreError } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import { length, potOrNone, stock, whole } from '../field.ts'
import { LEAST_M, NO_WIRES, WALL_WIRE, frameKind } from '../kind.ts'
import { LayoutBuilder } from '../layout.ts'
import { standIn } from '../pot.ts'
import { potAt, tallAt } from '../start.ts'

/** Single stakes in a line. */
export const stakes = frameKind({
  kind: 'stakes',
  fields: {
    count: whole(1, 2000),
    spacingM: length(LEAST_M, 100, 'short'),
    heightM: length(LEAST_M, 10),
    buriedM: length(0, 3, 'short'),
    stakeStockId: stock('stake', 'bar'),
    pot: potOrNone,
  },
  traits: {
    stands: 'on-legs',
    isOverPeople: 'never',
    fills: 'each-upright',
    posts: 'tamped',
    followsSlope: false,
    isCover: false,
    touchesFlesh: false,
  },
  places: { row: 4, bed: 7, terrace: 5, bench: 5, tub: 5 },
  usualPlant: 'sweet-pea',
  startWith: WALL_WIRE,
  start: (place) => {
    const pot = potAt(place)
    return {
      kind: 'stakes',
      count: pot ? 1 : 5,
      spacingM: Math.min(0.5, place.widthM / 5),
      heightM: tallAt(place, 1.2),
      buriedM: 0.3,
      stakeStockId: 'stake-hardwood-25',
      pot,
    }
  },
  wires: NO_WIRES,
  checks: ({ pot }) => (pot ? ['leg-bending', 'tub-tips'] : ['leg-bending']),
  sheet: ['members'],
  later: ['buriedM', 'stakeStockId'],
  hidden: ({ count }) => (count === 1 ? ['spacingM'] : []),
  lay: ({ site, idsOf }, { count, spacingM, heightM, buriedM, stakeStockId, pot }) => {
    const lineM = (count - 1) * spacingM
    if (!pot && lineM > site.widthM + 1e-9) {
      throw new CoreError('frame/cell-too-large', `${count} stakes need ${lineM} m`, {
        side: 'width',
        cellM: lineM,
        spaceM: site.widthM,
      })
    }
    const builder = new LayoutBuilder()
    const soilM = standIn(builder, pot, site.widthM / 2, { buriedM, acrossM: lineM })
    const alongM = Array.from({ length: count }, (_, i) => site.widthM / 2 - lineM / 2 + i * spacingM)
    const ids = idsOf(builder, 'stake', alongM)
    alongM.forEach((xM, i) => {
      const foot = at3(xM, soilM)
      builder.member({
        id: `s${ids[i]}`,
        role: 'stake',
        path: [at3(xM, soilM - buriedM), at3(xM, soilM + heightM)],
        stockId: stakeStockId,
        buriedM,
        foot,
        label: `S${i + 1}`,
      })
      builder.plant(`plant${ids[i]}`, foot)
    })
    return builder.build()
  },
})
