import type { Catalogue } from '../catalogue/index.ts'
import type { MaterialItem } from '../bill/index.ts'
import type { ShoppingList } from '../shopping/index.ts'
import type { MarkOut } from '../frame/index.ts'
import { toCsv } from './csv.ts'

const mm = (metres: number) => Math.round(metres * 1000)

/** Mark-out as CSV: millimetres from the viewing end and above the soil, ideal beside moved. */
export function markOutCsv(marks: MarkOut): string {
  return toCsv(
    [
      'mark',
      'what',
      'along_mm',
      'height_mm',
      'out_mm',
      'ideal_along_mm',
      'ideal_height_mm',
      'moved_mm',
      'state',
    ],
    marks.rows.map((row) => [
      row.label,
      row.what,
      mm(row.alongM),
      mm(row.heightM),
      mm(row.outM),
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

/** A shopping list as CSV: what is needed, what is on hand, what to buy. */
export function shoppingCsv(
  list: ShoppingList,
  currency: string,
  name: (item: MaterialItem) => string,
): string {
  return toCsv(
    ['item', 'needed', 'on_hand', 'buy', `price_${currency}`],
    list.lines.map((line) => [
      name(line.item),
      line.need,
      line.onHand,
      line.item.quantity,
      line.item.price.toFixed(2),
    ]),
  )
}

/** What things of a catalogue are called, for its file. */
interface CatalogueNames {
  readonly wire: (wire: Catalogue['wires'][number]) => string
  readonly stock: (stock: Catalogue['stock'][number]) => string
  readonly fixing: (fixing: Catalogue['fixings'][number]) => string
  readonly screw: (screw: Catalogue['screws'][number]) => string
  readonly good: (id: Catalogue['goods'][number]['id']) => string
  readonly tie: (id: string) => string
}

/**
 * The catalogue's prices as CSV, one line for each length on sale and each thing that is counted; to be
 * edited and read back by id.
 */
export function catalogueCsv(catalogue: Catalogue, currency: string, names: CatalogueNames): string {
  const rows: (string | number)[][] = [
    ...catalogue.wires.flatMap((one) =>
      one.rolls.map((roll) => [one.id, names.wire(one), roll.lengthM, roll.price]),
    ),
    ...catalogue.stock.flatMap((one) =>
      one.lengths.map((length) => [one.id, names.stock(one), length.lengthM, length.price]),
    ),
    ...catalogue.fixings.map((one) => [one.id, names.fixing(one), '', one.price]),
    ...catalogue.screws.map((one) => [one.id, names.screw(one), '', one.price]),
    ...catalogue.goods.map((one) => [one.id, names.good(one.id), '', one.price]),
    ...catalogue.ties.map((one) => [one.id, names.tie(one.id), '', one.price]),
  ]
  return toCsv(
    ['id', 'name', 'length_m', 'price', 'currency'],
    rows.map((row) => [...row, currency]),
  )
}
