import type { PlaceBody } from '@klados/contract'
import type { UnitSystem } from '@klados/core/units'
import type { PatternOf } from './change.ts'
import { newLevelId } from './new-part.ts'

type Levels = PatternOf<'tiers'>['levels']
type Wall = Pick<PlaceBody, 'firstForkM' | 'usableHeightM'>

const INCH_M = 0.0254
/** From one tier to the next that is added, and the marks that one in between is set to; metres. */
const STEP_M: Readonly<Record<UnitSystem, number>> = { metric: 0.4, imperial: 16 * INCH_M }
const MARK_M: Readonly<Record<UnitSystem, number>> = { metric: 0.01, imperial: INCH_M / 2 }
/** Tiers nearer to each other or to the end of the wall than this are one. */
const LEAST_GAP_M = 0.02
/** Where less wall than this is left above the top one, no tier goes there. */
const LEAST_ABOVE_M = 0.1

const exact = (m: number) => Math.round(m * 1e6) / 1e6
const insert = (levels: Levels, at: number, heightM: number): Levels => [
  ...levels.slice(0, at),
  { id: newLevelId(), heightM: exact(heightM) },
  ...levels.slice(at),
]

/**
 * One tier more, on the wall: a step above the top one or at the end of the wall, or, where the top one lies there, in the
 * middle of the widest room that there is. `null` where none is left.
 */
export function withTierMore(levels: Levels, wall: Wall, system: UnitSystem): Levels | null {
  const endM = wall.firstForkM + wall.usableHeightM
  const topM = levels.at(-1)!.heightM
  if (endM - topM >= LEAST_ABOVE_M)
    return insert(levels, levels.length, Math.min(endM, topM + STEP_M[system]))
  const marks = [wall.firstForkM, ...levels.map(({ heightM }) => heightM), endM]
  const rooms = marks.slice(1).map((toM, i) => ({ at: i, fromM: marks[i]!, roomM: toM - marks[i]! }))
  const widest = rooms.reduce((a, b) => (b.roomM > a.roomM ? b : a))
  const middleM = Math.round((widest.fromM + widest.roomM / 2) / MARK_M[system]) * MARK_M[system]
  return widest.roomM < 2 * LEAST_GAP_M ? null : insert(levels, widest.at, middleM)
}

/** One tier below the lowest, no lower than the first fork; `null` where the lowest lies there. */
export function withTierBelow(levels: Levels, { firstForkM }: Wall, system: UnitSystem): Levels | null {
  const lowestM = levels[0]!.heightM
  if (lowestM - firstForkM < LEAST_GAP_M) return null
  return insert(levels, 0, Math.max(firstForkM, lowestM - STEP_M[system]))
}
