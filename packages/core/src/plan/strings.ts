import type { FrameDesign, WireChoice } from './design.ts'
import { CoreError } from '../errors/index.ts'
import type { Frame, WireSlot } from '../frame/index.ts'
import { wireSlots } from '../frame/index.ts'
import { cutFromRolls, findWire } from '../materials/index.ts'
import type { Catalogue, CuttingPlan, Wire } from '../materials/index.ts'
import { planStringing } from '../stringing/index.ts'
import type { StringingPlan } from '../stringing/index.ts'

/** One wire of a frame: how it is strung, and the rolls that all its pieces are cut from. */
export interface StringPlan {
  readonly slot: WireSlot
  readonly wire: Wire
  readonly choice: WireChoice
  readonly stringing: StringingPlan | null
  readonly cutting: CuttingPlan | null
}

export type Attempt = <T>(step: () => T) => T | null

export function choiceOf(design: FrameDesign, slot: WireSlot): WireChoice {
  return slot === 'light' && design.light ? design.light : design
}

/** Stringing and cutting for each wire that the pattern is strung with; steps that refuse their input go to `attempt`. */
export function planStrings(frame: Frame, design: FrameDesign, catalogue: Catalogue, attempt: Attempt): StringPlan[] {
  return wireSlots(design.pattern).flatMap((slot) => {
    const choice = choiceOf(design, slot)
    const wire = attempt(() => requireWire(catalogue, choice.wireId))
    if (!wire) return []
    const runs = frame.runs.filter((run) => run.slot === slot).map((run) => ({ from: run.from, to: run.to, lengthM: run.lengthM + run.wrapM })) // prettier-ignore
    const stringing = attempt(() => planStringing({ nodes: frame.nodes.map((node) => node.at), runs }, design))
    const cutting =
      stringing &&
      attempt(() =>
        cutFromRolls(
          stringing.pieces.map((piece) => ({ lengthM: piece.cutLengthM, quantity: design.repeat })),
          choice.rolls,
        ),
      )
    return [{ slot, wire, choice, stringing, cutting }]
  })
} // prettier-ignore

export function requireWire(catalogue: Catalogue, id: string): Wire {
  const wire = findWire(catalogue, id)
  if (!wire)
    throw new CoreError('frame/unknown-stock', `There is no wire ${id} in the catalogue`, { stockId: id })
  return wire
}
