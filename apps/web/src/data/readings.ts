import { replayFrames, replayWood } from '@klados/core/journal'
import type { FrameCondition, WoodState } from '@klados/core/journal'
import { frameEntries } from '@klados/core/frame-log'
import { woodEntries, woodProjection } from '@klados/core/wood'
import type { Piece, Tie } from '@klados/core/wood'
import { createSelector } from '@reduxjs/toolkit'
import { selectByPlace, selectByPlant } from './entries.ts'
import { folder } from './part-folds.ts'

// Apart from the journal itself: what reads wood out of it comes with the screens that show wood, and not
// with the door.

/** Wood and ties of each plant as they are now; a plant of which nothing was written is the state that it was. */
export const selectWoodByPlant = createSelector([selectByPlant], folder(replayWood, woodEntries))

export interface WoodNow {
  readonly pieces: ReadonlyMap<string, Piece>
  readonly ties: ReadonlyMap<string, Tie>
}

/** Wood and ties of the garden as they are now. */
export const selectWoodNow = createSelector([selectWoodByPlant], (byPlant): WoodNow => {
  const pieces = new Map<string, Piece>()
  const ties = new Map<string, Tie>()
  for (const state of byPlant.values()) {
    for (const [id, piece] of state.pieces) pieces.set(id, piece)
    for (const [id, tie] of state.ties) ties.set(id, tie)
  }
  return { pieces, ties }
})

const selectFramesByPlace = createSelector([selectByPlace], folder(replayFrames, frameEntries))

/** What has been built of each frame, and how it is, by frame id. */
export const selectFramesNow = createSelector(
  [selectFramesByPlace],
  (byPlace): ReadonlyMap<string, FrameCondition> => new Map([...byPlace.values()].flatMap((one) => [...one])),
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
