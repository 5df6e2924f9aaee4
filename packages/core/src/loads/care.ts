import type { FrameDesign } from '../design/index.ts'
import { bearsLeaf, isUpright } from '../frame/index.ts'
import type { Frame } from '../frame/index.ts'
import type { Hold, PlantKind } from '../kinds/index.ts'

/**
 * Ties that a year's growth takes on a metre of carrying wire: by how the kind holds on. Pairs and cross-arms
 * hold shoots by themselves.
 */
const TIES_PER_M: Readonly<Record<Hold, number>> = {
  'trained-wood': 5,
  leaning: 4,
  none: 4,
  tendrils: 1.5,
  'leaf-stalks': 1,
  twining: 0.5,
  'aerial-roots': 0.5,
}
const MIDDLING_TIES_PER_M = 3
/** Share of tying that is left on a pair of foliage wires against a single one. */
const PAIR_SHARE = 0.25

/**
 * Ties that a frame takes in a year, for comparing designs: metres of wire by how the kind holds, wires in
 * pairs counted at a quarter, a tie for each hand's breadth of stake, leg or pole. Round figures from
 * growers' counts.
 */
export function tiesPerYear(frame: Frame, kind: PlantKind | undefined): number {
  // What fruits under a net is not held by it.
  if (frame.traits.isCover) return 0
  const perM = kind ? TIES_PER_M[kind.holds] : MIDDLING_TIES_PER_M
  let wireM = 0
  for (const { line, lengthM } of frame.runs) {
    if (bearsLeaf(line.role) || line.role === 'cord') wireM += lengthM * (line.side === null ? 1 : PAIR_SHARE)
  }
  const uprightM = frame.members.reduce(
    (sum, { role, cutLengthM, pieces, buriedM }) =>
      isUpright(role) ? sum + cutLengthM * pieces - buriedM : sum,
    0,
  )
  return Math.round(perM * wireM + (perM / 2) * uprightM)
}

/** A practised hand's minutes: a tie made, and a metre of wire whose shoots are tucked in or that is lifted once. */
const TIE_MIN = 0.5
const TUCK_MIN_PER_M = 0.3
const LIFT_MIN_PER_M = 0.25
/** Shoots are tucked into fixed wires so often a summer; pairs are lifted about as often. */
const PASSES = 3
/** Tendrils that have taken hold have to be freed before a wire is lifted. */
const FREEING = 2

/** What a frame asks for each year with this kind on it: ties, and minutes by what they are spent on. */
export interface YearlyCare {
  readonly ties: number
  readonly tieMinutes: number
  /** Tucking shoots into wires that stay. */
  readonly tuckMinutes: number
  /** Lifting wires that move, tendrils freed. */
  readonly liftMinutes: number
}

/**
 * Ties and hours of a year for comparing designs. Single foliage wires have shoots tied; pairs that stay have them
 * tucked in; pairs that are lifted carry them up. Round figures from growers' counts.
 */
export function yearlyCare(frame: Frame, design: FrameDesign, kind: PlantKind | undefined): YearlyCare {
  const { pattern } = design
  const lifted = new Set(
    pattern.kind === 'row' ? pattern.levels.filter(({ liftM }) => liftM > 0).map(({ id }) => id) : [],
  )
  let [tuckM, liftM] = [0, 0]
  for (const { line, lengthM } of frame.runs) {
    if (!bearsLeaf(line.role) || line.side === null) continue
    if (line.level !== null && lifted.has(line.level)) liftM += lengthM
    else tuckM += lengthM
  }
  const ties = tiesPerYear(frame, kind)
  return {
    ties,
    tieMinutes: ties * TIE_MIN,
    // Both wires of a pair are one pass along the row.
    tuckMinutes: (tuckM / 2) * TUCK_MIN_PER_M * PASSES,
    liftMinutes: (liftM / 2) * LIFT_MIN_PER_M * PASSES * (kind?.holds === 'tendrils' ? FREEING : 1),
  }
}
