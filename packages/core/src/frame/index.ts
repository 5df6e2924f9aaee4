export { isInSpot, nearestFreePoint, nearestOnLines } from './avoid.ts'
export { diamondCell } from './diamonds.ts'
export { fitLayouts } from './fit.ts'
export type { FitProposal } from './fit.ts'
export { frameOptions } from './frame-options.ts'
export type { LayingOut } from './frame-options.ts'
export { makeFrame } from './frame.ts'
export type { Frame, FrameFinding, FrameNode, FrameRun, NodeState } from './frame.ts'
export type { FrameOptions, Snap } from './frame-options.ts'
export { stakeSpacingM, turnsForLength, woundString } from './helix.ts'
export type { Winding, WoundString } from './helix.ts'
export { freeStretches, placeInOrder } from './in-order.ts'
export type { InOrderLimits, Stretch } from './in-order.ts'
export type { Anchor, Figure, Fill, Joint, Member, MemberPart, Sheet, Unit, WireSlot } from './layout.ts'
export { markOut } from './mark-out.ts'
export type { MarkOut, MarkOutRow } from './mark-out.ts'
export { potOf, wireSlots } from './pattern.ts'
export type {
  ArchPattern,
  BrushPattern,
  CellWidth,
  ColumnPattern,
  DiamondsPattern,
  EndAssembly,
  FanPattern,
  FreePattern,
  GridPattern,
  NetPattern,
  ObeliskPattern,
  OverheadPattern,
  Pattern,
  PatternKind,
  PolePattern,
  Pot,
  RowLevel,
  RowPattern,
  SpiralPattern,
  StakesPattern,
  TiersPattern,
  TrianglesPattern,
  ZigzagPattern,
} from './pattern.ts'
export { HEAD_SPACE_M, potSoilLitres } from './potted.ts'
export { MAX_SITE_M, alongToX, groundAt, usableRect } from './site.ts'
export type { AvoidSpot, Rhythm, Site, ViewingEnd } from './site.ts'
