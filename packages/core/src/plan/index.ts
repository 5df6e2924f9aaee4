export { checkDesign, mayCutCheaper, planFrame } from './frame-plan.ts'
export type { CheckedFrame, CutPlan, FramePlan, PlanContext } from './frame-plan.ts'
