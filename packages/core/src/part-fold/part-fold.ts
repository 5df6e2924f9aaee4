import { folded, goOn } from '../fold/index.ts'
import type { Folded } from '../fold/index.ts'
import { frameLogProjection } from '../frame-log/index.ts'
import type { FrameCondition, JournalEntry, WoodState } from '../journal/index.ts'
import { latestVersionOf } from '../shape/index.ts'
import { living, woodProjection } from '../wood/index.ts'
import { PACK_VERSION } from './pack.ts'

/**
 * What the entries of one part of a journal came to: what stands and is on, without what is gone. A part is all that was
 * written of one plant, or of no plant at one place.
 */
export interface PartFold {
  readonly part: string
  readonly wood: Folded<WoodState>
  readonly frames: Folded<ReadonlyMap<string, FrameCondition>>
}

/** Raised when what a brief says, or the days in it, would be others. */
const BRIEF_VERSION = 1
const sum = (numbers: readonly number[]) => numbers.reduce((all, one) => all + one, 0)
/**
 * The rules by which parts are folded, among them which versions of bodies are read: a fold of other rules means something
 * else, and is made anew.
 */
export const PART_FOLD_RULES = [
  ...[woodProjection, frameLogProjection].map(
    ({ name, version, kinds }) => `${name} ${version}.${sum(Object.values(kinds).map(latestVersionOf))}`,
  ),
  `brief ${BRIEF_VERSION}`,
  `pack ${PACK_VERSION}`,
].join(', ')

export function foldPart(part: string, entries: readonly JournalEntry[]): PartFold {
  const wood = folded(woodProjection, entries)
  return {
    part,
    wood: { ...wood, state: living(wood.state) },
    frames: folded(frameLogProjection, entries),
  }
}

/** The fold with further entries of its part; `null` where all of them are wanted, as of `goOn`. */
export function goOnPart(from: PartFold, entries: readonly JournalEntry[]): PartFold | null {
  const wood = goOn(woodProjection, from.wood, entries)
  const frames = goOn(frameLogProjection, from.frames as Folded<FramesDraft>, entries)
  return wood && frames && { part: from.part, wood: { ...wood, state: living(wood.state) }, frames }
}
type FramesDraft = ReturnType<typeof frameLogProjection.initial>
