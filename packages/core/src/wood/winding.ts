import { alongPath, distance3M, inSpace, partOfPath, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint, Point3 } from '../geometry/index.ts'

/** How wood runs along something: from one length of it to another, so many times round it, so far off its middle. */
export interface Course {
  readonly fromM: number
  readonly toM: number
  /** Seen from above clockwise positive; 0 runs straight along it. */
  readonly turns: number
  /** From its middle to the wood, where the wood begins. */
  readonly aside: Point3
}

/** Points for each turn: the line is then shorter than the true helix by less than a hundredth. */
const PER_TURN = 16
/** A way that is written down has no more points than this. */
const MOST_POINTS = 380

/** Wood that lies on what it runs along. */
export const ON_IT: Point3 = { xM: 0, yM: 0, zM: 0 }

/** The line of wood that runs along a way as told: beside it, or round it as a helix. */
export function courseOn(way: readonly DeepPoint[], { fromM, toM, turns, aside }: Course): Point3[] {
  const isOn = aside.xM === 0 && aside.yM === 0 && aside.zM === 0
  if (turns === 0) {
    const part = partOfPath(way, fromM, toM).map(inSpace)
    return isOn ? part : part.map((p) => plus(p, aside))
  }
  const steps = Math.max(2, Math.min(MOST_POINTS, Math.ceil(Math.abs(turns) * PER_TURN)))
  return Array.from({ length: steps + 1 }, (_, i) => {
    const share = i / steps
    const alongM = fromM + (toM - fromM) * share
    const { across, beside } = sidesAt(way, alongM, aside)
    const angle = 2 * Math.PI * turns * share
    const on = inSpace(alongPath(way, alongM))
    const round = Math.sin(angle) * risesAt(way, alongM)
    return plus(plus(on, scaled(across, Math.cos(angle))), scaled(beside, round))
  })
}

/** Across a way at a place, as far off as the wood is: towards where the wood begins, and a quarter turn on from that. */
function sidesAt(
  way: readonly DeepPoint[],
  alongM: number,
  aside: Point3,
): { across: Point3; beside: Point3 } {
  const along = directionAt(way, alongM)
  const off = Math.sqrt(dot(aside, aside)) || 1e-3
  const level = plus(aside, scaled(along, -dot(aside, along)))
  const size = Math.sqrt(dot(level, level))
  const across = size > 1e-9 ? scaled(level, off / size) : scaled(anyAcross(along), off)
  return { across, beside: cross(along, across) }
}

/** Whether a way rises where it runs on: what runs down turns the other way round as seen from above. */
const risesAt = (way: readonly DeepPoint[], alongM: number): 1 | -1 =>
  directionAt(way, alongM).yM >= 0 ? 1 : -1

function directionAt(way: readonly DeepPoint[], alongM: number): Point3 {
  const length = pathLengthM(way)
  const step = Math.max(length * 1e-3, 1e-5)
  const from = Math.min(Math.max(0, alongM - step / 2), Math.max(0, length - step))
  const [a, b] = [inSpace(alongPath(way, from)), inSpace(alongPath(way, from + step))]
  const size = distance3M(a, b) || 1
  return scaled(plus(b, scaled(a, -1)), 1 / size)
}

function anyAcross(along: Point3): Point3 {
  const side = Math.abs(along.zM) < 0.9 ? { xM: 0, yM: 0, zM: -1 } : { xM: 1, yM: 0, zM: 0 }
  const level = plus(side, scaled(along, -dot(side, along)))
  return scaled(level, 1 / Math.sqrt(dot(level, level)))
}

const plus = (a: Point3, b: Point3): Point3 => ({ xM: a.xM + b.xM, yM: a.yM + b.yM, zM: a.zM + b.zM })
const scaled = (a: Point3, by: number): Point3 => ({ xM: a.xM * by, yM: a.yM * by, zM: a.zM * by })
const dot = (a: Point3, b: Point3): number => a.xM * b.xM + a.yM * b.yM + a.zM * b.zM
const cross = (a: Point3, b: Point3): Point3 => ({
  xM: a.yM * b.zM - a.zM * b.yM,
  yM: a.zM * b.xM - a.xM * b.zM,
  zM: a.xM * b.yM - a.yM * b.xM,
})
