/** What ties are made of. `life` in days from weathering outdoors; `stretch` the share by which a loop gives by itself. */
export interface TieMaterial {
  readonly id: string
  readonly lifeDays: readonly [number, number]
  readonly stretch: number
  /** Tails and knot, mm, over the loop itself. */
  readonly tailMm: number
  readonly price: number
}

export const tieMaterials: readonly TieMaterial[] = [
  { id: 'soft-jute', lifeDays: [270, 420], stretch: 0.02, tailMm: 120, price: 0.02 },
  { id: 'coir', lifeDays: [450, 720], stretch: 0.02, tailMm: 120, price: 0.03 },
  { id: 'raffia', lifeDays: [180, 330], stretch: 0.01, tailMm: 120, price: 0.02 },
  { id: 'stretch-tape', lifeDays: [730, 1460], stretch: 0.2, tailMm: 60, price: 0.04 },
  { id: 'rubber-coated-wire', lifeDays: [1460, 2900], stretch: 0, tailMm: 80, price: 0.25 },
  { id: 'cloth-strip', lifeDays: [240, 480], stretch: 0.05, tailMm: 120, price: 0.01 },
  { id: 'padded-hose', lifeDays: [1460, 2900], stretch: 0, tailMm: 150, price: 0.6 },
  { id: 'hook-and-loop', lifeDays: [730, 1460], stretch: 0, tailMm: 50, price: 0.15 },
]

export function findTieMaterial(id: string): TieMaterial | undefined {
  return tieMaterials.find((material) => material.id === id)
}
