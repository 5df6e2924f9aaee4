import { WITHDRAWAL, isRead } from '../fold/index.ts'
import type { Entry, EntryOf } from '../fold/index.ts'
import { choiceEntries } from '../choices/index.ts'
import { frameEntries } from '../frame-log/index.ts'
import { plantEntries } from '../readings/index.ts'
import { text, v1 } from '../shape/index.ts'
import type { ValueOf } from '../shape/index.ts'
import { woodEntries } from '../wood/index.ts'

/** What is told in words, and what is taken back. */
const plainEntries = {
  'note.written': v1({ text: text(2000, 1) }),
  [WITHDRAWAL]: v1({}),
} as const

/** The shape of every kind of entry, by kind: each stands in the room of what it is about. */
export const entryShapes = {
  ...woodEntries,
  ...choiceEntries,
  ...frameEntries,
  ...plantEntries,
  ...plainEntries,
} as const

/** Written by a later release: of a kind, or with a body of a version, that this one does not read. */
export const isNewer = (entry: Entry): boolean => !isRead(entryShapes, entry)

export type EntryKind = keyof typeof entryShapes
export type EntryBodies = { readonly [K in EntryKind]: ValueOf<(typeof entryShapes)[K]> }
/** One line of a garden's journal. */
export type JournalEntry = EntryOf<typeof entryShapes>
