export { clashOf } from './clash.ts'
export type {
  Candidate,
  Choice,
  Laid,
  LayingInstance,
  LayingOption,
  OptionRef,
  Requirement,
  Track,
} from './instance.ts'
export { solveLaying, valueOf } from './solve.ts'
export type { LayingLimits, LayingSolution } from './solve.ts'
