import { distance3M, inSpace, nearestOnPath } from '../../../geometry/index.ts'
import { daysBetween } from '../../../season/index.ts'
import { alongTrack, freeWay, lineOf } from '../../../wood/index.ts'
import type { FrameTrack, Stretch } from '../../../wood/index.ts'
import type { PlantView, Stem } from '../../plant.ts'

/** A stem this near to the pole's middle stands at it: the pole's own half thickness and a hand. */
const AT_POLE_M = 0.2
/** Where nobody counted: a node of a soft climber indoors in the bright half of the year, days. */
const USUAL_NODE_DAYS = 16
/** Counts nearer together than this tell nothing of the pace. */
const LEAST_DAYS = 7

/** What a plant of the system is led up: the core of its pole, else whatever stands upright nearest to its foot. */
export function poleOf({ tracks, input: { plant } }: PlantView): FrameTrack | null {
  const foot = { xM: plant.xM, yM: plant.footYM, zM: plant.footZM ?? 0 }
  const upright = tracks.filter(({ part, form }) => part.on === 'member' && form === 'upright')
  const cores = upright.filter(({ part }) => part.role === 'core')
  const near = (track: FrameTrack) => nearestOnPath(track.way, foot).distanceM
  return [...(cores.length > 0 ? cores : upright)].sort((a, b) => near(a) - near(b))[0] ?? null
}

/** Stems from the ground, the nearest to the pole first. */
export const mainStems = (view: PlantView): Stem[] => view.stems.filter((stem) => stem.parent === null)

/** How far a stem's tip is below the top of the pole, metres; negative above it, `null` where it stands beside it. */
export function leftOnPole(stem: Stem, pole: FrameTrack): number | null {
  const tip = inSpace(stem.tip)
  const near = nearestOnPath(pole.way, tip)
  const top = inSpace(pole.way.at(-1)!)
  const beside = distance3M({ ...tip, yM: 0 }, { ...inSpace(near.point), yM: 0 })
  if (beside > AT_POLE_M) return null
  return tip.yM > top.yM ? top.yM - tip.yM : pole.lengthM - near.alongM
}

export interface NodesSeen {
  readonly nodes: number
  readonly rooted: number
}

/** The latest count of a stem's nodes; `null` where nobody counted since it was cut. */
export function countOf({ piece }: Stem): NodesSeen | null {
  const cutOn = piece.cuts.at(-1)?.on
  const last = piece.nodeCounts.at(-1)
  return last && (cutOn === undefined || last.on >= cutOn) ? last : null
}

/** Days for a node: from the two counts that are farthest apart and not parted by a cut, else the usual pace. */
export function paceOf({ piece }: Stem): { readonly days: number; readonly isCounted: boolean } {
  const cutOn = piece.cuts.at(-1)?.on ?? ''
  const counts = piece.nodeCounts.filter(({ on }) => on >= cutOn)
  const [first, last] = [counts[0], counts.at(-1)]
  if (first && last && last.nodes > first.nodes) {
    const days = daysBetween(first.on, last.on)
    if (days >= LEAST_DAYS) return { days: days / (last.nodes - first.nodes), isCounted: true }
  }
  return { days: USUAL_NODE_DAYS, isCounted: false }
}

/** How far apart its nodes are: as counted on its length, else as the kind has them. */
export function jointOf(stem: Stem): number {
  const count = countOf(stem)
  return count && count.nodes > 0 ? stem.lengthM / count.nodes : stem.internodeM
}

/** A stem so long from the plant's foot to the pole and straight up it, on the side where the plant stands. */
export function upPole({ input: { plant } }: PlantView, pole: FrameTrack | null, lengthM: number): Stretch[] {
  const foot = { xM: plant.xM, yM: plant.footYM, zM: plant.footZM ?? 0 }
  const upright = { ...foot, yM: foot.yM + lengthM }
  if (!pole) return freeWay([foot, upright])
  const at = nearestOnPath(pole.way, foot)
  const middle = inSpace(at.point)
  const apart = { xM: foot.xM - middle.xM, yM: 0, zM: foot.zM - middle.zM }
  const offM = Math.hypot(apart.xM, apart.zM)
  const roundM = Math.min(offM, AT_POLE_M / 2)
  const aside =
    offM > 1e-3
      ? { xM: (apart.xM / offM) * roundM, yM: 0, zM: (apart.zM / offM) * roundM }
      : { xM: 0, yM: 0, zM: -0.02 }
  const reach = { xM: middle.xM + aside.xM, yM: foot.yM, zM: middle.zM + aside.zM }
  const beforeM = distance3M(foot, reach)
  const upM = Math.max(0.02, lengthM - beforeM)
  const toM = Math.min(pole.lengthM, at.alongM + upM)
  const along = alongTrack(pole, { fromM: at.alongM, toM, turns: 0, aside })
  const top = lineOf([along]).at(-1)!
  const overM = at.alongM + upM - toM
  return [
    ...(beforeM > 0.01 ? [{ on: 'free' as const, points: [foot, along.points[0]!] }] : []),
    along,
    ...(overM > 0.005 ? [{ on: 'free' as const, points: [top, { ...top, yM: top.yM + overM }] }] : []),
  ]
}

/** Places of a stem's cuts that leave parts of as many rooted nodes each as nearly as can be, metres from its base. */
export function cutsFor(stem: Stem, parts: number): number[] {
  const count = countOf(stem)
  if (!count || parts < 2) return []
  // Roots come from the base up: the youngest nodes have none yet, and go with the last part.
  const step = count.rooted / parts
  const joint = jointOf(stem)
  return Array.from({ length: parts - 1 }, (_, i) =>
    Math.min(stem.lengthM, Math.round(step * (i + 1)) * joint + joint / 2),
  )
}
