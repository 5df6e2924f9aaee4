import { CoreError, requireRange } from '../../errors/index.ts'
import { choice, length, number, potOrNone, stock, whole } from '../field.ts'
import { hasKnot, stakeSpacingM, woundString } from '../helix.ts'
import { LEAST_M, MAIN_ONLY, WALL_WIRE, centimetres, frameKind } from '../kind.ts'
import type { Laying, PatternOf } from '../kind.ts'
import { LayoutBuilder, MAX_NODES } from '../layout.ts'
import type { Layout } from '../layout.ts'
import { corner } from '../polygon.ts'
import { standIn } from '../pot.ts'
import { potAt, tallAt } from '../start.ts'

/** Lap where a bent ring is joined. */
const RING_LAP_M = 0.08
/** Corners that a ring is drawn with. */
const RING_CORNERS = 24

const fields = {
  stakes: whole(2, 24),
  circleRadiusM: length(LEAST_M, 5, 'short'),
  heightM: length(LEAST_M, 10),
  buriedM: length(0, 3, 'short'),
  stakeStockId: stock('stake'),
  startHeightM: length(0, 10, 'short'),
  turns: number(LEAST_M, 500, 0.5),
  /** As seen from above, going up. */
  winding: choice('clockwise', 'anticlockwise'),
  wrapsPerContact: choice(0, 1),
  /** A knot at every so many-th stake; 0 for the ends alone. */
  knotEvery: whole(0, 1000),
  knotAllowanceM: length(0, 2, 'short'),
  top: choice('ring', 'polygon', 'loops'),
  topStockId: stock('bar'),
  pot: potOrNone,
} as const
export type SpiralPattern = PatternOf<'spiral', typeof fields>

/**
 * Stakes at the corners of a regular polygon with a cord wound up round them and a bent bar that holds them
 * at the top.
 */
export const spiral = frameKind({
  kind: 'spiral',
  fields,
  traits: {
    stands: 'on-legs',
    isOverPeople: 'never',
    fills: 'outline',
    posts: 'tamped',
    followsSlope: false,
    isCover: false,
    touchesFlesh: false,
  },
  places: { terrace: 4, bench: 1, tub: 1 },
  usualPlant: 'hop',
  startWith: { ...WALL_WIRE, wireId: 'coir-6' },
  start: (place) => {
    const pot = potAt(place)
    return {
      kind: 'spiral',
      stakes: 4,
      circleRadiusM: pot ? centimetres(pot.widthM * 0.38) : 0.2,
      heightM: tallAt(place, 1.5),
      buriedM: 0.25,
      stakeStockId: 'cane-24',
      startHeightM: 0.25,
      turns: 6,
      winding: 'clockwise',
      wrapsPerContact: 1,
      knotEvery: 4,
      knotAllowanceM: 0.05,
      top: 'polygon',
      topStockId: 'rod-steel-6',
      pot,
    }
  },
  wires: MAIN_ONLY,
  checks: ({ pot }) => (pot ? ['leg-bending', 'tub-tips'] : ['leg-bending']),
  sheet: ['stringing', 'members'],
  later: [
    'circleRadiusM',
    'buriedM',
    'stakeStockId',
    'startHeightM',
    'wrapsPerContact',
    'knotEvery',
    'knotAllowanceM',
    'top',
    'topStockId',
  ],
  lay: laySpiral,
})

function laySpiral({ site, options, idsOf }: Laying, pattern: SpiralPattern): Layout {
  const { stakes, circleRadiusM: radiusM, heightM, buriedM, startHeightM, winding } = pattern
  requireRange('startHeightM', startHeightM, 0, heightM)
  const midM = site.widthM / 2
  const builder = new LayoutBuilder()
  const soilM = standIn(builder, pattern.pot, midM, { buriedM, acrossM: 2 * radiusM })
  const stakeM = options.stockWidthM(pattern.stakeStockId)
  const at = (k: number, yM: number) => corner(midM, radiusM, k, stakes, soilM + yM, winding)
  const ids = idsOf(
    builder,
    'stake',
    Array.from({ length: stakes }, (_, k) => k),
  )
  ids.forEach((id, k) => {
    builder.member({
      id: `s${id}`,
      role: 'stake',
      path: [at(k, -buriedM), at(k, heightM)],
      stockId: pattern.stakeStockId,
      buriedM,
      foot: at(k, 0),
      label: `S${k + 1}`,
    })
    builder.joint(`top${id}`, at(k, heightM), 'lashing')
    builder.plant(`plant${id}`, at(k, 0))
  })
  // Its middle lies half its own thickness off the stake, and at each stake it turns by its share of a full turn.
  const aroundM = stakeM + options.cordM
  const wrapsPerContact = pattern.wrapsPerContact + 1 / stakes
  const cord = woundString(
    { ...pattern, wrapsPerContact, endHeightM: heightM, stakeDiameterM: aroundM },
    pattern.turns,
  )
  if (cord.contacts > MAX_NODES)
    throw new CoreError('frame/too-many-nodes', `${cord.turns} turns are too many`, { turns: cord.turns })
  const wrapAt = (i: number) =>
    wrapsPerContact * Math.PI * aroundM +
    (hasKnot(i, cord.chords, pattern.knotEvery) ? pattern.knotAllowanceM : 0)
  const riseM = (heightM - startHeightM) / cord.chords
  const line = builder.line('string', 'cord')
  for (let i = 0; i <= cord.chords; i++) {
    const label = `S${(i % stakes) + 1}`
    const node = builder.joint(`c${i}`, at(i, startHeightM + i * riseM), 'through', { label })
    if (i > 0) builder.run(node - 1, node, line, wrapAt(i) + (i === 1 ? wrapAt(0) : 0))
  }
  layTop()
  builder.figure('string-length', 'm', cord.totalLengthM)
  builder.figure('string-turns', 'count', cord.turns)
  return builder.build()

  /**
   * What keeps the stakes apart: bent from one bar, its ends lapped half way along a side, where they can be bound. A
   * loop goes once round its stake and on round the corner.
   */
  function layTop(): void {
    const isRing = pattern.top === 'ring' || stakes === 2
    const corners = isRing ? RING_CORNERS : stakes
    const path = Array.from({ length: corners + 1 }, (_, k) =>
      corner(midM, radiusM, k, corners, soilM + heightM, winding),
    )
    const sideM = stakeSpacingM(stakes, radiusM)
    const barM = options.stockWidthM(pattern.topStockId)
    const loopM = pattern.top === 'loops' ? Math.PI * (stakeM + barM) * (1 + 1 / stakes) : 0
    const everyM = sideM + loopM
    const firstM = (sideM + RING_LAP_M) / 2
    const cutLengthM = (isRing ? 2 * Math.PI * radiusM : stakes * everyM) + RING_LAP_M
    const bendsM = isRing ? [] : Array.from({ length: stakes }, (_, k) => firstM + k * everyM)
    builder.member({ id: 'ring', role: 'ring', path, stockId: pattern.topStockId, cutLengthM, bendsM })
    builder.figure('ring-cut', 'm', cutLengthM)
    if (isRing) return
    builder.figure('first-bend', 'm', firstM)
    builder.figure('bend-every', 'm', everyM)
    if (loopM > 0) builder.figure('corner-loop', 'm', loopM)
  }
}
