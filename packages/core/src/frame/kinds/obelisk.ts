import { at3 } from '../../geometry/index.ts'
import type { Point3 } from '../../geometry/index.ts'
import { choice, length, potOrNone, stock, whole } from '../field.ts'
import { LEAST_M, NO_WIRES, WALL_WIRE, centimetres, frameKind } from '../kind.ts'
import { LayoutBuilder } from '../layout.ts'
import { corner } from '../polygon.ts'
import { standIn } from '../pot.ts'
import { potAt, tallAt } from '../start.ts'

/**
 * Legs that lean together with level rungs between neighbours: an obelisk, a cone that meets at its tip, a
 * flat ladder.
 */
export const obelisk = frameKind({
  kind: 'obelisk',
  fields: {
    form: choice('obelisk', 'cone', 'ladder'),
    legs: whole(2, 24),
    baseM: length(LEAST_M, 10, 'short'),
    topM: length(0, 10, 'short'),
    heightM: length(LEAST_M, 10),
    buriedM: length(0, 3, 'short'),
    rungs: whole(0, 100),
    legStockId: stock('stake', 'bar'),
    rungStockId: stock('stake', 'bar'),
    pot: potOrNone,
  },
  traits: {
    stands: 'on-legs',
    isOverPeople: 'never',
    fills: 'outline',
    posts: 'tamped',
    followsSlope: false,
    isCover: false,
    touchesFlesh: false,
  },
  places: { bed: 5, terrace: 3, bench: 2, tub: 2 },
  usualPlant: 'clematis',
  startWith: WALL_WIRE,
  start: (place) => {
    const pot = potAt(place)
    return {
      kind: 'obelisk',
      form: 'obelisk',
      legs: 4,
      baseM: pot ? centimetres(pot.widthM * 0.75) : 0.5,
      topM: 0.12,
      heightM: tallAt(place, 1.7),
      buriedM: 0.25,
      rungs: 4,
      legStockId: 'cane-24',
      rungStockId: 'cane-12',
      pot,
    }
  },
  wires: NO_WIRES,
  checks: ({ pot }) => (pot ? ['leg-bending', 'tub-tips'] : ['leg-bending']),
  sheet: ['members'],
  later: ['topM', 'buriedM', 'rungs', 'legStockId', 'rungStockId'],
  hidden: ({ form }) => (form === 'ladder' ? ['legs'] : form === 'cone' ? ['topM'] : []),
  lay: ({ site, idsOf }, pattern) => {
    const { heightM, buriedM, rungs } = pattern
    const isLadder = pattern.form === 'ladder'
    const legs = isLadder ? 2 : Math.max(3, pattern.legs)
    const baseM = pattern.baseM / 2
    const topM = pattern.form === 'cone' ? 0 : pattern.topM / 2
    const midM = site.widthM / 2
    const builder = new LayoutBuilder()
    const soilM = standIn(builder, pattern.pot, midM, { buriedM, acrossM: 2 * baseM })
    const at = (k: number, yM: number): Point3 => {
      const radiusM = baseM + ((topM - baseM) * yM) / heightM
      if (isLadder) return at3(midM + (k === 0 ? -radiusM : radiusM), soilM + yM)
      // Turned by half a step, so that a square one shows a face and not an edge.
      return corner(midM, radiusM, k + 0.5, legs, soilM + yM)
    }
    const legIds = idsOf(
      builder,
      'leg',
      Array.from({ length: legs }, (_, k) => k),
    )
    legIds.forEach((id, k) => {
      builder.member({
        id: `l${id}`,
        role: 'leg',
        path: [at(k, -buriedM), at(k, heightM)],
        stockId: pattern.legStockId,
        buriedM,
        foot: at(k, 0),
        label: `L${k + 1}`,
      })
      builder.plant(`plant${id}`, at(k, 0))
    })
    // Soil and tip count as ends of the axis of rungs, where there is none.
    const rungsM = Array.from({ length: rungs + 2 }, (_, j) => (heightM * j) / (rungs + 1))
    const rungIds = idsOf(builder, 'rung', rungsM)
    for (let j = 1; j <= rungs; j++) {
      for (let k = 0; k < (isLadder ? 1 : legs); k++) {
        const path = [at(k, rungsM[j]!), at((k + 1) % legs, rungsM[j]!)]
        builder.member({
          id: `r${rungIds[j]}.${legIds[k]}`,
          role: 'rung',
          path,
          stockId: pattern.rungStockId,
        })
      }
      legIds.forEach((id, k) => builder.joint(`r${rungIds[j]}.${id}`, at(k, rungsM[j]!), 'lashing'))
    }
    return builder.build()
  },
})
