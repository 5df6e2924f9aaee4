import { CoreError } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import type { Point3 } from '../../geometry/index.ts'
import { choice, length, potOrNone, stock, whole } from '../field.ts'
import { LEAST_M, MAX_SIZE_M, NO_WIRES, WALL_WIRE, centimetres, frameKind } from '../kind.ts'
import type { Laying, PatternOf } from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps, fewestParts } from '../layout.ts'
import type { Layout } from '../layout.ts'
import { standIn } from '../pot.ts'
import { potAt, tallAt } from '../start.ts'

/** Steps of a half circle as it is drawn and measured: to a thousandth of its length. */
const ARC_STEPS = 24

const fields = {
  spanM: length(LEAST_M, 30),
  heightM: length(LEAST_M, 20),
  hoops: whole(1, 200),
  depthM: length(LEAST_M, 100),
  rungStepM: length(LEAST_M, MAX_SIZE_M, 'short'),
  buriedM: length(0, 3, 'short'),
  hoopStockId: stock('bar', 'stake'),
  rungStockId: stock('bar', 'stake'),
  pot: potOrNone,
  /** One trough for both feet, or a pot for each. */
  potsAs: choice('trough', 'each-foot'),
} as const
export type ArchPattern = PatternOf<'arch', typeof fields>

/**
 * Hoops of two legs and a half circle, one behind the other in the middle of the place, with rungs along
 * them.
 */
export const arch = frameKind({
  kind: 'arch',
  fields,
  traits: {
    stands: 'on-legs',
    isOverPeople: 'when-tall',
    fills: 'outline',
    posts: 'tamped',
    followsSlope: false,
    isCover: false,
    touchesFlesh: false,
  },
  places: { bed: 2, terrace: 2, bench: 3, tub: 3 },
  usualPlant: 'climbing-rose',
  startWith: WALL_WIRE,
  start: (place) => {
    const pot = place.kind === 'terrace' ? null : potAt(place)
    if (!pot) {
      return {
        kind: 'arch',
        spanM: Math.min(1.6, place.widthM),
        heightM: 2.2,
        depthM: 1.2,
        hoops: 3,
        rungStepM: 0.3,
        // On a terrace there is nothing to go into.
        buriedM: place.kind === 'terrace' ? 0 : 0.3,
        hoopStockId: 'tube-steel-21',
        rungStockId: 'rod-steel-8',
        pot: null,
        potsAs: 'trough',
      }
    }
    return {
      kind: 'arch',
      spanM: centimetres(pot.widthM * 0.8),
      heightM: tallAt(place, 0.7),
      depthM: 0.2,
      hoops: 1,
      rungStepM: 0.3,
      buriedM: 0.2,
      hoopStockId: 'rod-steel-6',
      rungStockId: 'rod-steel-6',
      pot,
      potsAs: 'trough',
    }
  },
  wires: NO_WIRES,
  checks: ({ pot }) => (pot ? ['leg-bending', 'tub-tips'] : ['leg-bending']),
  sheet: ['members'],
  later: ['rungStepM', 'buriedM', 'hoopStockId', 'rungStockId', 'potsAs'],
  // A hoop by itself has nothing between it and the next.
  hidden: ({ hoops, pot }) => [
    ...(hoops === 1 ? (['depthM', 'rungStepM', 'rungStockId'] as const) : []),
    ...(pot ? [] : (['potsAs'] as const)),
  ],
  lay: layArch,
})

/** Where the soil is that the hoops go into: both feet in one trough, or each in a pot of its own. */
function standInPots(builder: LayoutBuilder, pattern: ArchPattern, midM: number): number {
  const { pot, potsAs, spanM, buriedM, hoops, depthM } = pattern
  if (potsAs === 'trough' || !pot) return standIn(builder, pot, midM, { buriedM, acrossM: spanM })
  const foot = { buriedM, acrossM: hoops > 1 ? depthM : 0 }
  standIn(builder, pot, midM - spanM / 2, foot, 'pot-left')
  return standIn(builder, pot, midM + spanM / 2, foot, 'pot-right')
}

