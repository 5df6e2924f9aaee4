export { distanceM, lerp, nearestOnSegment, requirePoint, segmentCrossing } from './point.ts'
export type { Point, Rect } from './point.ts'
export { cutPolyline, nearestAlong, pointAlong, polylineLengthM, simplified, withLength } from './polyline.ts'
export { photoMap } from './homography.ts'
export type { MarkedPoint, PhotoMap } from './homography.ts'
export {
  alongPath,
  at3,
  cutPath,
  distance3M,
  flat,
  inSpace,
  nearestOnPath,
  partOfPath,
  pathLengthM,
  pathOfLength,
  project,
} from './space.ts'
export type { DeepPoint, Point3, ViewDirection } from './space.ts'
export { FRONT, nearestSeen, rolledUp, seenLines, seenPoint } from './seen.ts'
export type { Look, Round } from './seen.ts'
