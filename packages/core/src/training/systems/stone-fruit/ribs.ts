import { pointAlong } from '../../../geometry/index.ts'
import type { Point } from '../../../geometry/index.ts'
import type { PlantView, Stem } from '../../plant.ts'
import { trunkOf } from '../../trunk.ts'

/** Shorter old wood is what is left of a shoot that was cut back, no rib. */
const RIB_M = 0.3
const STUB_M = 0.2

export interface Rib {
  readonly stem: Stem
  readonly side: 'left' | 'right'
  /** From the lowest of its side up. */
  readonly n: number
}

const isLasting = (stem: Stem): boolean =>
  stem.piece.calledRole === 'rib' || (stem.age >= 2 && stem.lengthM >= RIB_M)

/** Lasting wood that spreads from the trunk, the lowest of each side first. */
export function ribsOf(view: PlantView): Rib[] {
  const trunk = trunkOf(view)
  if (!trunk) return []
  const spread = view.stems.filter(
    (stem) => stem.id !== trunk.id && stem.parent !== null && isLasting(stem) && isOn(stem, trunk),
  )
  return (['left', 'right'] as const).flatMap((side) =>
    spread
      .filter((stem) => (stem.leanDeg < 0 ? 'left' : 'right') === side)
      .sort((a, b) => Math.abs(b.leanDeg) - Math.abs(a.leanDeg))
      .map((stem, i) => ({ stem, side, n: i + 1 })),
  )
}

function isOn(stem: Stem, under: Stem): boolean {
  for (let at = stem.parent; at; at = at.parent) if (at.id === under.id) return true
  return false
}

/** A shoot's place: how far out on which rib, and on which side of it as one looks along it from its base. */
export interface OnRib {
  readonly rib: Rib
  readonly alongM: number
  readonly hand: 'left' | 'right'
}

export function placeOf(stem: Stem, ribs: readonly Rib[]): OnRib | null {
  for (let at: Stem | null = stem; at?.parent; at = at.parent) {
    const { parent, alongM } = at
    const rib = ribs.find((one) => one.stem.id === parent.id)
    if (rib) return { rib, alongM, hand: handOf(stem, rib, alongM) }
    if (parent.age >= 2 && parent.lengthM > STUB_M) return null
  }
  return null
}

/** The side on which a shoot's tip lies of its rib's own direction there. */
function handOf(stem: Stem, { stem: rib }: Rib, alongM: number): 'left' | 'right' {
  const from = pointAlong(rib.piece.path, Math.max(0, alongM - 0.05))
  const to = pointAlong(rib.piece.path, Math.min(rib.lengthM, alongM + 0.05))
  const way: Point = { xM: to.xM - from.xM, yM: to.yM - from.yM }
  const out: Point = { xM: stem.tip.xM - stem.base.xM, yM: stem.tip.yM - stem.base.yM }
  return way.xM * out.yM - way.yM * out.xM >= 0 ? 'left' : 'right'
}
