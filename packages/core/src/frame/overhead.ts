import { CoreError, requirePositive, requireRange, requireWhole } from '../errors/index.ts'
import { at3 } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'
import type { FrameOptions } from './frame-options.ts'
import { LayoutBuilder, MAX_NODES, fewestParts } from './layout.ts'
import type { Layout } from './layout.ts'
import type { ArchPattern, OverheadPattern } from './pattern.ts'
import { standIn } from './potted.ts'
import type { Site } from './site.ts'

/**
 * Pergola or arbour: posts in two lines along the place, a beam on each line, rafters across, wires over the
 * rafters along the whole length. Heights are above level ground; the headroom is the underside of the beams.
 */
export function layOverhead(site: Site, pattern: OverheadPattern, options: FrameOptions): Layout {
  const depthM = requirePositive('depthM', pattern.depthM, 100)
  const headroomM = requirePositive('headroomM', pattern.headroomM, 20)
  const buriedM = requireRange('postBuriedM', pattern.postBuriedM, 0, 5)
  const overhangM = requireRange('overhangM', pattern.overhangM, 0, 3)
  const backWires = requireWhole('backWires', pattern.backWires, 0, 40)
  const bays = fewestParts(site.widthM, requirePositive('maxBayM', pattern.maxBayM))
  const rafterBays = fewestParts(site.widthM, requirePositive('maxRafterSpacingM', pattern.maxRafterSpacingM))
  const wires = fewestParts(depthM, requirePositive('wireSpacingM', pattern.wireSpacingM)) + 1
  if ((rafterBays + 1) * wires + (bays + 1) * (backWires + 2) > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${rafterBays + 1} rafters are too many`, {
      rafters: rafterBays + 1,
    })
  const builder = new LayoutBuilder()
  const beamDeepM = options.stockDepthM(pattern.beamStockId)
  const postAt = (i: number) => (i * site.widthM) / bays
  ;[0, depthM].forEach((zM, side) => {
    const row = 'fb'[side]!
    for (let i = 0; i <= bays; i++) {
      const foot = at3(postAt(i), 0, zM)
      const path = [at3(postAt(i), -buriedM, zM), at3(postAt(i), headroomM, zM)]
      const label = `${row.toUpperCase()}${i + 1}`
      builder.member({
        id: `p${row}${i}`,
        part: 'post',
        path,
        stockId: pattern.postStockId,
        buriedM,
        foot,
        label,
      })
      builder.joint(`h${row}${i}`, at3(postAt(i), headroomM + beamDeepM / 2, zM), 'bolt', { label })
      builder.plant(`plant-${row}${i}`, foot)
    }
    for (let i = 0; i < bays; i++) {
      const [from, to] = [
        i === 0 ? -overhangM : postAt(i),
        i === bays - 1 ? site.widthM + overhangM : postAt(i + 1),
      ]
      const yM = headroomM + beamDeepM / 2
      builder.member({
        id: `b${row}${i}`,
        part: 'beam',
        path: [at3(from, yM, zM), at3(to, yM, zM)],
        stockId: pattern.beamStockId,
      })
    }
  })
  const rafterY = headroomM + beamDeepM * 1.5
  for (let i = 0; i <= rafterBays; i++) {
    const xM = (i * site.widthM) / rafterBays
    builder.member({
      id: `r${i}`,
      part: 'rafter',
      path: [at3(xM, rafterY, -overhangM), at3(xM, rafterY, depthM + overhangM)],
      stockId: pattern.beamStockId,
    })
  }
  for (let k = 0; k < wires; k++) {
    const zM = (k * depthM) / (wires - 1)
    wire(`o${k}`, rafterBays, (i) => at3((i * site.widthM) / rafterBays, rafterY + beamDeepM / 2, zM))
  }
  for (let k = 0; k < backWires; k++) {
    const yM = (headroomM * (k + 1)) / (backWires + 1)
    wire(`s${k}`, bays, (i) => at3(postAt(i), yM, depthM))
  }
  builder.figure('headroom', 'm', headroomM)
  builder.figure('span', 'm', site.widthM / bays)
  return builder.build()

  function wire(line: string, spans: number, at: (i: number) => Point3): void {
    for (let i = 0; i <= spans; i++) {
      const node = builder.joint(`${line}.${i}`, at(i), i === 0 || i === spans ? 'end' : 'staple', {
        label: `${line.slice(1)}`,
      })
      if (i > 0) builder.run(node - 1, node, { line })
    }
  }
}

/** Steps of a half circle as it is drawn and measured: to a thousandth of its length. */
const ARC_STEPS = 24

/**
 * Hoops of two legs and a half circle, one behind the other in the middle of the place, with rungs along them
 * at equal steps.
 */
export function layArch(site: Site, pattern: ArchPattern): Layout {
  const spanM = requirePositive('spanM', pattern.spanM, 30)
  const heightM = requirePositive('heightM', pattern.heightM, 20)
  const depthM = requirePositive('depthM', pattern.depthM, 100)
  const hoops = requireWhole('hoops', pattern.hoops, 1, 200)
  const buriedM = requireRange('buriedM', pattern.buriedM, 0, 3)
  const stepM = requirePositive('rungStepM', pattern.rungStepM)
  const radiusM = spanM / 2
  if (heightM < radiusM) {
    throw new CoreError('frame/cell-too-large', `A half circle of ${spanM} m is higher than ${heightM} m`, {
      side: 'height',
      cellM: radiusM,
      spaceM: heightM,
    })
  }
  if (spanM > site.widthM + 1e-9)
    throw new CoreError('frame/cell-too-large', `An arch ${spanM} m wide does not fit ${site.widthM} m`, {
      side: 'width',
      cellM: spanM,
      spaceM: site.widthM,
    })
  const legM = heightM - radiusM
  const midM = site.widthM / 2
  const overM = 2 * legM + Math.PI * radiusM
  // A hoop that stands alone has nothing to be joined to.
  const rungs = hoops === 1 ? 0 : fewestParts(overM, stepM)
  if (rungs * hoops > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${rungs} rungs are too many`, { rungs })
  const builder = new LayoutBuilder()
  const soilM = standIn(builder, pattern.pot, midM, { buriedM, acrossM: spanM })
  /** The point so far along the hoop from the soil at its left leg. */
  const along = (m: number, zM: number): Point3 => {
    if (m <= legM) return at3(midM - radiusM, soilM + m, zM)
    if (m >= overM - legM) return at3(midM + radiusM, soilM + overM - m, zM)
    const angle = Math.PI - (m - legM) / radiusM
    return at3(midM + radiusM * Math.cos(angle), soilM + legM + radiusM * Math.sin(angle), zM)
  }
  for (let h = 0; h < hoops; h++) {
    const zM = hoops === 1 ? 0 : (h * depthM) / (hoops - 1)
    const arc = Array.from({ length: ARC_STEPS + 1 }, (_, i) =>
      along(legM + (i * Math.PI * radiusM) / ARC_STEPS, zM),
    )
    const path = [at3(midM - radiusM, soilM - buriedM, zM), ...arc, at3(midM + radiusM, soilM - buriedM, zM)]
    const foot = at3(midM - radiusM, soilM, zM)
    builder.member({
      id: `h${h}`,
      part: 'hoop',
      path,
      stockId: pattern.hoopStockId,
      buriedM,
      foot,
      label: `H${h + 1}`,
      cutLengthM: overM + 2 * buriedM,
    })
    for (let i = 1; i < rungs; i++) builder.joint(`h${h}.${i}`, along((i * overM) / rungs, zM), 'lashing')
    builder.plant(`plant${h}l`, foot)
    // Round a hoop by itself one plant is led; over a path one comes up either side.
    if (hoops > 1) builder.plant(`plant${h}r`, at3(midM + radiusM, soilM, zM))
  }
  for (let i = 1; i < rungs; i++) {
    const m = (i * overM) / rungs
    builder.member({
      id: `r${i}`,
      part: 'rung',
      path: [along(m, 0), along(m, depthM)],
      stockId: pattern.rungStockId,
    })
  }
  if (!pattern.pot) builder.figure('headroom', 'm', heightM)
  builder.figure('hoop-length', 'm', overM + 2 * buriedM)
  return builder.build()
}
