import { CoreError, requirePositive, requireRange } from '../errors/index.ts'
import { LayoutBuilder, MAX_NODES, fewestParts, wholeTimes } from './layout.ts'
import type { Layout } from './layout.ts'
import { alongToX, usableRect } from './wall.ts'
import type { Wall } from './wall.ts'
import type { FanPattern, GridPattern, TiersPattern, ZigzagPattern } from './pattern.ts'

/**
 * Level wires across the whole width, each in the fewest equal spans that are none longer than the greatest support
 * spacing. Heights are above the soil, must rise, and lie between the first fork and the highest fixing line.
 */
export function layTiers(wall: Wall, pattern: TiersPattern): Layout {
  requirePositive('maxSupportSpacingM', pattern.maxSupportSpacingM)
  requireRange('tiers', pattern.heightsM.length, 1, 100)
  const rect = usableRect(wall)
  const spans = fewestParts(wall.widthM, pattern.maxSupportSpacingM)
  if (spans * pattern.heightsM.length > MAX_NODES) {
    throw new CoreError('frame/too-many-nodes', `${spans} supports on each wire are too many`, {
      supports: spans,
    })
  }
  const builder = new LayoutBuilder()
  pattern.heightsM.forEach((heightM, tier) => {
    requireRange('heightM', heightM, 0)
    const below = pattern.heightsM[tier - 1]
    if (below !== undefined && heightM <= below) {
      throw new CoreError(
        'frame/heights-out-of-order',
        `Tier ${tier + 1} at ${heightM} m is not above ${below} m`,
        {
          tier: tier + 1,
          heightM,
          belowM: below,
        },
      )
    }
    if (heightM < rect.bottomM - 1e-6 || heightM > rect.topM + 1e-6) {
      throw new CoreError(
        'frame/height-outside-wall',
        `Tier ${tier + 1} at ${heightM} m is off the usable wall`,
        {
          tier: tier + 1,
          heightM,
          fromM: rect.bottomM,
          toM: rect.topM,
        },
      )
    }
    for (let i = 0; i <= spans; i++) {
      const node = builder.node(`t${tier}.${i}`, alongToX(wall, (i * wall.widthM) / spans), heightM)
      if (i > 0) builder.run(node - 1, node)
    }
  })
  return builder.build()
}

/** Whole strokes only, the first from the foot at the viewing end up to the top. */
export function layZigzag(wall: Wall, pattern: ZigzagPattern): Layout {
  const stroke = requirePositive('strokeWidthM', pattern.strokeWidthM)
  const strokes = wholeTimes(wall.widthM, stroke)
  if (strokes < 1) {
    throw new CoreError('frame/cell-too-large', `A stroke ${stroke} m wide does not fit ${wall.widthM} m`, {
      side: 'width',
      cellM: stroke,
      spaceM: wall.widthM,
    })
  }
  if (strokes > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${strokes} strokes are too many`, { strokes })
  const { bottomM, topM } = usableRect(wall)
  const builder = new LayoutBuilder()
  for (let i = 0; i <= strokes; i++) {
    const low = i % 2 === 0
    const node = builder.node(`z${i}`, alongToX(wall, i * stroke), low ? bottomM : topM, low)
    if (i > 0) builder.run(node - 1, node)
  }
  return builder.build({ whole: strokes, half: 0, remainderM: Math.max(0, wall.widthM - strokes * stroke) })
}

/** Ribs from the middle of the foot, at equal angles over `spreadDeg`, each ending at the edge of the usable wall. */
export function layFan(wall: Wall, pattern: FanPattern): Layout {
  const ribs = requireRange('ribs', pattern.ribs, 1, 99)
  requireRange('spreadDeg', pattern.spreadDeg, 0, 180)
  const { bottomM, topM } = usableRect(wall)
  const midM = wall.widthM / 2
  const builder = new LayoutBuilder()
  const foot = builder.node('f', midM, bottomM, true)
  for (let i = 0; i < ribs; i++) {
    const share = ribs === 1 ? 0.5 : i / (ribs - 1)
    const angle = ((share - 0.5) * pattern.spreadDeg * Math.PI) / 180
    const reach = Math.min(
      Math.abs(Math.sin(angle)) < 1e-12 ? Infinity : midM / Math.abs(Math.sin(angle)),
      Math.cos(angle) < 1e-12 ? Infinity : (topM - bottomM) / Math.cos(angle),
    )
    builder.run(
      foot,
      builder.node(`r${i}`, midM + reach * Math.sin(angle), bottomM + reach * Math.cos(angle)),
    )
  }
  return builder.build()
}

/** Equally spaced uprights and levels from edge to edge. */
export function layGrid(wall: Wall, pattern: GridPattern): Layout {
  const across = requireRange('verticals', pattern.verticals, 2, MAX_NODES)
  const up = requireRange('horizontals', pattern.horizontals, 2, MAX_NODES)
  if (across * up > MAX_NODES) {
    throw new CoreError('frame/too-many-nodes', `${across * up} crossings are too many`, {
      crossings: across * up,
    })
  }
  const { bottomM, topM } = usableRect(wall)
  const builder = new LayoutBuilder()
  const at = (i: number, j: number) =>
    builder.node(
      `g${j}.${i}`,
      alongToX(wall, (i * wall.widthM) / (across - 1)),
      bottomM + (j * (topM - bottomM)) / (up - 1),
      j === 0,
    )
  for (let j = 0; j < up; j++) {
    for (let i = 0; i < across; i++) {
      if (i > 0) builder.run(at(i - 1, j), at(i, j))
      if (j > 0) builder.run(at(i, j - 1), at(i, j))
    }
  }
  return builder.build()
}
