export { plantEntries, readingKinds, readingUnits, stages } from './entries.ts'
export type { ReadingOf } from './entries.ts'
export { plantRecordProjection } from './projection.ts'
export type { Dated, PlantRecord, Reading } from './projection.ts'
