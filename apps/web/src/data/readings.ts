import type { FrameCondition, WoodState } from '@klados/core/journal'
import { goOn, timelineOf } from '@klados/core/fold'
import type { Folded } from '@klados/core/fold'
import { frameLogProjection } from '@klados/core/frame-log'
import { woodProjection } from '@klados/core/wood'
import { createSelector } from '@reduxjs/toolkit'
import type { LazyFold, PartFold } from '@klados/core/part-fold'
import { selectByPlant } from './entries.ts'
import type { WithJournal } from './journal.ts'
import { changedSince, folder } from './part-folds.ts'
import type { PartFolded, PartState } from './part-folds.ts'
import { WideMap } from './wide-map.ts'
import type { Table } from './wide-map.ts'

// Apart from the journal itself: what reads wood out of it comes with the screens that show wood, and not
// with the door.

type FrameConditions = ReadonlyMap<string, FrameCondition>
type FrameDraft = ReturnType<typeof frameLogProjection.initial>

const selectFolds = ({ journal }: WithJournal) => journal.folds
const selectAtHand = ({ journal }: WithJournal) => journal.partsAtHand
const foldsOf = <S>(of: (fold: PartFold) => Folded<S>) => {
  const seen = new WeakMap<LazyFold, PartFolded<S>>()
  const as = (fold: LazyFold): PartFolded<S> => {
    const known = seen.get(fold)
    if (known) return known
    const made = { brief: fold.brief, folded: () => of(fold.whole()) }
    seen.set(fold, made)
    return made
  }
  return createSelector([selectFolds], (folds) => new Map([...folds].map(([key, fold]) => [key, as(fold)])))
}

const selectWood = createSelector(
  [selectByPlant, foldsOf(({ wood }) => wood), selectAtHand],
  folder<WoodState>({
    timeline: (entries) => timelineOf(woodProjection, entries),
    goOn: (from, entries) => goOn(woodProjection, from, entries),
  }),
)
export type PartWood = PartState<WoodState>
/** Wood and ties of each plant as they are now; a plant of which nothing was written is the state that it was. */
export const selectWoodByPlant = createSelector([selectWood], ({ states }) => states)

const selectFrames = createSelector(
  [selectByPlant, foldsOf(({ frames }) => frames), selectAtHand],
  folder<FrameConditions>({
    timeline: (entries) => timelineOf(frameLogProjection, entries),
    goOn: (from, entries) => goOn(frameLogProjection, from as Folded<FrameDraft>, entries),
  }),
)
/** Parts whose entries are wanted before they can be told. */
export const selectShort = createSelector([selectWood, selectFrames], (wood, frames) => [
  ...new Set([...wood.short, ...frames.short]),
])

/** Plants that a part tells of: the one that its entries are about, and those that were parted from it. */
const plantsIn = new WeakMap<PartWood, readonly string[]>()
function plantsOf(key: string, part: PartWood): readonly string[] {
  const known = plantsIn.get(part)
  if (known) return known
  const others = part.brief()?.plants ?? [...part.now().pieces.values()].map(({ plantId }) => plantId)
  const plants = [...new Set([key, ...others])]
  plantsIn.set(part, plants)
  return plants
}

type PartsOfPlants = Table<readonly PartWood[]>

/** By plant, the parts that tell of its wood; after a tap only the plants of what was pressed are another list. */
function createPartsOfPlants(): (states: Table<PartWood>) => PartsOfPlants {
  let last: { states: Table<PartWood>; byPlant: WideMap<readonly PartWood[]> } | null = null
  return (states) => {
    const keys = (last && changedSince(last.states, states)) ?? null
    const before = keys ? last!.byPlant : WideMap.of<readonly PartWood[]>()
    const changed = new Map<string, readonly PartWood[]>()
    const put = (plant: string, change: (parts: readonly PartWood[]) => readonly PartWood[]) =>
      changed.set(plant, change(changed.get(plant) ?? before.get(plant) ?? []))
    for (const key of keys ?? []) {
      const old = last!.states.get(key)
      if (old)
        for (const plant of plantsOf(key, old)) put(plant, (parts) => parts.filter((one) => one !== old))
    }
    for (const key of keys ?? states.keys()) {
      const part = states.get(key)
      if (part) for (const plant of plantsOf(key, part)) put(plant, (parts) => [...parts, part])
    }
    const byPlant = before.with(changed)
    last = { states, byPlant }
    return byPlant
  }
}
export const selectPartsOfPlants = createSelector([selectWoodByPlant], createPartsOfPlants())

/** What has been built of each frame, and how it is, by frame id. */
export const selectFramesNow = createSelector(
  [selectFrames],
  ({ states }): FrameConditions =>
    new Map([...states.values()].flatMap((part) => (part.brief()?.hasLog === false ? [] : [...part.now()]))),
)

/** What these plants make together. */
export function joinedWood(states: readonly WoodState[]): WoodState {
  const joined = woodProjection.initial()
  for (const state of states) {
    for (const [id, piece] of state.pieces) joined.pieces.set(id, piece)
    for (const [id, tie] of state.ties) joined.ties.set(id, tie)
    for (const [id, children] of state.childrenOf) joined.childrenOf.set(id, children)
    for (const [id, ties] of state.tiesOf) joined.tiesOf.set(id, ties)
    for (const id of state.byNearness) joined.byNearness.add(id)
    joined.misfits.push(...state.misfits)
  }
  return joined
}
