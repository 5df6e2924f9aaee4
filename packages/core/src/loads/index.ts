export { leafWindNPerM } from './leaf-wind.ts'
export { tiesPerYear, yearlyCare } from './care.ts'
export type { YearlyCare } from './care.ts'
export { LEAF_SOLIDITY } from './leaf-wind.ts'
export { coverBurdenPa, coverLiftPa } from './cover.ts'
export { leafyOutline, wireLoads } from './leaf.ts'
export type { LeafyOutline } from './leaf.ts'
export { feetInWind, potsUnder, standingKg, standsOnFloor, tubInWind, windOnLegs } from './standing.ts'
export type { OnFloor } from './standing.ts'
export { GRAVITY, gustAt, tipping, windForceN } from './wind.ts'
export type { Tipping, TubInWind } from './wind.ts'
export { SAG_SHARE, strainDue } from './retension.ts'
export type { StrainReason } from './retension.ts'
export { monthRange, tensionToday, wireYear } from './wire-year.ts'
export type { WireMonth } from './wire-year.ts'
export {
  NO_LOADS,
  allowedN,
  cableOf,
  hardestState,
  loadsOn,
  scenarios,
  shareBorne,
  stateUnder,
  wireLines,
} from './wires.ts'
export type { Scenario, WireLine, WireLoads, WireState } from './wires.ts'
