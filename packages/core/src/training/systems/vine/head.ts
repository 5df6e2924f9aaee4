import { heightOn, levelWires } from '../../level-wires.ts'
import type { Wire } from '../../level-wires.ts'
import type { Point } from '../../../geometry/index.ts'
import type { PlantView, Stem } from '../../plant.ts'
import type { BudsBySide, Chosen } from '../../question.ts'
import { trunkOf } from '../../trunk.ts'

/** Where a vine's canes and arms begin: the top of its trunk, and the wire that they lie on. */
export interface Head {
  readonly at: Point
  readonly trunk: Stem
  readonly wire: Wire | null
}

/** A head lies at most so far below the wire that its wood is led along, and little above it. */
const WIRE_ABOVE_M = 0.4
const WIRE_BELOW_M = 0.12

export function headOf(view: PlantView): Head | null {
  const trunk = trunkOf(view)
  if (!trunk) return null
  const at = trunk.tip
  const wire = levelWires(view)
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
