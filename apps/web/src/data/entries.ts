import type { JournalEntry } from '@klados/core/journal'
import { createSelector } from '@reduxjs/toolkit'
import type { WithJournal } from './journal.ts'
import { joiner } from './part-folds.ts'
import { placeKey, plantKey } from './parts.ts'
import { selectUnsentEntries } from './sync/slice.ts'

// Apart from the journal's own state: these come with the screens that read entries, and not with the door.

const selectAcknowledged = (state: WithJournal) => state.journal.acknowledged
const selectUnsentHere = (state: WithJournal) => selectUnsentEntries(state, state.journal.gardenId)
/** Written here and on its way; one that the server has already counts once wherever it is replayed. */
const selectOnItsWay = createSelector(
  [selectAcknowledged, selectUnsentHere],
  (taken, unsent): readonly JournalEntry[] => [...taken, ...unsent],
)

const byPlant = joiner(plantKey)
/** All entries of the garden, each plant's by itself. */
export const selectByPlant = createSelector(
  [(state: WithJournal) => state.journal.byPlant, selectOnItsWay],
  byPlant,
)
const byPlace = joiner(placeKey)
/** All entries of the garden, each place's by itself. */
export const selectByPlace = createSelector(
  [(state: WithJournal) => state.journal.byPlace, selectOnItsWay],
  byPlace,
)
