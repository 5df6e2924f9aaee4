export type { Parent, Support } from './address.ts'
export type { Misfit, WoodDraft as WoodState } from './draft.ts'
export { living } from './draft.ts'
export { woodEntries } from './entries.ts'
export { woodProjection } from './projection.ts'
export type { WoodEntry } from './projection.ts'
export { budsOf, roleOf } from './roles.ts'
export type { BudCount } from './roles.ts'
export { ledToSupports } from './settle.ts'
export { snapPoint, tracedLine } from './snap.ts'
export type { SnapMarks } from './snap.ts'
export type { Snap } from './snap.ts'
export { supportAt, tieStanding, tiesMovedBy } from './standing.ts'
export type { MovedTie, TieStanding } from './standing.ts'
export { baseDiameterMm, pieceAge, thickenedMm, thickeningMmPerYear } from './thickening.ts'
export type { ThickeningPace } from './thickening.ts'
export { grownTo } from './grown.ts'
export { liesNow, trackFinder } from './lies-now.ts'
export type { Lying, TrackFinder } from './lies-now.ts'
export { supportsOf, tiePoints, tieSupports } from './tie-points.ts'
export type { TiePoint, TieSupport } from './tie-points.ts'
export { freeWay, lineOf, wayShape } from './way.ts'
export type { Led, Stretch } from './way.ts'
export { alongTrack, wayFrom, wayRound } from './way-from.ts'
export type { FrameTrack } from './way-from.ts'
export { ON_IT, courseOn } from './winding.ts'
export type { Course } from './winding.ts'
export {
  bends,
  faults,
  healths,
  hitches,
  lights,
  NOT_SEEN,
  pieceRoles,
  purposes,
  sides,
  tieEnds,
  tieFailures,
} from './wood.ts'
export type {
  Bends,
  Cut,
  Fault,
  Health,
  Hitch,
  Mark,
  NodeCount,
  Piece,
  PieceMark,
  PieceRole,
  Purpose,
  SeenLight,
  Side,
  Tie,
  TieEnd,
  TieFailure,
} from './wood.ts'
