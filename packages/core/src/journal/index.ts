export type { EntryBodies, EntryKind, JournalEntry } from './entry.ts'
export { inForce, replay } from './replay.ts'
export type { Misfit, WoodState } from './replay.ts'
