export { checkDesign, planFrame } from './frame-plan.ts'
export type { CheckedFrame, FramePlan, PlanContext } from './frame-plan.ts'
