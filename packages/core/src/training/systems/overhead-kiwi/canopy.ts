import { alongPath, at3, distance3M, inSpace, nearestOnPath } from '../../../geometry/index.ts'
import type { Point3 } from '../../../geometry/index.ts'
import { ON_IT, alongTrack } from '../../../wood/index.ts'
import type { FrameTrack, Stretch } from '../../../wood/index.ts'
import type { PlantView, Stem } from '../../plant.ts'

/** Wires nearer to the highest than this lie in one roof with it. */
const ROOF_M = 0.25
/** Wood this near to the wire, measured up, is at it. */
export const AT_WIRE_M = 0.3
/** A stem that goes so far along the wire is an arm. */
const ARM_M = 0.35

export interface Canopy {
  /** The middle wire, and all of them from the front to the back. */
  readonly middle: FrameTrack
  readonly wires: readonly FrameTrack[]
}

const depthOf = ({ way }: FrameTrack): number => way[0]!.zM

/** The wires overhead that run along the place, and which of them is in the middle; `null` where there are none. */
export function canopyOf({ tracks, input: { plant } }: PlantView): Canopy | null {
  const level = tracks.filter(
    ({ part, form, way }) =>
      part.on === 'line' &&
      part.role === 'carrying' &&
      form === 'level' &&
      Math.abs(way.at(-1)!.xM - way[0]!.xM) > Math.abs(way.at(-1)!.zM - way[0]!.zM),
  )
  const topM = Math.max(...level.map(({ way }) => way[0]!.yM))
  const roof = level.filter(({ way }) => topM - way[0]!.yM < ROOF_M)
  if (roof.length === 0) return null
  const wires = [...roof].sort((a, b) => depthOf(a) - depthOf(b))
  const midZM = (depthOf(wires[0]!) + depthOf(wires.at(-1)!)) / 2
  // Of two that are as near to the middle it is the one nearer to the plant.
  const off = (wire: FrameTrack) =>
    Math.abs(depthOf(wire) - midZM) + 0.01 * Math.abs(depthOf(wire) - (plant.footZM ?? 0))
  return { middle: [...wires].sort((a, b) => off(a) - off(b))[0]!, wires }
}

/** The place on the middle wire over the plant: where its trunk comes to lie. */
export function headOf({ input: { plant } }: PlantView, { middle }: Canopy): { at: Point3; alongM: number } {
  const { way } = middle
  const yM = way[0]!.yM
  const near = nearestOnPath(way, { xM: plant.xM, yM, zM: depthOf(middle) })
  return { at: inSpace(near.point), alongM: near.alongM }
}

/** Up the post that it stands at, or free, then over to the middle wire. */
export function trunkWay(view: PlantView, canopy: Canopy): Stretch[] {
  const { plant } = view.input
  const foot = at3(plant.xM, plant.footYM, plant.footZM ?? 0)
  const head = headOf(view, canopy).at
  const AT_POST_M = 0.3
  const post = view.tracks.find(
    ({ part, form, way }) =>
      part.on === 'member' && form === 'upright' && nearestOnPath(way, foot).distanceM < AT_POST_M,
  )
  if (!post) return [{ on: 'free', points: [foot, at3(foot.xM, head.yM - 0.15, foot.zM), head] }]
  const from = nearestOnPath(post.way, foot)
  const middle = inSpace(from.point)
  const aside = at3(foot.xM - middle.xM, 0, foot.zM - middle.zM)
  // With a place just before its bend, so that it goes up straight and then over.
  const bendM = Math.max(from.alongM, post.lengthM - BEND_M)
  const up = [
    { fromM: from.alongM, toM: bendM },
    { fromM: bendM, toM: post.lengthM },
  ].flatMap((part) => (part.toM > part.fromM ? [alongTrack(post, { ...part, turns: 0, aside })] : []))
  const top = up.at(-1)?.points.at(-1) ?? foot
  const overM = distance3M(top, head)
  if (overM <= 0.01) return up
  const over = overM > BEND_M ? [inSpace(alongPath([top, head], BEND_M))] : []
  return [...up, { on: 'free', points: [top, ...over, head] }]
}
/** Old wood bends over within this of its corner, metres. */
const BEND_M = 0.2

