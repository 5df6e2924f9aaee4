import type { PlantView, Stem } from './plant.ts'

/** The trunk: the oldest wood from the crown, going on where a piece of it was called trunk. */
export function trunkOf(view: PlantView): Stem | null {
  const fromCrown = view.stems.filter((stem) => stem.piece.parent.on === 'crown' && !stem.isBelowGraft)
  let trunk = [...fromCrown].sort(
    (a, b) =>
      Number(b.role === 'trunk') - Number(a.role === 'trunk') || b.age - a.age || b.lengthM - a.lengthM,
  )[0]
  const seen = new Set<string>()
  while (trunk && !seen.has(trunk.id)) {
    seen.add(trunk.id)
    const on = view.childrenOf(trunk.id).find((child) => child.role === 'trunk')
    if (!on) break
    trunk = on
  }
  return trunk ?? null
}
