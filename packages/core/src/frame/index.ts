export { isInSpot, nearestFreePoint, nearestOnLines } from './avoid.ts'
export { carryIds } from './axis.ts'
export type { AxisIds } from './axis.ts'
export { MAX_ID_LETTERS, BALLAST_RANGE_KG, POT_RANGE_M, isField } from './field.ts'
export type { Field, Fields, LengthWriting } from './field.ts'
export { fitLayouts } from './fit.ts'
export type { FitProposal } from './fit.ts'
export { frameOptions } from './frame-options.ts'
export type { Snap } from './frame-options.ts'
export { axesOf, groundUnder, makeFrame } from './frame.ts'
export type { Frame, FrameFinding, FrameNode } from './frame.ts'
export { stakeSpacingM, turnsForLength, woundString } from './helix.ts'
export { freeStretches, placeInOrder } from './in-order.ts'
export type { Stretch } from './in-order.ts'
export { checkCodes } from './kind.ts'
export type { CheckCode, FrameKind, SheetPart, StartPlace } from './kind.ts'
export { frameKinds, kindOf } from './kinds/index.ts'
export type { Pattern, PatternKind, PatternOfKind } from './kinds/index.ts'
export type { OverheadPattern } from './kinds/overhead.ts'
export type { EndAssembly, RowLevel, RowPattern } from './kinds/row.ts'
export type { Anchor, Figure, Joint, Member, Sheet } from './layout.ts'
export { lineNames } from './line-names.ts'
export type { LineName } from './line-names.ts'
export { markOut } from './mark-out.ts'
export { roundOf } from './round.ts'
export type { RoundFrame } from './round.ts'
export { tracksOf } from './tracks.ts'
export type { Track } from './tracks.ts'
export type { MarkOut, MarkOutRow } from './mark-out.ts'
export {
  anchorId,
  bearsLeaf,
  isPost,
  isUpright,
  levelId,
  lineId,
  memberId,
  nodeId,
  wireFor,
} from './parts.ts'
export type {
  AnchorId,
  LevelId,
  Line,
  LineId,
  LineRole,
  MemberId,
  MemberRole,
  NodeId,
  WireName,
} from './parts.ts'
export { uprightsOf } from './uprights.ts'
export { HEAD_SPACE_M, potSoilLitres } from './pot.ts'
export type { Pot } from './pot.ts'
export { groundAt, placeKinds, settings } from './site.ts'
export type { AvoidSpot, PlaceKind, Rhythm, Setting, Site, ViewingEnd } from './site.ts'
