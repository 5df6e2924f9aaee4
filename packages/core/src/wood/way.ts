import type { LineId, MemberId } from '../frame/index.ts'
import { distance3M, inSpace, pathLengthM } from '../geometry/index.ts'
import type { DeepPoint, Point3 } from '../geometry/index.ts'
import { choice, list, number, oneOf, part, record, uuid, way } from '../shape/index.ts'
import type { ValueOf } from '../shape/index.ts'
import { alongM } from './address.ts'

/** Turns round what it runs along, seen from above clockwise positive; 0 runs straight along it. */
const turns = number(-1000, 1000)
/** From the middle of what it runs along to the wood, where the stretch begins. */
const beside = number(-5, 5)
const aside = record({ xM: beside, yM: beside, zM: beside })
const along = { frameId: uuid, fromM: alongM, toM: alongM, turns, aside, points: way }

/**
 * A row of stretches from base to tip: each free in space, or along a wire, stake, pole or other part of a frame, from
 * one length of it to another, with where it lay when it was written down.
 */
export const wayShape = list(
  oneOf(
    'on',
    { on: choice('free'), points: way },
    { on: choice('line'), lineId: part<LineId>(), ...along },
    { on: choice('member'), memberId: part<MemberId>(), ...along },
  ),
  60,
)
export type Stretch = ValueOf<typeof wayShape>[number]
export type StretchAlong = Exclude<Stretch, { readonly on: 'free' }>

/** A part of a piece that runs along something of a frame: which, from where to where on it, and on the piece. */
export interface Led {
  readonly frameId: string
  readonly part:
    | { readonly on: 'line'; readonly lineId: LineId }
    | { readonly on: 'member'; readonly memberId: MemberId }
  readonly fromM: number
  readonly toM: number
  readonly turns: number
  /** From the middle of what it runs along to the wood, where it begins. */
  readonly aside: Point3
  /** On the piece, metres from its base. */
  readonly startM: number
  readonly endM: number
}

const SAME_M = 1e-6

/** The whole line of a way, without the points in which one stretch ends and the next begins said twice. */
export function lineOf(stretches: readonly Stretch[]): Point3[] {
  const line: Point3[] = []
  for (const { points } of stretches)
    for (const p of points) if (line.length === 0 || distance3M(line.at(-1)!, p) > SAME_M) line.push(p)
  // A way of no length is still a line from a point to a point.
  return line.length > 1 ? line : [line[0]!, line[0]!]
}

/** What of a way runs along something, in its order; `startM` is where the way begins on the piece. */
export function ledBy(stretches: readonly Stretch[], startM = 0): Led[] {
  const led: Led[] = []
  let [run, last] = [startM, null as Point3 | null]
  for (const stretch of stretches) {
    if (last) run += distance3M(last, stretch.points[0]!)
    const endM = run + pathLengthM(stretch.points)
    if (stretch.on !== 'free') {
      const { frameId, fromM, toM, turns, aside } = stretch
      const part =
        stretch.on === 'line'
          ? ({ on: 'line', lineId: stretch.lineId } as const)
          : ({ on: 'member', memberId: stretch.memberId } as const)
      led.push({ frameId, part, fromM, toM, turns, aside, startM: run, endM })
    }
    run = endM
    last = stretch.points.at(-1)!
  }
  return led
}

/** What is left of what is led where a piece is cut to a length. */
export const ledUpTo = (led: readonly Led[], lengthM: number): readonly Led[] =>
  led.some(({ endM }) => endM > lengthM)
    ? led.flatMap((one) => {
        if (one.startM >= lengthM - SAME_M) return []
        if (one.endM <= lengthM) return [one]
        const share = (lengthM - one.startM) / (one.endM - one.startM)
        return [
          { ...one, endM: lengthM, toM: one.fromM + (one.toM - one.fromM) * share, turns: one.turns * share },
        ]
      })
    : led

/** A line that runs free, as a way. */
export const freeWay = (path: readonly DeepPoint[]): Stretch[] => [{ on: 'free', points: path.map(inSpace) }]
