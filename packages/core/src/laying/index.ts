export { clashOf } from './clash.ts'
export type { Choice, LayingInstance, OptionRef, Track } from './instance.ts'
export { solveLaying, valueOf } from './solve.ts'
export type { LayingLimits, LayingSolution } from './solve.ts'
