import type { FrameDesign, WireChoice } from './design.ts'
import { findWire } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import { frameKinds } from '../frame/index.ts'
import type { Pattern, PatternKind, StartPlace } from '../frame/index.ts'

/** The kinds of frame that are offered at a place, the most usual there first. */
export function kindsFor({ kind }: Pick<StartPlace, 'kind'>): readonly PatternKind[] {
  const rank = (of: PatternKind) =>
    frameKinds[of].places[kind as keyof (typeof frameKinds)[typeof of]['places']]
  return (Object.keys(frameKinds) as PatternKind[])
    .filter((of) => rank(of) !== undefined)
    .sort((a, b) => rank(a)! - rank(b)!)
}

export function startPattern(place: StartPlace, kind: PatternKind): Pattern {
  return frameKinds[kind].start(place)
}

/** Where a new frame begins: ordinary practice at this place, to be changed from there. */
export function startDesign(place: StartPlace, kind: PatternKind, catalogue: Catalogue): FrameDesign {
  const choice = (id: string): WireChoice => {
    const wire = findWire(catalogue, id) ?? catalogue.wires[0]!
    return { wireId: wire.id, tensionN: wire.usualTensionN, rolls: wire.rolls.map((roll) => ({ ...roll })) }
  }
  const { startWith } = frameKinds[kind]
  return {
    pattern: startPattern(place, kind),
    moveToleranceM: startWith.moveToleranceM,
    dragged: {},
    snap: 'none',
    ids: {},
    ...choice(startWith.wireId),
    light: startWith.lightWireId === null ? null : choice(startWith.lightWireId),
    endWrapM: startWith.endWrapM,
    handlingLengthM: startWith.handlingLengthM,
    endsAt: 'any',
    fixingId: 'eye-100',
    setC: 12,
    plantKindId: null,
    repeat: 1,
  }
}
