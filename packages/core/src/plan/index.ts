export { checkDesign, mayCutCheaper, planFrame } from './frame-plan.ts'
export type { CutPlan, FramePlan, PlanContext } from './frame-plan.ts'
export { answerDrive } from './drive-answer.ts'
