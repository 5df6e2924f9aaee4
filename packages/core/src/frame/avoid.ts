import { CoreError, requirePositive, requireRange } from '../errors/index.ts'
import type { Point, Rect } from '../geometry/index.ts'
import { distanceM, requirePoint } from '../geometry/index.ts'
import type { AvoidSpot, Rhythm } from './site.ts'

/** A fixing may stand on the very edge of a spot; deeper than this it stands in it. */
const EDGE_M = 1e-9
const MAX_SPOT_M = 1e4

/**
 * What has to be avoided as it was measured: a band may have been told from its far end to its near one. Throws
 * `core/*` for what nobody can have measured.
 */
export function spotsInOrder(spots: readonly AvoidSpot[]): readonly AvoidSpot[] {
  return spots.map((spot) => {
    if (spot.kind === 'point') {
      requirePoint(spot)
      return { ...spot, radiusM: requireRange('radiusM', spot.radiusM, 0, MAX_SPOT_M) }
    }
    const fromM = requireRange('fromM', spot.fromM, -MAX_SPOT_M, MAX_SPOT_M)
    const toM = requireRange('toM', spot.toM, -MAX_SPOT_M, MAX_SPOT_M)
    return fromM <= toM ? spot : { ...spot, fromM: toM, toM: fromM }
  })
}

export function isInSpot(p: Point, spot: AvoidSpot): boolean {
  if (spot.kind === 'point') return distanceM(p, spot) < spot.radiusM - EDGE_M
  const along = spot.axis === 'vertical' ? p.xM : p.yM
  return along > spot.fromM + EDGE_M && along < spot.toM - EDGE_M
}

/**
 * The point nearest to `ideal` that is in no spot and inside `area`, or `null` when none lies within
 * `toleranceM`. Exact: the nearest free point is the ideal point itself, its foot on one edge (circle, band
 * edge or side of the area), or a crossing of two edges; all of these are tried.
 */
export function nearestFreePoint<P extends Point>(
  ideal: P,
  spots: readonly AvoidSpot[],
  area: Rect,
  toleranceM: number,
): P | Point | null {
  requirePoint(ideal)
  if (!spots.some((spot) => isInSpot(ideal, spot))) return ideal
  const near = spots.filter((spot) => reaches(spot, ideal, toleranceM))
  const circles = near.flatMap((s) => (s.kind === 'point' ? [s] : []))
  const bands = near.flatMap((s) => (s.kind === 'band' ? [s] : []))
  const uprights = [area.leftM, area.rightM, ...edgesOf(bands, 'vertical')]
  const levels = [area.bottomM, area.topM, ...edgesOf(bands, 'horizontal')]
  const candidates: Point[] = [
    ...uprights.map((xM) => ({ xM, yM: ideal.yM })),
    ...levels.map((yM) => ({ xM: ideal.xM, yM })),
    ...uprights.flatMap((xM) => levels.map((yM) => ({ xM, yM }))),
    ...circles.flatMap((circle) => feetOnCircle(ideal, circle)),
    ...circles.flatMap((circle) => circleMeetsLines(circle, uprights, levels)),
    ...circles.flatMap((a, i) => circles.slice(i + 1).flatMap((b) => circlesMeet(a, b))),
  ]
  return nearestOf(candidates, ideal, near, area, toleranceM)
}

/**
 * The free point nearest to `ideal` that also sits on an upright line, a level line, or a crossing of both,
 * where those are given; `null` when none lies within the tolerance. Exact, by the same reasoning: on a line
 * the nearest free point is the foot of the ideal or an edge of a spot.
 */
export function nearestOnLines(
  ideal: Point,
  spots: readonly AvoidSpot[],
  area: Rect,
  toleranceM: number,
  lines: { readonly uprights: Rhythm | null; readonly levels: Rhythm | null },
): Point | null {
  const near = spots.filter((spot) => reaches(spot, ideal, toleranceM))
  const xs = lines.uprights ? linesNear(lines.uprights, ideal.xM, toleranceM) : null
  const ys = lines.levels ? linesNear(lines.levels, ideal.yM, toleranceM) : null
  const candidates: Point[] = []
  if (xs && ys) candidates.push(...xs.flatMap((xM) => ys.map((yM) => ({ xM, yM }))))
  else if (xs)
    for (const xM of xs)
      for (const yM of [ideal.yM, area.bottomM, area.topM, ...edgesAcross(near, 'vertical', xM)])
        candidates.push({ xM, yM })
  else if (ys)
    for (const yM of ys)
      for (const xM of [ideal.xM, area.leftM, area.rightM, ...edgesAcross(near, 'horizontal', yM)])
        candidates.push({ xM, yM })
  return nearestOf(candidates, ideal, near, area, toleranceM)
}

