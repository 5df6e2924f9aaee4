import { heightOn } from './level-wires.ts'
import { alongPath, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint, Point } from '../geometry/index.ts'
import type { QuickStem } from './quick-line.ts'

/** What a new stem sits on: a piece, or the ground at the plant's foot. */
export interface Under {
  readonly path: readonly DeepPoint[] | null
  readonly foot: DeepPoint
  /** The next free place along it. */
  readonly nextM: number
  /** How many stand at the foot already: they fan out. */
  readonly earlier: number
  /** Level wires that old wood may lie along, each from left to right. */
  readonly wires?: readonly (readonly Point[])[]
}

const LEAN_DEG = 12
/** On upright wood a side that was said is a branch's: at half a right angle from it. */
const BRANCH_DEG = 45
/** Wood is upright that goes across by less than this share of its rise. */
const UPRIGHT_SLOPE = 0.35
/** What sits so near the tip of upright wood, of no side, goes on as its leader. */
const LEADER_M = 0.05
/** A long stem leans over by its own weight. */
const DROOP = 0.35
const FRONT_DEG = 4
const FAN_DEG = 7
/** So many stand apart; the next stand between them. */
const FAN_STEMS = 5
/** Wood of two seasons and more that goes to a side, as long as this, lies along a wire so near to its base. */
const LIES_FROM_SEASONS = 2
const LIES_FROM_M = 0.3
const WIRE_REACH_M = 0.2

/**
 * The line of a stem that nobody has drawn: from its place upright, leaning to its side, so that it can be seen and
 * chosen among. Where it really points is corrected on the drawing, or does not matter, since it is laid. Old wood of a
 * left or right side at a wire's height is an arm: it lies along that wire.
 */
export function standingStem(
  stem: Pick<QuickStem, 'lengthM' | 'alongM' | 'side'> & Partial<Pick<QuickStem, 'seasonsOld'>>,
  under: Under,
): {
  readonly alongM: number
  readonly path: readonly DeepPoint[]
} {
  const longM = under.path ? pathLengthM(under.path) : 0
  const alongM = under.path ? Math.min(longM, Math.max(0, stem.alongM ?? under.nextM)) : 0
  const base = under.path ? alongPath(under.path, alongM) : under.foot
  const wire = lying(stem, base, under.wires ?? [])
  if (wire) return { alongM, path: alongWire(base, stem.side === 'left' ? -1 : 1, stem.lengthM, wire) }
  const sign = stem.side === 'left' ? -1 : stem.side === 'right' ? 1 : outward(under)
  const isUpright = under.path !== null && rises(under.path)
  const isBranch = isUpright && (stem.side === 'left' || stem.side === 'right')
  const isLeader = isUpright && stem.side === null && longM - alongM <= LEADER_M
  const fan = under.path ? LEAN_DEG : FAN_DEG * Math.ceil((under.earlier % FAN_STEMS) / 2)
  const plain = stem.side === 'front' || stem.side === 'back' ? FRONT_DEG : fan
  const degrees = isBranch ? BRANCH_DEG : isLeader ? 0 : plain
  const angle = (sign * degrees * Math.PI) / 180
  const middle = {
    xM: base.xM + Math.sin(angle) * stem.lengthM * 0.5,
    yM: base.yM + Math.cos(angle) * stem.lengthM * 0.5,
  }
  const later = isBranch ? angle : angle * (1 + DROOP * Math.min(2, stem.lengthM))
  const tip = {
    xM: middle.xM + Math.sin(later) * stem.lengthM * 0.5,
    yM: middle.yM + Math.cos(later) * stem.lengthM * 0.5,
  }
  return { alongM, path: [base, middle, tip] }
}

function rises(path: readonly Point[]): boolean {
  const [from, to] = [path[0]!, path.at(-1)!]
  return Math.abs(to.xM - from.xM) < (to.yM - from.yM) * UPRIGHT_SLOPE
}

/** Away from where the piece under it comes from. */
function outward({ path, earlier }: Under): number {
  if (!path) return earlier % 2 === 0 ? 1 : -1
  const [from, to] = [path[0]!, path.at(-1)!]
  return to.xM < from.xM ? -1 : 1
}

/** The wire that an arm lies along: the nearest within reach of its base. */
function lying(
  { lengthM, side, seasonsOld }: Pick<QuickStem, 'lengthM' | 'side'> & Partial<Pick<QuickStem, 'seasonsOld'>>,
  base: Point,
  wires: readonly (readonly Point[])[],
): readonly Point[] | null {
  if ((side !== 'left' && side !== 'right') || lengthM < LIES_FROM_M) return null
  if ((seasonsOld ?? 0) < LIES_FROM_SEASONS) return null
  const riseM = (wire: readonly Point[]) => Math.abs(heightOn(wire, base.xM) - base.yM)
  const within = wires.filter((wire) => riseM(wire) <= WIRE_REACH_M)
  return within.sort((a, b) => riseM(a) - riseM(b))[0] ?? null
}

/** Up or down to the wire at half a right angle, then along it, as long as the stem is. */
function alongWire(base: Point, sign: -1 | 1, lengthM: number, wire: readonly Point[]): readonly Point[] {
  const acrossM = Math.abs(heightOn(wire, base.xM) - base.yM)
  const onM = base.xM + sign * acrossM
  const on = { xM: onM, yM: heightOn(wire, onM) }
  const restM = lengthM - Math.hypot(on.xM - base.xM, on.yM - base.yM)
  const far = { xM: onM + sign * restM, yM: heightOn(wire, onM + sign * restM) }
  // A level wire rises by little: the end is put where the length says.
  const share = restM / Math.hypot(far.xM - on.xM, far.yM - on.yM)
  const end = { xM: on.xM + (far.xM - on.xM) * share, yM: on.yM + (far.yM - on.yM) * share }
  return acrossM < 1e-6 ? [base, end] : [base, on, end]
}
