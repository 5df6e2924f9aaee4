export { distanceM, lerp, nearestOnSegment, segmentCrossing } from './point.ts'
export type { Point, Rect } from './point.ts'
export { cutPolyline, nearestAlong, pointAlong, polylineLengthM } from './polyline.ts'