function layArch({ site, idsOf }: Laying, pattern: ArchPattern): Layout {
  const { spanM, heightM, depthM, hoops, buriedM } = pattern
  const radiusM = spanM / 2
  if (heightM < radiusM) {
    throw new CoreError('frame/cell-too-large', `A half circle of ${spanM} m is higher than ${heightM} m`, {
      side: 'height',
      cellM: radiusM,
      spaceM: heightM,
    })
  }
  if (spanM > site.widthM + 1e-9) {
    throw new CoreError('frame/cell-too-large', `An arch ${spanM} m wide does not fit ${site.widthM} m`, {
      side: 'width',
      cellM: spanM,
      spaceM: site.widthM,
    })
  }
  const legM = heightM - radiusM
  const midM = site.widthM / 2
  const overM = 2 * legM + Math.PI * radiusM
  // A hoop that stands alone has nothing to be joined to.
  const rungs = hoops === 1 ? 0 : fewestParts(overM, pattern.rungStepM)
  if (rungs * hoops > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${rungs} rungs are too many`, { rungs })
  const builder = new LayoutBuilder()
  const soilM = standInPots(builder, pattern, midM)
  /** The point so far along the hoop from the soil at its left leg. */
  const along = (m: number, zM: number): Point3 => {
    if (m <= legM) return at3(midM - radiusM, soilM + m, zM)
    if (m >= overM - legM) return at3(midM + radiusM, soilM + overM - m, zM)
    const angle = Math.PI - (m - legM) / radiusM
    return at3(midM + radiusM * Math.cos(angle), soilM + legM + radiusM * Math.sin(angle), zM)
  }
  const hoopsM = Array.from({ length: hoops }, (_, h) => (hoops === 1 ? 0 : (h * depthM) / (hoops - 1)))
  const hoopIds = idsOf(builder, 'hoop', hoopsM)
  // Both feet count as ends of the axis of rungs, where there is none.
  const rungsM = rungs === 0 ? [] : equalSteps(overM, rungs)
  const rungIds = idsOf(builder, 'rung', rungsM)
  const isRung = (i: number) => i > 0 && i < rungs
  hoopsM.forEach((zM, h) => {
    const hoop = hoopIds[h]!
    const arc = Array.from({ length: ARC_STEPS + 1 }, (_, i) =>
      along(legM + (i * Math.PI * radiusM) / ARC_STEPS, zM),
    )
    const [left, right] = [at3(midM - radiusM, soilM, zM), at3(midM + radiusM, soilM, zM)]
    const path = [{ ...left, yM: soilM - buriedM }, ...arc, { ...right, yM: soilM - buriedM }]
    builder.member({
      id: `h${hoop}`,
      role: 'hoop',
      path,
      stockId: pattern.hoopStockId,
      buriedM,
      foot: left,
      label: `H${h + 1}`,
      cutLengthM: overM + 2 * buriedM,
    })
    rungsM.forEach((m, i) => {
      if (isRung(i)) builder.joint(`h${hoop}.${rungIds[i]}`, along(m, zM), 'lashing')
    })
    builder.plant(`plant${hoop}l`, left)
    // Round a hoop by itself one plant is led; over a path one comes up either side.
    if (hoops > 1) builder.plant(`plant${hoop}r`, right)
  })
  rungsM.forEach((m, i) => {
    if (!isRung(i)) return
    const path = [along(m, 0), along(m, depthM)]
    builder.member({ id: `r${rungIds[i]}`, role: 'rung', path, stockId: pattern.rungStockId })
  })
  if (!pattern.pot) builder.figure('headroom', 'm', heightM)
  builder.figure('hoop-length', 'm', overM + 2 * buriedM)
  return builder.build()
}
