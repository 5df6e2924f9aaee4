export type { Parent, Support } from './address.ts'
export type { WoodDraft as WoodState } from './draft.ts'
export { living } from './draft.ts'
export { woodEntries } from './entries.ts'
export { woodProjection } from './projection.ts'
export { budsOf, roleOf } from './roles.ts'
export { ledToSupports } from './settle.ts'
export { snapPoint, tracedLine } from './snap.ts'
export type { SnapMarks } from './snap.ts'
export { supportAt, tieStanding, tiesMovedBy } from './standing.ts'
export type { MovedTie, TieStanding } from './standing.ts'
export { baseDiameterMm, pieceAge, thickeningMmPerYear } from './thickening.ts'
export type { ThickeningPace } from './thickening.ts'
export { grownTo } from './grown.ts'
export { liesNow, trackFinder } from './lies-now.ts'
export { supportsOf, tiePoints, tieSupports } from './tie-points.ts'
export type { TiePoint, TieSupport } from './tie-points.ts'
export { freeWay, lineOf, wayShape } from './way.ts'
export type { Stretch } from './way.ts'
export { alongTrack, frameTracks, wayFrom, wayRound } from './way-from.ts'
export type { FrameTrack } from './way-from.ts'
export { ON_IT, courseOn } from './winding.ts'
export {
  bends,
  faults,
  healths,
  hitches,
  lights,
  NOT_SEEN,
  pieceRoles,
  tieEnds,
  tieFailures,
} from './wood.ts'
export type {
  Bends,
  Fault,
  Health,
  Hitch,
  Piece,
  PieceRole,
  SeenLight,
  Side,
  Tie,
  TieEnd,
  TieFailure,
} from './wood.ts'
