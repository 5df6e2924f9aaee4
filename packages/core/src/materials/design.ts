import { axialStiffnessN, findFixing, findWire, wireWeightNPerM } from './catalogue.ts'
import type { Fixing, Surface, Wire } from './catalogue.ts'
import { levelCable } from '../cable/index.ts'
import { CoreError } from '../errors/index.ts'
import { makeFrame, markOut } from '../frame/index.ts'
import type { Frame, MarkOut, Pattern, Wall } from '../frame/index.ts'
import type { Point } from '../geometry/index.ts'
import { planStringing } from '../stringing/index.ts'
import type { StringingPlan } from '../stringing/index.ts'
import { cutFromRolls } from './rolls.ts'
import type { CuttingPlan, RollSize } from './rolls.ts'
import { takeOff } from './take-off.ts'
import type { TakeOff } from './take-off.ts'

/** Everything the grower decides about a frame, besides the wall it stands on. Lengths in metres, pull in newtons. */
export interface FrameDesign {
  readonly pattern: Pattern
  readonly moveToleranceM: number
  readonly dragged: Readonly<Record<string, Point>>
  readonly wireId: string
  readonly tensionN: number
  readonly endWrapM: number
  readonly handlingLengthM: number
  readonly rolls: readonly RollSize[]
  readonly fixingId: string
}

/** Spans of one length: how far they sag under their own weight at the tension set. */
export interface SpanGroup {
  readonly lengthM: number
  readonly count: number
  readonly sagM: number
  readonly maxTensionN: number
}

/** All that follows from a design; what could not be computed is `null`, with the reason among the problems. */
export interface FramePlan {
  readonly frame: Frame | null
  readonly markOut: MarkOut | null
  readonly stringing: StringingPlan | null
  readonly cutting: CuttingPlan | null
  readonly spans: readonly SpanGroup[]
  readonly takeOff: TakeOff | null
  readonly wire: Wire | null
  readonly fixing: Fixing | null
  /** Working load of the wire in newtons: the share of its breaking load to stay below. */
  readonly workingLoadN: number | null
  readonly problems: readonly CoreError[]
}

/**
 * The consequences of a design on a wall. A step that refuses its input leaves a problem and the steps before it stand,
 * so a grower sees the drawing even where the handling length is too short for one run. Throws only for bugs.
 */
export function planFrame(wall: Wall, surface: Surface, design: FrameDesign): FramePlan {
  const problems: CoreError[] = []
  const attempt = <T>(step: () => T): T | null => {
    try {
      return step()
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      problems.push(error)
      return null
    }
  }
  const wire = findWire(design.wireId) ?? null
  const fixing = findFixing(design.fixingId) ?? null
  const frame = attempt(() => makeFrame(wall, design.pattern, design))
  const marks = frame && markOut(frame, wall)
  const stringing =
    frame && attempt(() => planStringing({ nodes: frame.nodes.map((n) => n.at), runs: frame.runs }, design))
  const cutting =
    stringing &&
    attempt(() =>
      cutFromRolls(
        stringing.pieces.map((piece) => ({ lengthM: piece.cutLengthM, quantity: 1 })),
        design.rolls,
      ),
    )
  const spans = (frame && wire && attempt(() => groupSpans(frame, wire, design.tensionN))) ?? []
  return {
    frame,
    markOut: marks,
    stringing,
    cutting,
    spans,
    takeOff:
      frame && fixing && takeOff({ frame, stringing, cutting, rolls: design.rolls, fixing, surface, wall }),
    wire,
    fixing,
    workingLoadN: wire && wire.breakingLoadN * wire.workingShare,
    problems,
  }
}

/**
 * Sag of each span by the exact level catenary. A slanting run is taken as a level one of its own length and pull: its
 * vertical sag below the chord is the same to first order, wL²/8T (Irvine 1981, ch. 2).
 */
function groupSpans(frame: Frame, wire: Wire, tensionN: number): SpanGroup[] {
  const counts = new Map<number, number>()
  for (const run of frame.runs) {
    const millimetres = Math.round(run.lengthM * 1000)
    if (millimetres > 0) counts.set(millimetres, (counts.get(millimetres) ?? 0) + 1)
  }
  return [...counts]
    .sort(([a], [b]) => b - a)
    .map(([millimetres, count]) => {
      const lengthM = millimetres / 1000
      const cable = levelCable(lengthM, tensionN, wireWeightNPerM(wire), axialStiffnessN(wire))
      return { lengthM, count, sagM: cable.sagM, maxTensionN: cable.maxTensionN }
    })
}