/** Lines of a rhythm within the tolerance of a position. */
function linesNear({ firstM, stepM }: Rhythm, atM: number, toleranceM: number): number[] {
  const step = requirePositive('stepM', stepM)
  const [from, to] = [
    Math.ceil((atM - toleranceM - firstM) / step - 1e-9),
    Math.floor((atM + toleranceM - firstM) / step + 1e-9),
  ]
  if (!(to - from < MAX_LINES))
    throw new CoreError('frame/too-many-nodes', `${to - from} lines within the tolerance are too many`, {})
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => firstM + (from + i) * step)
}

/** More lines than this within one tolerance is a slip of the decimal point. */
const MAX_LINES = 1000

/** Where spots begin and end along an upright line at x, or a level one at y. */
function edgesAcross(spots: readonly AvoidSpot[], line: 'vertical' | 'horizontal', at: number): number[] {
  return spots.flatMap((spot) => {
    if (spot.kind === 'band') return spot.axis === line ? [] : [spot.fromM, spot.toM]
    const [own, across] = line === 'vertical' ? [spot.yM, spot.xM] : [spot.xM, spot.yM]
    const reach = spot.radiusM ** 2 - (at - across) ** 2
    return reach < 0 ? [] : [own - Math.sqrt(reach), own + Math.sqrt(reach)]
  })
}

function nearestOf(
  candidates: readonly Point[],
  ideal: Point,
  spots: readonly AvoidSpot[],
  area: Rect,
  toleranceM: number,
): Point | null {
  let best: Point | null = null
  let bestM = toleranceM + EDGE_M
  for (const p of candidates) {
    const move = distanceM(p, ideal)
    if (move <= bestM && isInside(p, area) && !spots.some((spot) => isInSpot(p, spot))) {
      best = p
      bestM = move
    }
  }
  return best
}

type Circle = Extract<AvoidSpot, { kind: 'point' }>

function reaches(spot: AvoidSpot, p: Point, toleranceM: number): boolean {
  if (spot.kind === 'point') return distanceM(p, spot) < spot.radiusM + toleranceM
  const along = spot.axis === 'vertical' ? p.xM : p.yM
  return along > spot.fromM - toleranceM && along < spot.toM + toleranceM
}

function edgesOf(
  bands: readonly Extract<AvoidSpot, { kind: 'band' }>[],
  axis: 'vertical' | 'horizontal',
): number[] {
  return bands.filter((band) => band.axis === axis).flatMap((band) => [band.fromM, band.toM])
}

function isInside(p: Point, area: Rect): boolean {
  return (
    p.xM >= area.leftM - EDGE_M &&
    p.xM <= area.rightM + EDGE_M &&
    p.yM >= area.bottomM - EDGE_M &&
    p.yM <= area.topM + EDGE_M
  )
}

function feetOnCircle(p: Point, circle: Circle): Point[] {
  const gap = distanceM(p, circle)
  // At the very centre every direction is equally far: the four along the axes are offered.
  if (gap < EDGE_M) {
    return [0, 1, 2, 3].map((quarter) => onCircle(circle, (quarter * Math.PI) / 2))
  }
  return [onCircle(circle, Math.atan2(p.yM - circle.yM, p.xM - circle.xM))]
}

function onCircle(circle: Circle, angle: number): Point {
  return {
    xM: circle.xM + circle.radiusM * Math.cos(angle),
    yM: circle.yM + circle.radiusM * Math.sin(angle),
  }
}

function circleMeetsLines(circle: Circle, uprights: readonly number[], levels: readonly number[]): Point[] {
  const found: Point[] = []
  for (const xM of uprights) {
    const reach = circle.radiusM ** 2 - (xM - circle.xM) ** 2
    if (reach >= 0) {
      const root = Math.sqrt(reach)
      found.push({ xM, yM: circle.yM + root }, { xM, yM: circle.yM - root })
    }
  }
  for (const yM of levels) {
    const reach = circle.radiusM ** 2 - (yM - circle.yM) ** 2
    if (reach >= 0) {
      const root = Math.sqrt(reach)
      found.push({ xM: circle.xM + root, yM }, { xM: circle.xM - root, yM })
    }
  }
  return found
}

function circlesMeet(a: Circle, b: Circle): Point[] {
  const gap = distanceM(a, b)
  if (gap === 0 || gap > a.radiusM + b.radiusM || gap < Math.abs(a.radiusM - b.radiusM)) return []
  const along = (gap * gap + a.radiusM ** 2 - b.radiusM ** 2) / (2 * gap)
  const across = Math.sqrt(Math.max(0, a.radiusM ** 2 - along * along))
  const ux = (b.xM - a.xM) / gap
  const uy = (b.yM - a.yM) / gap
  const foot = { xM: a.xM + ux * along, yM: a.yM + uy * along }
  return [
    { xM: foot.xM - uy * across, yM: foot.yM + ux * across },
    { xM: foot.xM + uy * across, yM: foot.yM - ux * across },
  ]
}
