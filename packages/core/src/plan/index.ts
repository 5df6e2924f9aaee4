export { checkDesign, mayCutCheaper, planFrame } from './frame-plan.ts'
export type { CheckedFrame, CutPlan, FramePlan, PlanContext } from './frame-plan.ts'
export { answerDrive } from './drive-answer.ts'
export type { DriveAnswer } from './drive-answer.ts'
