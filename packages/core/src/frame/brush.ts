import { CoreError, requirePositive, requireRange, requireWhole } from '../errors/index.ts'
import { at3 } from '../geometry/index.ts'
import { LayoutBuilder, MAX_NODES, fewestParts } from './layout.ts'
import type { Layout } from './layout.ts'
import type { BrushPattern } from './pattern.ts'
import type { Site } from './site.ts'

/** Twigs lean a little, in turn to either side, so that they lock; as a share of their height. */
const TWIG_LEAN = 0.12

/** Twiggy brush in rows along the bed, plants at the foot of every twig of the first row. */
export function layBrush(site: Site, pattern: BrushPattern): Layout {
  const rows = requireWhole('rows', pattern.rows, 1, 50)
  const rowSpacingM = requireRange('rowSpacingM', pattern.rowSpacingM, 0, 10)
  const heightM = requirePositive('heightM', pattern.heightM, 5)
  const buriedM = requireRange('buriedM', pattern.buriedM, 0, 2)
  const steps = fewestParts(site.widthM, requirePositive('twigStepM', pattern.twigStepM))
  if ((steps + 1) * rows > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${steps * rows} twigs are too many`, { twigs: steps * rows })
  const builder = new LayoutBuilder()
  for (let row = 0; row < rows; row++) {
    for (let i = 0; i <= steps; i++) {
      const xM = (i * site.widthM) / steps
      const foot = at3(xM, 0, row * rowSpacingM)
      const top = at3(xM + ((i + row) % 2 === 0 ? 1 : -1) * TWIG_LEAN * heightM, heightM, row * rowSpacingM)
      const below = at3(xM, -buriedM, row * rowSpacingM)
      builder.member({
        id: `t${row}.${i}`,
        part: 'twig',
        path: [below, foot, top],
        stockId: pattern.twigStockId,
        buriedM,
        foot,
      })
      if (row === 0) builder.plant(`plant${i}`, foot)
    }
  }
  return builder.build()
}
