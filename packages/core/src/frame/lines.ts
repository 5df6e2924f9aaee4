import { CoreError, requirePositive, requireRange, requireWhole } from '../errors/index.ts'
import { LayoutBuilder, MAX_NODES, fewestParts, wholeTimes } from './layout.ts'
import type { Layout } from './layout.ts'
import { alongToX, usableRect } from './site.ts'
import type { Site } from './site.ts'
import type { GridPattern, TiersPattern, TrianglesPattern, ZigzagPattern } from './pattern.ts'

/**
 * Level wires across the whole width, each in the fewest equal spans that are none longer than the greatest
 * support spacing. Heights are above the soil, must rise, and lie between the first fork and the highest
 * fixing line.
 */
export function layTiers(wall: Site, pattern: TiersPattern): Layout {
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
      if (i > 0) builder.run(node - 1, node, { line: `t${tier}` })
    }
  })
  return builder.build()
}

/** Whole strokes only, the first from the foot at the viewing end up to the top. */
export function layZigzag(wall: Site, pattern: ZigzagPattern): Layout {
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

/** Equally spaced uprights and levels from edge to edge. */
export function layGrid(wall: Site, pattern: GridPattern): Layout {
  const across = requireWhole('verticals', pattern.verticals, 2, MAX_NODES)
  const up = requireWhole('horizontals', pattern.horizontals, 2, MAX_NODES)
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
      if (i > 0) builder.run(at(i - 1, j), at(i, j), { line: `h${j}` })
      if (j > 0) builder.run(at(i, j - 1), at(i, j), { line: `v${i}` })
    }
  }
  return builder.build()
}

/**
 * Level lines in equal steps over the usable height, corners of each level over the middles of the bases
 * below, joined by slanting wires. As many whole bases as fit from the viewing end.
 */
export function layTriangles(wall: Site, pattern: TrianglesPattern): Layout {
  const base = requirePositive('baseM', pattern.baseM)
  const rows = requireWhole('rows', pattern.rows, 1, 50)
  const whole = wholeTimes(wall.widthM, base)
  if (whole < 1) {
    throw new CoreError('frame/cell-too-large', `A base ${base} m wide does not fit ${wall.widthM} m`, {
      side: 'width',
      cellM: base,
      spaceM: wall.widthM,
    })
  }
  if ((whole + 1) * (rows + 1) > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${whole * rows} triangles are too many`, {
      cells: whole * rows,
    })
  const { bottomM, topM } = usableRect(wall)
  const builder = new LayoutBuilder()
  const stepM = (topM - bottomM) / rows
  // Odd levels are half a base further along and so have one corner fewer.
  const corners = (level: number) => whole + 1 - (level % 2)
  const at = (level: number, i: number) =>
    builder.node(
      `a${level}.${i}`,
      alongToX(wall, (i + (level % 2) / 2) * base),
      bottomM + level * stepM,
      level === 0,
    )
  for (let level = 0; level <= rows; level++) {
    for (let i = 1; i < corners(level); i++)
      builder.run(at(level, i - 1), at(level, i), { line: `l${level}` })
    if (level === 0) continue
    const [odd, even] = level % 2 === 1 ? [level, level - 1] : [level - 1, level]
    for (let i = 0; i < corners(odd); i++) {
      builder.run(at(even, i), at(odd, i))
      builder.run(at(odd, i), at(even, i + 1))
    }
  }
  return builder.build({ whole: whole * rows, half: 0, remainderM: Math.max(0, wall.widthM - whole * base) })
}
