import { replayFrames, replayWood } from '@klados/core/journal'
import { createSelector } from '@reduxjs/toolkit'
import { selectEntries } from './journal.ts'

// Apart from the journal itself: what reads wood out of it comes with the screens that show wood, and not
// with the door.

/** Wood and ties as they are now. */
export const selectWoodNow = createSelector([selectEntries], (entries) => replayWood(entries))

/** What has been built of each frame, and how it is, by frame id. */
export const selectFramesNow = createSelector([selectEntries], (entries) => replayFrames(entries))
