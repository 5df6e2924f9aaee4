import type { Point } from '../geometry/index.ts'
import { cutPolyline, pointAlong, polylineLengthM } from '../geometry/index.ts'
import { heightOn } from './plant.ts'
import type { PlantView, Stem, Wire } from './plant.ts'
import type { BudsBySide, Chosen, Stretch } from './question.ts'

/** Where a vine's canes and arms begin: the top of its trunk, and the wire that they lie on. */
export interface Head {
  readonly at: Point
  readonly trunk: Stem
  readonly wire: Wire | null
}

/** A head lies at most so far below the wire that its wood is led along, and little above it. */
const WIRE_ABOVE_M = 0.4
const WIRE_BELOW_M = 0.12

/** The trunk: the oldest wood from the crown, going on where a piece of it was called trunk. */
export function trunkOf(view: PlantView): Stem | null {
  const fromCrown = view.stems.filter((stem) => stem.piece.parent.on === 'crown' && !stem.isBelowGraft)
  let trunk = [...fromCrown].sort(
    (a, b) =>
      Number(b.role === 'trunk') - Number(a.role === 'trunk') || b.age - a.age || b.lengthM - a.lengthM,
  )[0]
  const seen = new Set<string>()
  while (trunk && !seen.has(trunk.id)) {
    seen.add(trunk.id)
    const on = view.childrenOf(trunk.id).find((child) => child.role === 'trunk')
    if (!on) break
    trunk = on
  }
  return trunk ?? null
}

export function headOf(view: PlantView): Head | null {
  const trunk = trunkOf(view)
  if (!trunk) return null
  const at = trunk.tip
  const wire = view.wires
    .map((one) => ({ one, overM: heightOn(one.path, at.xM) - at.yM }))
    .filter(({ overM }) => overM <= WIRE_ABOVE_M && overM >= -WIRE_BELOW_M)
    .sort((a, b) => Math.abs(a.overM - 0.1) - Math.abs(b.overM - 0.1))[0]
  return { at, trunk, wire: wire?.one ?? null }
}

/** Metres of wood between a piece's base and the top of the trunk. */
export function wayToHeadM(stem: Stem, head: Head): number {
  let way = 0
  for (let at: Stem | null = stem; at; at = at.parent) {
    if (at.parent?.id === head.trunk.id) return way + Math.max(0, head.trunk.lengthM - at.alongM)
    if (at.id === head.trunk.id) return way
    way += at.alongM
  }
  return way
}

/** On which side of the head a piece begins: by the wood that it sits on, else by what was said, else by its lean. */
export function sideOf(stem: Stem, head: Head): 'left' | 'right' {
  let top = stem
  while (top.parent && top.parent.id !== head.trunk.id) top = top.parent
  if (top !== stem) return top.tip.xM < head.at.xM ? 'left' : 'right'
  if (stem.piece.side === 'left' || stem.piece.side === 'right') return stem.piece.side
  return stem.leanDeg < 0 ? 'left' : 'right'
}

/** Buds to both sides: of what stands, and of what is chosen, which counts to where it is laid. */
export const budsBySide =
  (view: PlantView, head: Head, standing: readonly Stem[]) =>
  (chosen: Chosen): BudsBySide => {
    const sum = { left: 0, right: 0 }
    for (const stem of standing) sum[sideOf(stem, head)] += stem.buds
    for (const [pieceId, { towards, buds }] of chosen) {
      const stem = view.stem(pieceId)
      if (stem) sum[towards ?? sideOf(stem, head)] += buds
    }
    return sum
  }

/** Whether it grows on the trunk itself, below the head. */
export const isFromTrunk = (stem: Stem, head: Head): boolean =>
  stem.parent?.id === head.trunk.id && head.trunk.lengthM - stem.alongM > 0.12

/** Permanent arms, or what of last year's canes is left: two-year wood and older from the head. */
export function armsOf(
  view: PlantView,
  head: Head,
): { readonly side: 'left' | 'right'; readonly stem: Stem }[] {
  return view
    .childrenOf(head.trunk.id)
    .filter(
      (stem) => (stem.age >= 2 || stem.role === 'arm') && stem.lengthM > 0.02 && !isFromTrunk(stem, head),
    )
    .map((stem) => ({ side: sideOf(stem, head), stem }))
}

