import type { FrameDesign, WireChoice } from '../design/index.ts'
import { cutFromRolls } from '../cutting/index.ts'
import { findWire } from '../catalogue/index.ts'
import type { Catalogue, Wire } from '../catalogue/index.ts'
import type { Effort, CuttingPlan } from '../cutting/index.ts'
import { CoreError } from '../errors/index.ts'
import { kindOf, wireFor } from '../frame/index.ts'
import type { Frame, WireName } from '../frame/index.ts'
import { planStringing } from '../stringing/index.ts'
import type { StringingPlan } from '../stringing/index.ts'

/** One wire of a frame: how it is strung, and the rolls that all its pieces are cut from. */
export interface StrungWire {
  readonly name: WireName
  readonly wire: Wire
  readonly choice: WireChoice
  readonly stringing: StringingPlan | null
  readonly cutting: CuttingPlan | null
}

export type Attempt = <T>(step: () => T) => T | null

export function choiceOf(design: FrameDesign, name: WireName): WireChoice {
  const { wireId, tensionN, rolls } = name === 'light' && design.light ? design.light : design
  return { wireId, tensionN, rolls }
}

/**
 * Stringing and cutting for each wire that the pattern is strung with; steps that refuse their input go to
 * `attempt`.
 */
export function strungWires(
  frame: Frame,
  design: FrameDesign,
  catalogue: Catalogue,
  attempt: Attempt,
  effort: Effort = 'thorough',
): StrungWire[] {
  return kindOf(design.pattern)
    .wires(design.pattern)
    .flatMap((name) => {
      const choice = choiceOf(design, name)
      const wire = attempt(() => requireWire(catalogue, choice.wireId))
      if (!wire) return []
      const runs = frame.runs
        .filter((run) => wireFor(run.line.role) === name)
        .map((run) => ({ from: run.from, to: run.to, lengthM: run.lengthM + run.wrapM }))
      const limits = {
        ...(woundLimits(frame, runs, choice) ?? {
          handlingLengthM: design.handlingLengthM,
          endWrapM: design.endWrapM,
        }),
        ...(design.endsAt === 'edge' ? { endsAt: edgeNodes(frame) } : {}),
      }
      const stringing = attempt(() =>
        planStringing({ nodes: frame.nodes.map((node) => node.at), runs }, limits),
      )
      const cutting =
        stringing &&
        attempt(() =>
          cutFromRolls(
            stringing.pieces.map((piece) => ({ lengthM: piece.cutLengthM, quantity: design.repeat })),
            choice.rolls,
            effort,
          ),
        )
      return [{ name, wire, choice, stringing, cutting }]
    })
}

/**
 * String that is wound comes off its ball as one goes round, in one piece where a ball is long enough: no length is handled,
 * and its knots are in its runs. `null` for what is not wound, or is longer than any ball.
 */
function woundLimits(
  { lines }: Frame,
  runs: readonly { readonly lengthM: number }[],
  { rolls }: WireChoice,
): { readonly handlingLengthM: number; readonly endWrapM: number } | null {
  if (lines.some(({ role }) => role !== 'cord')) return null
  const netM = runs.reduce((sum, { lengthM }) => sum + lengthM, 0)
  const ballM = rolls.reduce((most, { lengthM }) => Math.max(most, lengthM), 0)
  return netM > 0 && netM <= ballM ? { handlingLengthM: ballM, endWrapM: 0 } : null
}

/**
 * Ends of lines, and nodes of a wall on the outline of its pattern, where they were meant to be before any
 * moved off a spot.
 */
export function edgeNodes(frame: Frame): ReadonlySet<number> {
  const eyes = frame.nodes.filter((node) => node.joint === 'eye').map((node) => node.ideal)
  const reach = (values: readonly number[]) =>
    [
      values.reduce((a, b) => Math.min(a, b), Infinity),
      values.reduce((a, b) => Math.max(a, b), -Infinity),
    ] as const
  const [left, right] = reach(eyes.map((at) => at.xM))
  const [low, high] = reach(eyes.map((at) => at.yM))
  const isOn = (value: number, edges: readonly number[]) =>
    edges.some((edge) => Math.abs(value - edge) < EDGE_M)
  return new Set(
    frame.nodes.flatMap(({ joint, ideal }, i) =>
      joint === 'end' || (joint === 'eye' && (isOn(ideal.xM, [left, right]) || isOn(ideal.yM, [low, high])))
        ? [i]
        : [],
    ),
  )
}

/** Nodes so near to the outline are on it. */
const EDGE_M = 1e-3

export function requireWire(catalogue: Catalogue, id: string): Wire {
  const wire = findWire(catalogue, id)
  if (!wire)
    throw new CoreError('frame/unknown-stock', `There is no wire ${id} in the catalogue`, { stockId: id })
  return wire
}
