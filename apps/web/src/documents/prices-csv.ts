import type { Catalogue } from '@klados/core/catalogue'
import Papa from 'papaparse'

export interface ReadPrices {
  readonly catalogue: Catalogue
  readonly changed: number
  /** Rows that name nothing of the catalogue, or no price. */
  readonly unknown: number
}

/**
 * Prices back out of an edited catalogue file: `id,length_m,price`; rows without a length price what is
 * counted.
 */
export function readPrices(csv: string, catalogue: Catalogue): ReadPrices {
  const { data } = Papa.parse<Record<string, string>>(csv, {
    header: true,
    skipEmptyLines: true,
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  let next = catalogue
  let changed = 0
  let unknown = 0
  for (const row of data) {
    const price = Number((row.price ?? '').trim().replace(',', '.') || NaN)
    const lengthM = Number((row.length_m ?? '').trim().replace(',', '.') || NaN)
    const after = price >= 0 && price <= 1e6 ? withPrice(next, (row.id ?? '').trim(), lengthM, price) : null
    if (!after) unknown++
    else if (after !== next) {
      changed++
      next = after
    }
  }
  return { catalogue: next, changed, unknown }
}

/**
 * The catalogue with one price set; the same one where it is that already, `null` where nothing has that id
 * and length.
 */
function withPrice(catalogue: Catalogue, id: string, lengthM: number, price: number): Catalogue | null {
  const isLength = (offer: { lengthM: number }) => Math.abs(offer.lengthM - lengthM) < 1e-6
  for (const [list, offers] of [
    ['wires', 'rolls'],
    ['stock', 'lengths'],
  ] as const) {
    const items: readonly { id: string }[] = catalogue[list]
    const item = items.find((one) => one.id === id) as Record<string, unknown> | undefined
    if (!item) continue
    const lengths = item[offers] as readonly { lengthM: number; price: number }[]
    const offer = lengths.find(isLength)
    if (!offer) return null
    if (offer.price === price) return catalogue
    const changed = { ...item, [offers]: lengths.map((one) => (one === offer ? { ...one, price } : one)) }
    return { ...catalogue, [list]: items.map((one) => (one.id === id ? changed : one)) } as Catalogue
  }
  for (const list of ['fixings', 'screws', 'goods', 'ties'] as const) {
    const items: readonly { id: string; price: number }[] = catalogue[list]
    const item = items.find((one) => one.id === id)
    if (!item) continue
    if (item.price === price) return catalogue
    return { ...catalogue, [list]: items.map((one) => (one === item ? { ...one, price } : one)) } as Catalogue
  }
  return null
}