/** Along the middle wire from the head to where the plant's part of it ends on a side, or as far as the wood goes. */
export function armWay(
  view: PlantView,
  canopy: Canopy,
  side: 'left' | 'right',
  lengthM: number,
): { readonly way: Stretch[]; readonly roomM: number } {
  const { alongM } = headOf(view, canopy)
  const { way, lengthM: wireM } = canopy.middle
  const endXM = side === 'left' ? view.share.fromM : view.share.toM
  const isForward = way.at(-1)!.xM > way[0]!.xM === (side === 'right')
  const roomM = Math.max(
    0,
    Math.min(Math.abs(endXM - alongPath(way, alongM).xM), isForward ? wireM - alongM : alongM),
  )
  const goesM = Math.max(0.05, Math.min(roomM, lengthM))
  const toM = Math.min(wireM, Math.max(0, alongM + (isForward ? goesM : -goesM)))
  return { way: [alongTrack(canopy.middle, { fromM: alongM, toM, turns: 0, aside: ON_IT })], roomM }
}

/** A side with less room than this is the end of the wire: no arm is wanted there. */
const LEAST_ROOM_M = 0.5

/** The sides to which an arm has room. */
export const sidesOf = (view: PlantView, canopy: Canopy): readonly ('left' | 'right')[] =>
  (['left', 'right'] as const).filter(
    (side) => armWay(view, canopy, side, Number.POSITIVE_INFINITY).roomM >= LEAST_ROOM_M,
  )

export interface Arm {
  readonly stem: Stem
  readonly side: 'left' | 'right'
}

/** Lasting wood along the middle wire, one each way: the longest of its side. */
export function armsOf(view: PlantView, canopy: Canopy): Arm[] {
  const found = view.stems.flatMap((stem): Arm[] => {
    const { base, tip } = stem
    if (stem.parent === null || stem.age < 1 || stem.piece.led.length + stem.age < 2) return []
    const isThere = nearestOnPath(canopy.middle.way, inSpace(tip)).distanceM < AT_WIRE_M
    const goesM = tip.xM - base.xM
    return isThere && Math.abs(goesM) > ARM_M ? [{ stem, side: goesM < 0 ? 'left' : 'right' }] : []
  })
  return (['left', 'right'] as const).flatMap((side) =>
    found
      .filter((one) => one.side === side)
      .sort((a, b) => b.stem.lengthM - a.stem.lengthM)
      .slice(0, 1),
  )
}

/** To the front or the back of its arm; `null` for what stands over it. */
export function faceOf({ piece, base, tip }: Stem): 'front' | 'back' | null {
  if (piece.side === 'front' || piece.side === 'back') return piece.side
  const deepM = (tip.zM ?? 0) - (base.zM ?? 0)
  const STANDS_M = 0.05
  return Math.abs(deepM) < STANDS_M ? null : deepM < 0 ? 'front' : 'back'
}

/** From the middle wire to the outermost on a face, and the depths of the wires that lie between. */
export function reachOf({ middle, wires }: Canopy, face: 'front' | 'back') {
  const midZM = depthOf(middle)
  const beyond = wires.filter((wire) => (face === 'front' ? depthOf(wire) < midZM : depthOf(wire) > midZM))
  const depths = beyond.map(depthOf).sort((a, b) => Math.abs(a - midZM) - Math.abs(b - midZM))
  return { depths, reachM: Math.abs((depths.at(-1) ?? midZM) - midZM) }
}

/** Across the wires of a face from a place on the arm: over each of them, and a hand beyond the last. */
export function acrossFrom(
  base: Point3,
  canopy: Canopy,
  face: 'front' | 'back',
  lengthM: number,
  beyondM: number,
): Point3[] {
  const sign = face === 'front' ? -1 : 1
  const { reachM } = reachOf(canopy, face)
  const goesM = Math.min(lengthM, reachM + beyondM)
  return [
    base,
    at3(base.xM, base.yM + 0.02, base.zM + sign * goesM * 0.5),
    at3(base.xM, base.yM, base.zM + sign * goesM),
  ]
}
