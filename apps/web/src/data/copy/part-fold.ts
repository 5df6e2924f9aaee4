import { folded } from '@klados/core/fold'
import type { Folded } from '@klados/core/fold'
import { frameLogProjection } from '@klados/core/frame-log'
import type { FrameCondition, JournalEntry, WoodState } from '@klados/core/journal'
import { living, woodProjection } from '@klados/core/wood'

/** What the entries of one part of the journal came to: what stands and is on, without what is gone. */
export interface PartFold {
  readonly part: string
  readonly wood: Folded<WoodState>
  readonly frames: Folded<ReadonlyMap<string, FrameCondition>>
}

export function foldPart(part: string, entries: readonly JournalEntry[]): PartFold {
  const wood = folded(woodProjection, entries)
  return {
    part,
    wood: { ...wood, state: living(wood.state) },
    frames: folded(frameLogProjection, entries),
  }
}
