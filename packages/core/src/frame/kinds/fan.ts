import { CoreError } from '../../errors/index.ts'
import { at3 } from '../../geometry/index.ts'
import { length, lengthOrNone, number, stock, whole } from '../field.ts'
import {
  LEAST_M,
  MAIN_ONLY,
  MAX_SIZE_M,
  ON_FACE,
  ON_FACE_CHECKS,
  WALL_WIRE,
  frameKind,
  wishesNear,
} from '../kind.ts'
import type { PatternOf } from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps, fewestParts, wholeTimes } from '../layout.ts'
import { alongToX, usableRect } from '../site.ts'
import type { Site } from '../site.ts'

const fields = {
  ribs: whole(1, 99),
  spreadDeg: number(0, 180, 5),
  wireStepM: lengthOrNone(LEAST_M, MAX_SIZE_M, 0.3),
  maxSupportSpacingM: length(LEAST_M, MAX_SIZE_M),
  ribReachM: lengthOrNone(LEAST_M, MAX_SIZE_M, 2.4, 'long'),
  ribStockId: stock('stake'),
} as const
/** However close the ribs, a wire needs this much on each side of the middle to be strained and made off. */
const LEAST_HALF_WIRE_M = 0.15
type FanPattern = PatternOf<'fan', typeof fields>

interface Rib {
  readonly angle: number
  readonly xM: number
  readonly yM: number
  readonly lengthM: number
}

/**
 * Where each rib ends: at its own length, or at the edge of the wall. Angles from upright, the left negative.
 */
function ribsOf(site: Site, { ribs, spreadDeg, ribReachM }: FanPattern): Rib[] {
  const { bottomM, topM } = usableRect(site)
  const midM = site.widthM / 2
  return Array.from({ length: ribs }, (_, i) => {
    const share = ribs === 1 ? 0.5 : i / (ribs - 1)
    const angle = ((share - 0.5) * spreadDeg * Math.PI) / 180
    const lengthM = Math.min(
      ribReachM ?? Infinity,
      Math.abs(Math.sin(angle)) < 1e-12 ? Infinity : midM / Math.abs(Math.sin(angle)),
      Math.cos(angle) < 1e-12 ? Infinity : (topM - bottomM) / Math.cos(angle),
    )
    return { angle, lengthM, xM: midM + lengthM * Math.sin(angle), yM: bottomM + lengthM * Math.cos(angle) }
  })
}

/**
 * Ribs from the middle of the first fork, at equal angles over `spreadDeg`. With a wire step they are canes
 * lashed to level wires, which only carry them and so stand at equal steps, as wide as the ribs reach;
 * without one the ribs are wires themselves.
 */
export const fan = frameKind({
  kind: 'fan',
  fields,
  traits: ON_FACE,
  places: { wall: 3, fence: 3 },
  usualPlant: 'peach',
  startWith: WALL_WIRE,
  start: ({ usableHeightM }) => ({
    kind: 'fan',
    ribs: 9,
    spreadDeg: 150,
    wireStepM: Math.min(0.3, usableHeightM / 2),
    maxSupportSpacingM: 1.8,
    ribReachM: 2.4,
    ribStockId: 'cane-24',
  }),
  wires: MAIN_ONLY,
  checks: ON_FACE_CHECKS,
  sheet: ['stringing', 'members'],
  later: ['maxSupportSpacingM', 'ribReachM', 'ribStockId'],
  fit: ({ widthM }, pattern, toleranceShare) =>
    wishesNear(
      widthM,
      widthM / fewestParts(widthM, pattern.maxSupportSpacingM),
      toleranceShare,
      0,
      (maxSupportSpacingM) => ({ ...pattern, maxSupportSpacingM }),
    ),
  lay: ({ site, idsOf }, pattern) => {
    const { bottomM, topM } = usableRect(site)
    const midM = site.widthM / 2
    const builder = new LayoutBuilder()
    const ends = ribsOf(site, pattern)
    const ribs = idsOf(
      builder,
      'rib',
      ends.map((rib) => rib.angle),
    )
    builder.measure({ reachM: Math.max(...ends.map((rib) => rib.lengthM)) })
    if (pattern.wireStepM === null) {
      const foot = builder.node('f', midM, bottomM, true)
      ends.forEach((end, i) => builder.wire(foot, builder.node(`r${ribs[i]}`, end.xM, end.yM)))
      return builder.build()
    }
    const stepM = pattern.wireStepM
    // Ribs that run to the edge are carried from edge to edge.
    const widestM = ends.reduce((most, end) => Math.max(most, Math.abs(end.xM - midM)), 0)
    const reachedM = Math.max(widestM, LEAST_HALF_WIRE_M)
    const halfM = pattern.ribReachM === null || widestM === 0 ? midM : Math.min(midM, reachedM)
    const spans = fewestParts(2 * halfM, pattern.maxSupportSpacingM)
    const count = wholeTimes(topM - bottomM, stepM)
    if (count < 1) {
      throw new CoreError(
        'frame/cell-too-large',
        `A first wire ${stepM} m above the crotch is above the wall`,
        { side: 'height', cellM: stepM, spaceM: topM - bottomM },
      )
    }
    if (count * (spans + ends.length) > MAX_NODES)
      throw new CoreError('frame/too-many-nodes', `${count} wires are too many`, { wires: count })
    const heightsM = Array.from({ length: count }, (_, j) => bottomM + (j + 1) * stepM)
    const alongM = equalSteps(2 * halfM, spans).map((m) => midM - halfM + m)
    const wires = idsOf(builder, 'wire', heightsM)
    const supports = idsOf(builder, 'support', alongM)
    heightsM.forEach((yM, j) => {
      const line = builder.line(`t${wires[j]}`, 'carrying')
      alongM.forEach((along, i) => {
        const node = builder.node(`${line.id}.${supports[i]}`, alongToX(site, along), yM)
        if (i > 0) builder.run(node - 1, node, line)
      })
    })
    ends.forEach((end, i) => {
      const path = [at3(midM, bottomM), at3(end.xM, end.yM)]
      builder.member({ id: `r${ribs[i]}`, role: 'rib', path, stockId: pattern.ribStockId })
      heightsM.forEach((yM, j) => {
        if (yM > end.yM + 1e-9) return
        const at = at3(midM + (yM - bottomM) * Math.tan(end.angle), yM)
        builder.joint(`r${ribs[i]}.${wires[j]}`, at, 'lashing')
      })
    })
    builder.plant('crotch', at3(midM, 0))
    builder.figure('rib-longest', 'm', Math.max(...ends.map((rib) => rib.lengthM)))
    return builder.build()
  },
})
