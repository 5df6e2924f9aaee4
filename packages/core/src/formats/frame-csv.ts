import type { MarkOut } from '../frame/index.ts'
import type { MaterialItem } from '../materials/index.ts'
import { toCsv } from './csv.ts'

const mm = (metres: number) => Math.round(metres * 1000)

/** Mark-out as CSV: millimetres from the viewing end and above the soil, ideal beside moved. */
export function markOutCsv(marks: MarkOut): string {
  return toCsv(
    ['node', 'along_mm', 'height_mm', 'ideal_along_mm', 'ideal_height_mm', 'moved_mm', 'state'],
    marks.rows.map((row) => [
      row.number,
      mm(row.alongM),
      mm(row.heightM),
      mm(row.idealAlongM),
      mm(row.idealHeightM),
      mm(row.movedM),
      row.state,
    ]),
  )
}

/** Materials as CSV, one line an item; `name` gives the item's words. */
export function materialsCsv(
  items: readonly MaterialItem[],
  currency: string,
  name: (item: MaterialItem) => string,
): string {
  return toCsv(
    ['item', 'quantity', `price_${currency}`],
    items.map((item) => [name(item), item.quantity, item.price.toFixed(2)]),
  )
}
