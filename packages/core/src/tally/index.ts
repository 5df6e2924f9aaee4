export { SAMPLE, sampleBudget, sampleVines } from './sample.ts'
export type { SampleBudget } from './sample.ts'
export { budState, countOfWinter, readTallyLine, rowTotals } from './tally.ts'
export type { BudState, Counted, RowPlant, RowTotals, TallyFailure, TallyLine } from './tally.ts'
