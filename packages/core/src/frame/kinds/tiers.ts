import { CoreError } from '../../errors/index.ts'
import type { StartPlace } from '../kind.ts'
import { id, length, list } from '../field.ts'
import {
  LEAST_M,
  MAX_SIZE_M,
  MAIN_ONLY,
  ON_FACE,
  ON_FACE_CHECKS,
  WALL_WIRE,
  frameKind,
  wishesNear,
} from '../kind.ts'
import { LayoutBuilder, MAX_NODES, equalSteps, fewestParts } from '../layout.ts'
import { levelId } from '../parts.ts'
import { alongToX, usableRect } from '../site.ts'

/** Height of one tier over the next to begin with, and the most that a wall starts with. */
const STEP_M = 0.4
const MOST_AT_START = 12
/**
 * Heights written in inches and feet come out a little off what the wall ends at: so much is the same height.
 */
const EDGE_M = 1e-6

/**
 * Level wires across the whole width, each in the fewest equal spans that are none longer than the greatest
 * support spacing. Heights are above the soil, must rise, and lie between the first fork and the highest
 * fixing line.
 */
export const tiers = frameKind({
  kind: 'tiers',
  fields: {
    levels: list(1, 40, { id: id('level'), heightM: length(0, MAX_SIZE_M, 'short') }),
    maxSupportSpacingM: length(LEAST_M, MAX_SIZE_M),
  },
  traits: ON_FACE,
  places: { wall: 1, fence: 1 },
  usualPlant: 'pear',
  startWith: WALL_WIRE,
  start: (place) => {
    const count = Math.max(1, Math.min(MOST_AT_START, Math.floor(place.usableHeightM / STEP_M + EDGE_M) + 1))
    const evenly = Array.from({ length: count }, (_, i) => place.firstForkM + i * STEP_M)
    const onRails = place.kind === 'fence' ? railsOf(place) : []
    const topM = place.firstForkM + place.usableHeightM
    return {
      kind: 'tiers',
      levels: (onRails.length > 0 ? onRails : evenly).map((heightM, i) => ({
        id: levelId(`t${i}`),
        // To the millimetre, and never below the fork or above the wall for it.
        heightM: Math.min(topM, Math.max(place.firstForkM, Math.round(heightM * 1000) / 1000)),
      })),
      maxSupportSpacingM: 2.4,
    }
  },
  wires: MAIN_ONLY,
  checks: ON_FACE_CHECKS,
  sheet: ['stringing'],
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
    const spans = fewestParts(site.widthM, pattern.maxSupportSpacingM)
    if (spans * pattern.levels.length > MAX_NODES) {
      throw new CoreError('frame/too-many-nodes', `${spans} supports on each wire are too many`, {
        supports: spans,
      })
    }
    const builder = new LayoutBuilder()
    const alongM = equalSteps(site.widthM, spans)
    const supports = idsOf(builder, 'support', alongM)
    pattern.levels.forEach(({ id: level, heightM }, tier) => {
      const below = pattern.levels[tier - 1]?.heightM
      if (below !== undefined && heightM <= below) {
        throw new CoreError(
          'frame/heights-out-of-order',
          `Tier ${tier + 1} at ${heightM} m is not above ${below} m`,
          { tier: tier + 1, heightM, belowM: below },
        )
      }
      if (heightM < bottomM - EDGE_M || heightM > topM + EDGE_M) {
        throw new CoreError(
          'frame/height-outside-wall',
          `Tier ${tier + 1} at ${heightM} m is off the usable wall`,
          { tier: tier + 1, heightM, fromM: bottomM, toM: topM },
        )
      }
      const line = builder.line(level, 'carrying', { level })
      alongM.forEach((along, i) => {
        const node = builder.node(`${level}.${supports[i]}`, alongToX(site, along), heightM)
        if (i > 0) builder.run(node - 1, node, line)
      })
    })
    return builder.build()
  },
})

/** Heights of the rails within reach, from below. */
function railsOf({ levels, firstForkM, usableHeightM }: StartPlace): number[] {
  if (!levels) return []
  const heights = Array.from({ length: MOST_AT_START }, (_, i) => levels.firstM + i * levels.stepM)
  return heights.filter(
    (heightM) => heightM >= firstForkM - EDGE_M && heightM <= firstForkM + usableHeightM + EDGE_M,
  )
}
