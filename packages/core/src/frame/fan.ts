import { CoreError, requirePositive, requireRange, requireWhole } from '../errors/index.ts'
import { at3 } from '../geometry/index.ts'
import { LayoutBuilder, MAX_NODES, fewestParts, wholeTimes } from './layout.ts'
import type { Layout } from './layout.ts'
import type { FanPattern } from './pattern.ts'
import { alongToX, usableRect } from './site.ts'
import type { Site } from './site.ts'

/**
 * Ribs from the middle of the foot, at equal angles over `spreadDeg`, each ending at the edge of the usable
 * wall or where it has its length. Wires only carry ribs, so they stand at equal steps from the first one
 * above the crotch, as wide as the ribs reach; each crossing is a lashing.
 */
export function layFan(wall: Site, pattern: FanPattern): Layout {
  const ribs = requireWhole('ribs', pattern.ribs, 1, 99)
  requireRange('spreadDeg', pattern.spreadDeg, 0, 180)
  const { bottomM, topM } = usableRect(wall)
  const midM = wall.widthM / 2
  const ribM = pattern.ribReachM === null ? Infinity : requirePositive('ribReachM', pattern.ribReachM)
  const ends = Array.from({ length: ribs }, (_, i) => {
    const share = ribs === 1 ? 0.5 : i / (ribs - 1)
    const angle = ((share - 0.5) * pattern.spreadDeg * Math.PI) / 180
    const reach = Math.min(
      ribM,
      Math.abs(Math.sin(angle)) < 1e-12 ? Infinity : midM / Math.abs(Math.sin(angle)),
      Math.cos(angle) < 1e-12 ? Infinity : (topM - bottomM) / Math.cos(angle),
    )
    return { angle, xM: midM + reach * Math.sin(angle), yM: bottomM + reach * Math.cos(angle) }
  })
  const builder = new LayoutBuilder()
  if (pattern.wireStepM === null) {
    const foot = builder.node('f', midM, bottomM, true)
    ends.forEach((end, i) => builder.run(foot, builder.node(`r${i}`, end.xM, end.yM)))
    return builder.build()
  }
  const step = requirePositive('wireStepM', pattern.wireStepM)
  // Ribs that run to the edge are carried from edge to edge.
  const widest = ends.reduce((most, end) => Math.max(most, Math.abs(end.xM - midM)), 0)
  const halfM = pattern.ribReachM === null || widest === 0 ? midM : Math.min(midM, widest)
  const spans = fewestParts(2 * halfM, requirePositive('maxSupportSpacingM', pattern.maxSupportSpacingM))
  const wires = wholeTimes(topM - bottomM, step)
  if (wires < 1) {
    throw new CoreError('frame/cell-too-large', `A first wire ${step} m above the crotch is above the wall`, {
      side: 'height',
      cellM: step,
      spaceM: topM - bottomM,
    })
  }
  if (wires * (spans + ribs) > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${wires} wires are too many`, { wires })
  for (let j = 0; j < wires; j++) {
    const yM = bottomM + (j + 1) * step
    for (let i = 0; i <= spans; i++) {
      const node = builder.node(`t${j}.${i}`, alongToX(wall, midM - halfM + (i * 2 * halfM) / spans), yM)
      if (i > 0) builder.run(node - 1, node, { line: `t${j}` })
    }
  }
  ends.forEach((end, i) => {
    const path = [at3(midM, bottomM), at3(end.xM, end.yM)]
    builder.member({ id: `r${i}`, part: 'rib', path, stockId: pattern.ribStockId })
    for (let j = 0; j < wires; j++) {
      const yM = bottomM + (j + 1) * step
      if (yM > end.yM + 1e-9) break
      builder.joint(`r${i}.${j}`, at3(midM + (yM - bottomM) * Math.tan(end.angle), yM), 'lashing')
    }
  })
  builder.plant('crotch', at3(midM, 0))
  builder.figure(
    'rib-longest',
    'm',
    ends.reduce((longest, end) => Math.max(longest, Math.hypot(end.xM - midM, end.yM - bottomM)), 0),
  )
  return builder.build()
}
