import { choiceProjection } from '../choices/index.ts'
import type { ChoiceRecord } from '../choices/index.ts'
import { project } from '../fold/index.ts'
import { frameLogProjection } from '../frame-log/index.ts'
import type { FrameCondition } from '../frame-log/index.ts'
import { plantRecordProjection } from '../readings/index.ts'
import type { PlantRecord } from '../readings/index.ts'
import type { CalendarDate } from '../season/index.ts'
import { woodProjection } from '../wood/index.ts'
import type { WoodState } from '../wood/index.ts'
import type { JournalEntry } from './entry.ts'
import { noteProjection } from './notes.ts'
import type { Note } from './notes.ts'

/** Wood and ties at the end of a day, of all time without one. */
export const replayWood = (entries: readonly JournalEntry[], upTo?: CalendarDate): WoodState =>
  project(woodProjection, entries, upTo)

/** What has been built of each frame and how it is, by frame id. */
export const replayFrames = (
  entries: readonly JournalEntry[],
  upTo?: CalendarDate,
): ReadonlyMap<string, FrameCondition> => project(frameLogProjection, entries, upTo)

/** What is known of each plant besides its wood, by plant id. */
export const replayPlants = (
  entries: readonly JournalEntry[],
  upTo?: CalendarDate,
): ReadonlyMap<string, PlantRecord> => project(plantRecordProjection, entries, upTo)

export const replayNotes = (entries: readonly JournalEntry[], upTo?: CalendarDate): readonly Note[] =>
  project(noteProjection, entries, upTo)

/** What was chosen among wood, by the choice's id, in the order in which it was chosen. */
export const replayChoices = (
  entries: readonly JournalEntry[],
  upTo?: CalendarDate,
): ReadonlyMap<string, ChoiceRecord> => project(choiceProjection, entries, upTo)
