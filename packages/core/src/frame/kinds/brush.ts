import { CoreError } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import { length, stock, whole } from '../field.ts'
import { LEAST_M, MAX_SIZE_M, NO_WIRES, ON_FACE, WALL_WIRE, frameKind } from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps, fewestParts } from '../layout.ts'
import { tallAt } from '../start.ts'

/** Twigs lean a little, in turn to either side, so that they lock; as a share of their height. */
const TWIG_LEAN = 0.12

/**
 * Twiggy brush pushed into the ground in rows along the bed, plants at the foot of every twig of the first
 * row.
 */
export const brush = frameKind({
  kind: 'brush',
  fields: {
    rows: whole(1, 50),
    rowSpacingM: length(0, 10, 'short'),
    twigStepM: length(LEAST_M, MAX_SIZE_M, 'short'),
    heightM: length(LEAST_M, 5),
    buriedM: length(0, 2, 'short'),
    twigStockId: stock('stake'),
  },
  traits: { ...ON_FACE, stands: 'in-open' },
  places: { row: 3, bed: 6 },
  usualPlant: 'sweet-pea',
  startWith: WALL_WIRE,
  start: (place) => ({
    kind: 'brush',
    rows: 2,
    rowSpacingM: 0.3,
    twigStepM: 0.2,
    heightM: tallAt(place, 1.2),
    buriedM: 0.2,
    twigStockId: 'twig-hazel-8',
  }),
  wires: NO_WIRES,
  checks: () => [],
  sheet: ['members'],
  later: ['rowSpacingM', 'buriedM', 'twigStockId'],
  lay: ({ site, idsOf }, pattern) => {
    const { rows, rowSpacingM, heightM, buriedM } = pattern
    const steps = fewestParts(site.widthM, pattern.twigStepM)
    if ((steps + 1) * rows > MAX_NODES) {
      throw new CoreError('frame/too-many-nodes', `${steps * rows} twigs are too many`, {
        twigs: steps * rows,
      })
    }
    const builder = new LayoutBuilder()
    const alongM = equalSteps(site.widthM, steps)
    const twigs = idsOf(builder, 'twig', alongM)
    for (let row = 0; row < rows; row++) {
      const zM = row * rowSpacingM
      alongM.forEach((xM, i) => {
        const foot = at3(xM, 0, zM)
        const leanM = ((i + row) % 2 === 0 ? 1 : -1) * TWIG_LEAN * heightM
        const path = [at3(xM, -buriedM, zM), foot, at3(xM + leanM, heightM, zM)]
        const id = `t${row}.${twigs[i]}`
        builder.member({ id, role: 'twig', path, stockId: pattern.twigStockId, buriedM, foot })
        if (row === 0) builder.plant(`plant${twigs[i]}`, foot)
      })
    }
    return builder.build()
  },
})
