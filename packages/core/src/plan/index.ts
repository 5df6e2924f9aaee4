export { planFrame } from './frame-plan.ts'
export type { FramePlan, PlanContext } from './frame-plan.ts'
