export { usualConditions } from './design.ts'
export type { Conditions, FrameDesign, PlannedSite, WireChoice } from './design.ts'
