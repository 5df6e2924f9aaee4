export { leafWindNPerM } from './leaf-wind.ts'
export { tiesPerYear, yearlyCare } from './care.ts'
export { LEAF_SOLIDITY } from './leaf-wind.ts'
export { coverBurdenPa, coverLiftPa } from './cover.ts'
export { leafyOutline, wireLoads } from './leaf.ts'
export { feetInWind, potsUnder, standingKg, standsOnFloor, tubInWind, windOnLegs } from './standing.ts'
export { GRAVITY, gustAt, tipping, windForceN } from './wind.ts'
export type { Tipping } from './wind.ts'
export { SAG_SHARE, strainDue } from './retension.ts'
export type { StrainReason } from './retension.ts'
export { monthRange, tensionToday, wireYear } from './wire-year.ts'
export {
  NO_LOADS,
  allowedN,
  cableOf,
  hardestState,
  loadsOn,
  shareBorne,
  stateUnder,
  wireLines,
} from './wires.ts'
export type { WireLine, WireLoads } from './wires.ts'
