/**
 * What ties are made of. `life` in days from weathering outdoors; `stretch` the share by which a loop gives
 * by itself.
 */
export interface TieMaterial {
  readonly id: string
  readonly lifeDays: readonly [number, number]
  readonly stretch: number
  /** Tails and knot, mm, over the loop itself. */
  readonly tailMm: number
}

const materials = [
  { id: 'soft-jute', lifeDays: [270, 420], stretch: 0.02, tailMm: 120 },
  { id: 'coir', lifeDays: [450, 720], stretch: 0.02, tailMm: 120 },
  { id: 'raffia', lifeDays: [180, 330], stretch: 0.01, tailMm: 120 },
  { id: 'stretch-tape', lifeDays: [730, 1460], stretch: 0.2, tailMm: 60 },
  { id: 'rubber-coated-wire', lifeDays: [1460, 2900], stretch: 0, tailMm: 80 },
  { id: 'cloth-strip', lifeDays: [240, 480], stretch: 0.05, tailMm: 120 },
  { id: 'padded-hose', lifeDays: [1460, 2900], stretch: 0, tailMm: 150 },
  { id: 'hook-and-loop', lifeDays: [730, 1460], stretch: 0, tailMm: 50 },
] as const satisfies readonly TieMaterial[]

export type TieMaterialId = (typeof materials)[number]['id']
export type KnownTieMaterial = TieMaterial & { readonly id: TieMaterialId }
export const tieMaterials: readonly KnownTieMaterial[] = materials

export function findTieMaterial(id: string): KnownTieMaterial | undefined {
  return tieMaterials.find((material) => material.id === id)
}
