export { cautionCodes, cautionsOf } from './caution.ts'
export { bendRadiusM } from './judge.ts'
export { levelWires } from './level-wires.ts'
export { viewPlant } from './plant.ts'
export type { PlantView, Stem, TrainingInput } from './plant.ts'
export { instanceOf, isRefused, propose, whyNot, proposalFrom } from './propose.ts'
export type { Bare, Difference, Overrides, Proposal, Refused } from './propose.ts'
export { deeds, figureUnits } from './question.ts'
export type {
  Candidate,
  Deed,
  FigureUnit,
  FollowUp,
  Judgement,
  Option,
  Question,
  Remark,
  Stretch,
} from './question.ts'
export { usualSettings } from './settings.ts'
export type { CaneCount, ExpectedPiece, Position, TrainingSystem } from './system.ts'
export { findSystem, openQuestions, systemsFor, trainingSystems } from './systems.ts'
export { quickSigns, readQuickLine } from './quick-line.ts'
export type { QuickLine, QuickSign, QuickStem } from './quick-line.ts'
export { standingStem } from './standing-stem.ts'
export type { Under } from './standing-stem.ts'
