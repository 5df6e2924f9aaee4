import { CoreError, requirePositive, requireRange, requireWhole } from '../errors/index.ts'
import { at3 } from '../geometry/index.ts'
import type { Point3 } from '../geometry/index.ts'
import type { FrameOptions } from './frame-options.ts'
import { hasKnot, stakeSpacingM, woundString } from './helix.ts'
import { LayoutBuilder, MAX_NODES, fewestParts } from './layout.ts'
import type { Layout } from './layout.ts'
import type {
  ColumnPattern,
  ObeliskPattern,
  PolePattern,
  Pot,
  SpiralPattern,
  StakesPattern,
} from './pattern.ts'
import type { Site } from './site.ts'

/** Soil ends so far under the rim, or water runs over it. */
export const HEAD_SPACE_M = 0.025
/** What holds less than this is sold as a pot. */
const TUB_FROM_LITRES = 25
/** Lap where a bent ring is joined. */
const RING_LAP_M = 0.08

/** What of a frame has to go into its pot: how deep, and how wide at the soil. */
interface Foot {
  readonly buriedM: number
  readonly acrossM: number
}

/**
 * Draws the pot in the middle of the place and returns where its soil is; without a pot that is the ground.
 */
export function standIn(builder: LayoutBuilder, pot: Pot | null, midM: number, foot: Foot): number {
  if (!pot) return 0
  const { buriedM, acrossM } = foot
  const half = requirePositive('potWidthM', pot.widthM, 5) / 2
  const height = requirePositive('potHeightM', pot.heightM, 5)
  if (buriedM > height - HEAD_SPACE_M + 1e-9) {
    throw new CoreError('frame/not-in-pot', `${buriedM} m does not go into a pot of ${height} m`, {
      buriedM,
      potM: height,
      mostM: Math.max(0, height - HEAD_SPACE_M),
    })
  }
  if (acrossM > pot.widthM + 1e-9)
    throw new CoreError(
      'frame/wider-than-pot',
      `A foot ${acrossM} m across does not stand in a pot of ${pot.widthM} m`,
      { acrossM, potM: pot.widthM },
    )
  const outline = [
    at3(midM - half, 0),
    at3(midM + half, 0),
    at3(midM + half, height),
    at3(midM - half, height),
  ]
  builder.unit({ id: 'pot', good: potSoilLitres(pot) < TUB_FROM_LITRES ? 'pot' : 'tub', outline })
  return height - HEAD_SPACE_M
}

export function potSoilLitres(pot: Pot): number {
  const area = pot.shape === 'round' ? (Math.PI / 4) * pot.widthM ** 2 : pot.widthM ** 2
  return area * Math.max(0, pot.heightM - HEAD_SPACE_M) * 1000
}

/**
 * Corner k of a regular polygon of `count` corners, the first to the right; clockwise as seen from above
 * where asked.
 */
function corner(
  midM: number,
  radiusM: number,
  k: number,
  count: number,
  yM: number,
  clockwise: boolean,
): Point3 {
  const angle = (2 * Math.PI * k) / count
  return at3(midM + radiusM * Math.cos(angle), yM, (clockwise ? -1 : 1) * radiusM * Math.sin(angle))
}

/**
 * Stakes with a string wound up round them and a bent frame at the top. Depth grows away from the viewer, so
 * anticlockwise from above is towards growing angle.
 */