/** From a point of the wire outwards to the end of the plant's share, as a stretch to be filled. */
export function outwards(
  view: PlantView,
  wire: Wire,
  fromXM: number,
  side: 'left' | 'right',
  isWanted: boolean,
): Stretch {
  const endXM = side === 'left' ? view.share.fromM : view.share.toM
  const path = alongWire(wire.path, fromXM, endXM)
  const lengthM = polylineLengthM(path)
  return {
    id: `${wire.frameId}:${wire.lineId}:${side}`,
    lengthM: Math.max(lengthM, 1e-3),
    wanted: isWanted && lengthM > 0.02 ? [[0, lengthM]] : [],
    frameId: wire.frameId,
    lineId: wire.lineId,
    wire: wire.number,
    path,
  }
}

/** The wire between two places across, in that direction. */
export function alongWire(path: readonly Point[], fromXM: number, toXM: number): Point[] {
  const [low, high] = [Math.min(fromXM, toXM), Math.max(fromXM, toXM)]
  const at = (xM: number): Point => ({ xM, yM: heightOn(path, xM) })
  const inner = path.filter(({ xM }) => xM > low + 1e-6 && xM < high - 1e-6).map(({ xM, yM }) => ({ xM, yM }))
  const forward = [at(low), ...inner, at(high)]
  return fromXM <= toXM ? forward : forward.reverse()
}

/** A stem laid along a wire: up to it, bent, and on along it as far as `endXM` or as it is long. */
export interface Lie {
  readonly path: readonly Point[]
  /** Of the stem that is used. */
  readonly lengthM: number
  /** Across, where it comes to lie on the wire and where it ends. */
  readonly fromXM: number
  readonly toXM: number
}

/** How much of the way up to a wire is also way along it, for wood that rises before it is laid. */
const RISE_SLOPE = 0.35
/** A base this near below the wire lies on it as good as from its beginning. */
const NEAR_WIRE_M = 0.15

export function lieAlong(
  stem: Pick<Stem, 'base' | 'lengthM'>,
  wire: readonly Point[],
  side: 'left' | 'right',
  endXM: number,
  radiusM: number,
): Lie | null {
  const sign = side === 'left' ? -1 : 1
  const { base } = stem
  const riseM = heightOn(wire, base.xM) - base.yM
  const bendXM = base.xM + sign * Math.max(Math.abs(riseM) * RISE_SLOPE, Math.min(radiusM, Math.abs(riseM)))
  const meet: Point = { xM: bendXM, yM: heightOn(wire, bendXM) }
  const rise = riseM > NEAR_WIRE_M ? [base, middleOf(base, meet, riseM)] : [base]
  const upM = polylineLengthM([...rise, meet])
  if (upM >= stem.lengthM || (endXM - bendXM) * sign <= 0) return null
  const whole = [...rise, ...alongWire(wire, bendXM, endXM)]
  const path = polylineLengthM(whole) > stem.lengthM ? cutPolyline(whole, stem.lengthM) : whole
  return {
    path,
    lengthM: polylineLengthM(path),
    fromXM: Math.abs(riseM) <= NEAR_WIRE_M ? base.xM : bendXM,
    toXM: path.at(-1)!.xM,
  }
}

/** It leaves its base upright and leans over as it rises. */
const middleOf = (base: Point, meet: Point, riseM: number): Point => ({
  xM: base.xM + (meet.xM - base.xM) * 0.25,
  yM: base.yM + riseM * 0.6,
})

/** Where along a stem it has grown up to a height, metres from its base; `null` where it never does. */
export function reachesM(stem: Stem, heightM: number): number | null {
  const { path } = stem.piece
  const STEP_M = 0.01
  for (let alongM = 0; alongM <= stem.lengthM + 1e-9; alongM += STEP_M)
    if (pointAlong(path, alongM).yM >= heightM - 1e-6) return alongM
  return null
}
