import { heightOn } from './level-wires.ts'
import type { Wire } from './level-wires.ts'
import type { Point } from '../geometry/index.ts'
import { cutPolyline, pointAlong, polylineLengthM } from '../geometry/index.ts'
import type { PlantView, Stem } from './plant.ts'
import type { Stretch } from './question.ts'

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
