export { frameEntries } from './entries.ts'
export { NOTHING_BUILT, frameLogProjection } from './projection.ts'
export type { FrameCondition, TensionLog } from './projection.ts'