export function laySpiral(site: Site, pattern: SpiralPattern, options: FrameOptions): Layout {
  const stakes = requireWhole('stakes', pattern.stakes, 2, 24)
  const radiusM = requirePositive('circleRadiusM', pattern.circleRadiusM, 5)
  const heightM = requirePositive('heightM', pattern.heightM, 10)
  const buriedM = requireRange('buriedM', pattern.buriedM, 0, 3)
  requireRange('startHeightM', pattern.startHeightM, 0, heightM)
  const midM = site.widthM / 2
  const builder = new LayoutBuilder()
  const soilM = standIn(builder, pattern.pot, midM, { buriedM, acrossM: 2 * radiusM })
  const stakeM = options.stockWidthM(pattern.stakeStockId)
  const clockwise = pattern.winding === 'clockwise'
  const at = (k: number, yM: number) => corner(midM, radiusM, k, stakes, soilM + yM, clockwise)
  for (let k = 0; k < stakes; k++) {
    builder.member({
      id: `s${k}`,
      part: 'stake',
      path: [at(k, -buriedM), at(k, heightM)],
      stockId: pattern.stakeStockId,
      buriedM,
      foot: at(k, 0),
      label: `S${k + 1}`,
    })
    builder.joint(`top${k}`, at(k, heightM), 'lashing')
    builder.plant(`plant${k}`, at(k, 0))
  }
  const winding = { ...pattern, circleRadiusM: radiusM, endHeightM: heightM, stakeDiameterM: stakeM }
  const string = woundString(winding, pattern.turns)
  if (string.contacts > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${string.turns} turns are too many`, { turns: string.turns })
  const wrapAt = (i: number) =>
    pattern.wrapsPerContact * Math.PI * stakeM +
    (hasKnot(i, string.chords, pattern.knotEvery) ? pattern.knotAllowanceM : 0)
  const rise = (heightM - pattern.startHeightM) / string.chords
  let before = -1
  for (let i = 0; i <= string.chords; i++) {
    const node = builder.joint(`c${i}`, at(i, pattern.startHeightM + i * rise), 'through', {
      label: `S${(i % stakes) + 1}`,
    })
    if (before >= 0)
      builder.run(before, node, { line: 'string', wrapM: wrapAt(i) + (i === 1 ? wrapAt(0) : 0) })
    before = node
  }
  layTop()
  builder.figure('string-length', 'm', string.totalLengthM)
  builder.figure('string-turns', 'count', string.turns)
  return builder.build()

  /** The ring that keeps the stakes apart: bent from one bar, its joint lapped. */
  function layTop(): void {
    const side = stakeSpacingM(stakes, radiusM)
    const isRing = pattern.top === 'ring' || stakes === 2
    const around = isRing ? 2 * Math.PI * radiusM : stakes * side
    const corners = isRing ? 24 : stakes
    const path = Array.from({ length: corners + 1 }, (_, k) =>
      corner(midM, radiusM, k, corners, soilM + heightM, clockwise),
    )
    const bendsM = isRing ? [] : Array.from({ length: stakes - 1 }, (_, k) => (k + 1) * side)
    builder.member({
      id: 'ring',
      part: 'ring',
      path,
      stockId: pattern.topStockId,
      cutLengthM: around + RING_LAP_M,
      bendsM,
    })
    builder.figure('ring-cut', 'm', around + RING_LAP_M)
    if (!isRing) builder.figure('bend-every', 'm', side)
  }
}

/**
 * Legs that lean together with level rungs between neighbours: an obelisk, a cone that meets at its tip, a
 * flat ladder.
 */
export function layObelisk(site: Site, pattern: ObeliskPattern): Layout {
  const isLadder = pattern.form === 'ladder'
  const legs = isLadder ? 2 : requireWhole('legs', pattern.legs, 3, 24)
  const heightM = requirePositive('heightM', pattern.heightM, 10)
  const buriedM = requireRange('buriedM', pattern.buriedM, 0, 3)
  const rungs = requireWhole('rungs', pattern.rungs, 0, 100)
  const baseM = requirePositive('baseM', pattern.baseM, 10) / 2
  const topM = pattern.form === 'cone' ? 0 : requireRange('topM', pattern.topM, 0, 10) / 2
  const midM = site.widthM / 2
  const builder = new LayoutBuilder()
  const soilM = standIn(builder, pattern.pot, midM, { buriedM, acrossM: 2 * baseM })
  const at = (k: number, yM: number): Point3 => {
    const radius = baseM + ((topM - baseM) * yM) / heightM
    // Turned by half a step, so that a square one shows a face and not an edge.
    return isLadder
      ? at3(midM + (k === 0 ? -radius : radius), soilM + yM)
      : corner(midM, radius, k + 0.5, legs, soilM + yM, false)
  }
  for (let k = 0; k < legs; k++) {
    builder.member({
      id: `l${k}`,
      part: 'leg',
      path: [at(k, -buriedM), at(k, heightM)],
      stockId: pattern.legStockId,
      buriedM,
      foot: at(k, 0),
      label: `L${k + 1}`,
    })
    builder.plant(`plant${k}`, at(k, 0))
  }
  const sides = isLadder ? 1 : legs
  for (let j = 1; j <= rungs; j++) {
    const yM = (heightM * j) / (rungs + 1)
    for (let k = 0; k < sides; k++)
      builder.member({
        id: `r${j}.${k}`,
        part: 'rung',
        path: [at(k, yM), at((k + 1) % legs, yM)],
        stockId: pattern.rungStockId,
      })
    for (let k = 0; k < legs; k++) builder.joint(`r${j}.${k}`, at(k, yM), 'lashing')
  }
  return builder.build()
}

/** A growing pole in the middle of its pot: what to cut for it, what fills it, what it leaves of the soil. */
export function layPole(site: Site, pattern: PolePattern, options: FrameOptions): Layout {
  const heightM = requirePositive('heightM', pattern.heightM, 10)
  const buriedM = requireRange('buriedM', pattern.buriedM, 0, 2)
  const diameterM = requirePositive('diameterM', pattern.diameterM, 1)
  const lapM = requireRange('lapM', pattern.lapM, 0, 1)
  const midM = site.widthM / 2
  const builder = new LayoutBuilder()
  const soilM = standIn(builder, pattern.pot, midM, { buriedM, acrossM: diameterM })
  const coreM = options.stockWidthM(pattern.coreStockId)
  if (pattern.form === 'wrapped' && coreM >= diameterM)
    throw new CoreError('core/out-of-range', `The pole must be thicker than its core of ${coreM} m`, {
      field: 'diameterM',
      value: diameterM,
      min: coreM,
      max: 1,
    })
  const box = (fromM: number, toM: number) => [
    at3(midM - diameterM / 2, soilM + fromM),
    at3(midM + diameterM / 2, soilM + fromM),
    at3(midM + diameterM / 2, soilM + toM),
    at3(midM - diameterM / 2, soilM + toM),
  ]
  const fullArea = (Math.PI / 4) * diameterM ** 2
  const wholeM = heightM + buriedM
  const path = [at3(midM, soilM - buriedM), at3(midM, soilM + heightM)]
  builder.member({
    id: 'core',
    part: 'core',
    path,
    stockId: pattern.coreStockId,
    buriedM,
    foot: at3(midM, soilM),
    label: 'pole',
  })
  builder.figure('core-length', 'm', wholeM)
  if (pattern.form === 'modules') {
    const moduleM = requirePositive('moduleM', pattern.moduleM, 5)
    const count = fewestParts(heightM, moduleM)
    if (count > 200)
      throw new CoreError('frame/too-many-nodes', `${count} modules are too many`, { modules: count })
    for (let i = 0; i < count; i++)
      builder.unit({ id: `m${i}`, good: 'pole-module', outline: box(i * moduleM, (i + 1) * moduleM) })
    builder.fill({ id: 'medium', good: 'fibre-medium', litres: fullArea * count * moduleM * 1000 })
    builder.figure('modules', 'count', count)
    builder.figure('medium', 'litres', fullArea * count * moduleM * 1000)
  } else {
    const widthM = Math.PI * diameterM + lapM
    const fromM = pattern.form === 'mesh' ? -buriedM : 0
    const lengthM = heightM - fromM
    const mediumM2 = pattern.form === 'mesh' ? fullArea : fullArea - (Math.PI / 4) * coreM ** 2
    builder.sheet({
      id: 'sleeve',
      good: 'mesh',
      outline: box(fromM, heightM),
      areaM2: widthM * lengthM,
      cut: { widthM, lengthM },
    })
    builder.fill({ id: 'medium', good: 'fibre-medium', litres: mediumM2 * lengthM * 1000 })
    builder.figure('mesh-width', 'm', widthM)
    builder.figure('mesh-height', 'm', lengthM)
    builder.figure('medium', 'litres', mediumM2 * lengthM * 1000)
  }
  if (pattern.pot) {
    const takenM2 = pattern.form === 'mesh' ? fullArea : (Math.PI / 4) * coreM ** 2
    builder.figure('soil-left', 'litres', Math.max(0, potSoilLitres(pattern.pot) - takenM2 * buriedM * 1000))
  }
  builder.plant('plant', at3(midM + diameterM / 2, soilM))
  return builder.build()
}

export function layStakes(site: Site, pattern: StakesPattern): Layout {
  const count = requireWhole('count', pattern.count, 1, 2000)
  const spacingM = requirePositive('spacingM', pattern.spacingM, 100)
  const heightM = requirePositive('heightM', pattern.heightM, 10)
  const buriedM = requireRange('buriedM', pattern.buriedM, 0, 3)
  const lineM = (count - 1) * spacingM
  if (!pattern.pot && lineM > site.widthM + 1e-9)
    throw new CoreError('frame/cell-too-large', `${count} stakes need ${lineM} m`, {
      side: 'width',
      cellM: lineM,
      spaceM: site.widthM,
    })
  const builder = new LayoutBuilder()
  const soilM = standIn(builder, pattern.pot, site.widthM / 2, { buriedM, acrossM: lineM })
  for (let i = 0; i < count; i++) {
    const xM = site.widthM / 2 + (i - (count - 1) / 2) * spacingM
    const foot = at3(xM, soilM)
    builder.member({
      id: `s${i}`,
      part: 'stake',
      path: [at3(xM, soilM - buriedM), at3(xM, soilM + heightM)],
      stockId: pattern.stakeStockId,
      buriedM,
      foot,
      label: `S${i + 1}`,
    })
    builder.plant(`plant${i}`, foot)
  }
  return builder.build()
}

/**
 * A column on the bottom of its tub with a bar through it each way at two heights. The bars must clear each
 * other, so the levels differ by more than a bar's thickness, or the pattern is refused with the least
 * difference.
 */
export function layColumn(site: Site, pattern: ColumnPattern, options: FrameOptions): Layout {
  const { tub } = pattern
  const lowerM = requirePositive('lowerM', pattern.lowerM, 10)
  const upperM = requirePositive('upperM', pattern.upperM, 10)
  const reachM = requirePositive('reachM', pattern.reachM, 5)
  const gravelM = requireRange('gravelM', pattern.gravelM, 0, tub.heightM)
  const plants = requireWhole('plants', pattern.plants, 1, 12)
  const barM = options.stockWidthM(pattern.barStockId)
  if (upperM - lowerM <= barM) {
    throw new CoreError(
      'frame/levels-do-not-clear',
      `Levels ${upperM - lowerM} m apart do not clear bars of ${barM} m`,
      { apartM: upperM - lowerM, barM },
    )
  }
  const midM = site.widthM / 2
  const builder = new LayoutBuilder()
  const soilM = standIn(builder, tub, midM, { buriedM: 0, acrossM: 0 })
  const columnM = options.stockWidthM(pattern.columnStockId)
  builder.member({
    id: 'column',
    part: 'column',
    path: [at3(midM, 0), at3(midM, soilM + upperM + barM)],
    stockId: pattern.columnStockId,
    buriedM: soilM,
    foot: at3(midM, soilM),
    label: 'column',
  })
  const bar = (id: string, yM: number, along: boolean) =>
    builder.member({
      id,
      part: 'bar',
      stockId: pattern.barStockId,
      path: along
        ? [at3(midM - reachM / 2, yM), at3(midM + reachM / 2, yM)]
        : [at3(midM, yM, -reachM / 2), at3(midM, yM, reachM / 2)],
    })
  bar('lower', soilM + lowerM, true)
  bar('upper', soilM + upperM, false)
  builder.joint('hole-lower', at3(midM, soilM + lowerM), 'bolt')
  builder.joint('hole-upper', at3(midM, soilM + upperM), 'bolt')
  const square = (yM: number) => [
    at3(midM - reachM / 2, yM, -reachM / 2),
    at3(midM + reachM / 2, yM, -reachM / 2),
    at3(midM + reachM / 2, yM, reachM / 2),
    at3(midM - reachM / 2, yM, reachM / 2),
  ]
  const meshY = soilM + upperM + barM / 2
  builder.sheet({
    id: 'head',
    good: 'mesh',
    outline: square(meshY),
    areaM2: reachM ** 2,
    cut: { widthM: reachM, lengthM: reachM },
  })
  builder.sheet({
    id: 'pad',
    good: 'padding',
    outline: square(meshY),
    areaM2: reachM ** 2,
    cut: { widthM: reachM, lengthM: reachM },
  })
  const area = tub.shape === 'round' ? (Math.PI / 4) * tub.widthM ** 2 : tub.widthM ** 2
  builder.fill({ id: 'gravel', good: 'gravel', litres: area * gravelM * 1000 })
  const columnM2 = (Math.PI / 4) * columnM ** 2
  builder.figure(
    'soil-left',
    'litres',
    Math.max(0, (area - columnM2) * (tub.heightM - HEAD_SPACE_M - gravelM) * 1000),
  )
  // From the column's foot, which stands on the bottom of the tub.
  builder.figure('hole-lower', 'm', soilM + lowerM)
  builder.figure('hole-upper', 'm', soilM + upperM)
  for (let k = 0; k < plants; k++)
    builder.plant(`plant${k}`, corner(midM, tub.widthM * 0.3, k + 0.5, plants, soilM, false))
  return builder.build()
}
