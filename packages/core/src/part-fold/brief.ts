import { findKind } from '../kinds/index.ts'
import type { CalendarDate, Hemisphere } from '../season/index.ts'
import { looksOf } from '../ties/index.ts'
import type { Support, Tie, WoodState } from '../wood/index.ts'
import { packed, unpacked } from './pack.ts'
import type { PartFold } from './part-fold.ts'

/** What days are reckoned with beside the wood itself. */
export interface BriefGround {
  /** Kind of the part's plant; `null` for a part of no plant, or a plant of a kind that nobody knows. */
  readonly kindId: string | null
  readonly hemisphere: Hemisphere
}

/** What a fold is asked most often, so that it need not be opened for that. */
export interface PartBrief {
  /** Plants whose wood it tells of, beside the one that it is about. */
  readonly plants: readonly string[]
  /** What its ties hold on to, and where each was made. */
  readonly held: readonly { readonly support: Support; readonly at: Tie['at'] }[]
  /** With what the days were reckoned, as of `basisOf`; with anything else they are others. */
  readonly basis: string
  /** The days on which its ties want to be looked at, soonest first. */
  readonly dues: readonly CalendarDate[]
  /** Whether anything was written of a frame. */
  readonly hasLog: boolean
}

export const basisOf = ({ kindId, hemisphere }: BriefGround): string => `${kindId ?? 'none'} ${hemisphere}`

export function briefOf({ part, wood, frames }: PartFold, ground: BriefGround): PartBrief {
  const { pieces } = wood.state
  const kind = ground.kindId === null ? null : findKind(ground.kindId)
  return {
    plants: [...new Set([...pieces.values()].map(({ plantId }) => plantId))].filter((id) => id !== part),
    held: heldOf(wood.state),
    basis: basisOf(ground),
    dues: kind
      ? looksOf(wood.state, kind, ground.hemisphere)
          .map(({ look }) => look.dueOn)
          .sort()
      : [],
    hasLog: frames.state.size > 0,
  }
}

/** What the ties that are on hold on to, and where each was made. */
export const heldOf = ({ ties }: Pick<WoodState, 'ties'>): PartBrief['held'] =>
  [...ties.values()].flatMap(({ support, at, endedOn }) =>
    endedOn === null && support ? [{ support, at }] : [],
  )

/** A fold as it is kept and sent: its brief as JSON and itself packed, to be opened when somebody asks. */
export interface KeptFold {
  readonly part: string
  readonly brief: string
  readonly text: string
}

export const keptFold = (fold: PartFold, ground: BriefGround): KeptFold => ({
  part: fold.part,
  brief: JSON.stringify(briefOf(fold, ground)),
  text: packed(fold),
})

/** A kept fold that is opened once, when it is first asked. */
export interface LazyFold {
  readonly part: string
  readonly brief: () => PartBrief
  readonly whole: () => PartFold
}

export function lazyFold({ part, brief, text }: KeptFold): LazyFold {
  return {
    part,
    brief: once(() => JSON.parse(brief) as PartBrief),
    whole: once(() => unpacked(text) as PartFold),
  }
}

function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null
  return () => (made ??= { value: make() }).value
}
