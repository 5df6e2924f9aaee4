export { SAMPLE, sampleBudget, sampleVines } from './sample.ts'
export { budState, countOfWinter, readTallyLine, rowTotals } from './tally.ts'
export type { Counted, RowPlant } from './tally.ts'
