export { checkFrame, isWoundWrongly } from './checks.ts'
export type { Assumption, Check, CheckCode, CheckUnit, SourceKey, Verdict } from './check.ts'
export { usualConditions } from './design.ts'
export type { Conditions, FrameDesign, PlannedSite, WireChoice } from './design.ts'
export { planFrame } from './frame-plan.ts'
export type { FramePlan, PlanContext } from './frame-plan.ts'
export { leafyOutline, tiesPerYear } from './loads.ts'
export type { StockPlan } from './stock-cuts.ts'
export { choiceOf } from './strings.ts'
export type { StringPlan } from './strings.ts'
export type { Caution, Gear, MaterialItem, StepKind, TakeOff, Tool, WorkStep } from './take-off.ts'
export { monthRange, tensionToday, wireYear } from './wire-year.ts'
export type { WireMonth } from './wire-year.ts'
export { cableOf, scenarios, stateUnder } from './wires.ts'
export type { Scenario, WireLine, WireLoads, WireState } from './wires.ts'
export { shoppingList } from './shopping.ts'
export type {
  CutMaterial,
  InStores,
  ShoppingLine,
  ShoppingList,
  WantedFrame,
  WantedPiece,
} from './shopping.ts'
