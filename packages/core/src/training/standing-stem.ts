import { pointAlong, polylineLengthM } from '../geometry/index.ts'
import type { Point } from '../geometry/index.ts'
import type { QuickStem } from './quick-line.ts'

/** What a new stem sits on: a piece, or the ground at the plant's foot. */
export interface Under {
  readonly path: readonly Point[] | null
  readonly foot: Point
  /** The next free place along it. */
  readonly nextM: number
  /** How many stand at the foot already: they fan out. */
  readonly earlier: number
}

const LEAN_DEG = 12
/** A long stem leans over by its own weight. */
const DROOP = 0.35
const FRONT_DEG = 4
const FAN_DEG = 7
/** So many stand apart; the next stand between them. */
const FAN_STEMS = 5

/**
 * The line of a stem that nobody has drawn: from its place upright, leaning to its side, so that it can be seen and
 * chosen among. Where it really points is corrected on the drawing, or does not matter, since it is laid.
 */
export function standingStem(
  stem: Pick<QuickStem, 'lengthM' | 'alongM' | 'side'>,
  under: Under,
): {
  readonly alongM: number
  readonly path: readonly Point[]
} {
  const longM = under.path ? polylineLengthM(under.path) : 0
  const alongM = under.path ? Math.min(longM, Math.max(0, stem.alongM ?? under.nextM)) : 0
  const base = under.path ? pointAlong(under.path, alongM) : under.foot
  const sign = stem.side === 'left' ? -1 : stem.side === 'right' ? 1 : outward(under)
  const fan = under.path ? LEAN_DEG : FAN_DEG * Math.ceil((under.earlier % FAN_STEMS) / 2)
  const degrees = stem.side === 'front' || stem.side === 'back' ? FRONT_DEG : fan
  const angle = (sign * degrees * Math.PI) / 180
  const middle = {
    xM: base.xM + Math.sin(angle) * stem.lengthM * 0.5,
    yM: base.yM + Math.cos(angle) * stem.lengthM * 0.5,
  }
  const later = angle * (1 + DROOP * Math.min(2, stem.lengthM))
  const tip = {
    xM: middle.xM + Math.sin(later) * stem.lengthM * 0.5,
    yM: middle.yM + Math.cos(later) * stem.lengthM * 0.5,
  }
  return { alongM, path: [base, middle, tip] }
}

/** Away from where the piece under it comes from. */
function outward({ path, earlier }: Under): number {
  if (!path) return earlier % 2 === 0 ? 1 : -1
  const [from, to] = [path[0]!, path.at(-1)!]
  return to.xM < from.xM ? -1 : 1
}
