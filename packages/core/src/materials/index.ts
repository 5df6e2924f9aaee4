export {
  axialStiffnessN,
  findFixing,
  findWire,
  fixings,
  plugPrice,
  strainer,
  wireWeightNPerM,
  wires,
} from './catalogue.ts'
export type { Fixing, Surface, Wire, WireMaterial } from './catalogue.ts'
export { cutFromRolls } from './rolls.ts'
export type { CuttingPlan, CutRoll, PieceDemand, RollSize } from './rolls.ts'
export { planFrame } from './design.ts'
export type { FrameDesign, FramePlan, SpanGroup } from './design.ts'
export type { Caution, MaterialItem, TakeOff } from './take-off.ts'
