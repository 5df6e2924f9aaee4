export { plantEntries, readingUnits } from './entries.ts'
export { plantRecordProjection } from './projection.ts'
export type { PlantRecord } from './projection.ts'
