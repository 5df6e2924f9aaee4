export { nearestFreePoint, isInSpot } from './avoid.ts'
export { diamondCell } from './diamonds.ts'
export { makeFrame } from './frame.ts'
export type { Frame, FrameFinding, FrameNode, FrameOptions, FrameRun, NodeState } from './frame.ts'
export { markOut } from './mark-out.ts'
export type { MarkOut, MarkOutRow } from './mark-out.ts'
export type {
  CellWidth,
  DiamondsPattern,
  FanPattern,
  GridPattern,
  Pattern,
  TiersPattern,
  ZigzagPattern,
} from './pattern.ts'
export { usableRect, alongToX } from './wall.ts'
export type { AvoidSpot, Wall, WallEnd } from './wall.ts'
