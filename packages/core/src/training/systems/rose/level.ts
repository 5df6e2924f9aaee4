import { levelWires } from '../../level-wires.ts'
import type { Wire } from '../../level-wires.ts'
import { cutPolyline, polylineLengthM } from '../../../geometry/index.ts'
import type { Point } from '../../../geometry/index.ts'
import { bendRadiusM } from '../../judge.ts'
import { option } from '../../options.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { Option, Stretch } from '../../question.ts'
import { alongWire, lieAlong } from '../../along.ts'
import { mainsQuestion } from './mains.ts'
import { rose } from './base.ts'

const SIDES = ['left', 'right'] as const
/** One starts low: a wire higher up costs a little. */
const HIGHER_COST = 0.25
/** A wire is asked to be full from where wood can come to lie on it. */
const RISE_SLOPE = 0.35
/** A panel narrower than this is filled to and fro. */
const NARROW_M = 2
/** What is left of a stem at the edge, to be worth turning back. */
const TURN_BACK_M = 0.3
/** What is cut off a good main, a metre. */
const LOST_PER_M = 2.5

/** Wires as stretches, to both sides of the foot where there is room. */
function wireStretches(
  view: PlantView,
): { readonly wire: Wire; readonly side: 'left' | 'right'; readonly stretch: Stretch }[] {
  const xM = view.input.plant.xM
  return levelWires(view).flatMap((wire) =>
    SIDES.flatMap((side) => {
      const endXM =
        side === 'left'
          ? Math.max(view.share.fromM, wire.path[0]!.xM)
          : Math.min(view.share.toM, wire.path.at(-1)!.xM)
      const path = alongWire(wire.path, xM, endXM)
      const lengthM = polylineLengthM(path)
      const fromM = RISE_SLOPE * wire.heightM + 0.05
      if (lengthM < 0.3) return []
      const stretch: Stretch = {
        id: `${wire.frameId}:${wire.lineId}:${side}`,
        lengthM,
        wanted: fromM < lengthM ? [[fromM, lengthM]] : [],
        frameId: wire.frameId,
        lineId: wire.lineId,
        wire: wire.number,
        path,
      }
      return [{ wire, side, stretch }]
    }),
  )
}

type Stretches = ReturnType<typeof wireStretches>

/** What a part of a wire covers, on the stretches to both sides of the foot. */
function coversOn(
  stretches: Stretches,
  wire: Wire,
  footXM: number,
  aXM: number,
  bXM: number,
): Option['covers'] {
  return stretches
    .filter((one) => one.wire === wire)
    .flatMap(({ side, stretch }) => {
      const sign = side === 'left' ? -1 : 1
      const [p, q] = [(aXM - footXM) * sign, (bXM - footXM) * sign]
      const fromM = Math.max(0, Math.min(p, q))
      const toM = Math.min(stretch.lengthM, Math.max(p, q))
      return toM > fromM + 1e-6 ? [{ track: stretch.id, fromM, toM }] : []
    })
}

function layLevel(stem: Stem, view: PlantView, stretches: Stretches, points: number): Option[] {
  const isNarrow = view.share.toM - view.share.fromM < NARROW_M
  const radiusM = bendRadiusM(stem)
  return stretches.flatMap(({ wire, side, stretch }): Option[] => {
    const endXM = stretch.path.at(-1)!.xM
    const lie = lieAlong(stem, wire.path, side, endXM, radiusM)
    if (!lie) return []
    const leftM = stem.lengthM - lie.lengthM
    // Long stems are laid, not shortened: what is lost at the edge counts against it.
    const cost = HIGHER_COST * (wire.number - 1) - points + LOST_PER_M * Math.max(0, leftM)
    const covers = coversOn(stretches, wire, view.input.plant.xM, lie.fromXM, lie.toXM)
    const plain = option(`lay-${wire.number}-${side}`, 'lay', {
      cost,
      buds: Math.floor(lie.lengthM / stem.internodeM),
      cutM: leftM > 0.005 ? lie.lengthM : null,
      aboveBuds: leftM > 0.005 ? Math.floor(lie.lengthM / stem.internodeM) : null,
      path: lie.path,
      covers,
      towards: side,
      wire: wire.number,
    })
    if (!isNarrow || leftM < TURN_BACK_M) return [plain]
    const turned = toAndFro(stem, view, stretches, wire, side, lie.path, cost - LOST_PER_M * leftM, radiusM)
    return turned ? [plain, turned] : [plain]
  })
}

/** At the edge up to the next wire and back along it, as long as the wood lasts and bends so far. */
function toAndFro(
  stem: Stem,
  view: PlantView,
  stretches: Stretches,
  first: Wire,
  side: 'left' | 'right',
  lain: readonly Point[],
  cost: number,
  radiusM: number,
): Option | null {
  const footXM = view.input.plant.xM
  let path: Point[] = [...lain]
  let towards: 'left' | 'right' = side
  let covers = [...coversOn(stretches, first, footXM, lain[1]!.xM, lain.at(-1)!.xM)]
  let wire = first
  let turns = 0
  while (polylineLengthM(path) < stem.lengthM - 1e-6) {
    const next = levelWires(view).find((one) => one.number > wire.number && one.heightM > wire.heightM + 0.1)
    if (!next || (next.heightM - wire.heightM) / 2 < radiusM) break
    towards = towards === 'left' ? 'right' : 'left'
    const at = path.at(-1)!
    const farXM = towards === 'left' ? view.share.fromM : view.share.toM
    const whole = [...path, ...alongWire(next.path, at.xM, farXM)]
    path = cutPolyline(whole, stem.lengthM)
    covers = [...covers, ...coversOn(stretches, next, footXM, at.xM, path.at(-1)!.xM)]
    wire = next
    turns++
  }
  if (turns === 0) return null
  const lengthM = polylineLengthM(path)
  return option(`to-and-fro-${first.number}-${side}`, 'to-and-fro', {
    // Each turn is bent and tied for itself.
    cost: cost + 0.4 * turns + LOST_PER_M * Math.max(0, stem.lengthM - lengthM),
    buds: Math.floor(lengthM / stem.internodeM),
    cutM: lengthM < stem.lengthM - 0.005 ? lengthM : null,
    aboveBuds: lengthM < stem.lengthM - 0.005 ? Math.floor(lengthM / stem.internodeM) : null,
    path,
    covers,
    towards: side,
    wire: first.number,
  })
}

export const roseLevel = rose('rose-level', 'mains', (view) => {
  const stretches = wireStretches(view)
  return mainsQuestion(
    view,
    'mains',
    stretches.map(({ stretch }) => stretch),
    (stem, points) => layLevel(stem, view, stretches, points),
  )
})
