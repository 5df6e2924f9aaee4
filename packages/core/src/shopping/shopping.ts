import type { FramePlan } from '../plan/index.ts'
import type { MaterialItem } from '../bill/index.ts'
import { cutFromRolls, cutFromStores } from '../cutting/index.ts'
import { priceOf, sharedTools } from '../catalogue/index.ts'
import type { Catalogue } from '../catalogue/index.ts'
import type { CutOnHand, CuttingPlan, LengthOnHand, PieceDemand, RollSize } from '../cutting/index.ts'
import { CoreError } from '../errors/index.ts'

/** What lies in the shed: by length where it is cut, by number otherwise. */
export interface InStores {
  readonly what: MaterialItem['what']
  readonly refId: string
  readonly lengthM: number | null
  readonly quantity: number
}

export interface WantedFrame {
  readonly name: string
  readonly plan: FramePlan
}

/** One piece that is cut, and for which frame. */
export interface WantedPiece extends PieceDemand {
  readonly frame: string
}

/** Everything that is cut of one wire or stock, for all frames together. */
export interface CutMaterial {
  readonly what: 'roll' | 'stock'
  readonly refId: string
  readonly pieces: readonly WantedPiece[]
  readonly onHand: readonly LengthOnHand[]
  readonly fromStores: readonly CutOnHand[]
  readonly rolls: readonly RollSize[]
  /**
   * What to cut from new ones; pieces as indices into `pieces`. `null` where one is longer than all on sale.
   */
  readonly cutting: CuttingPlan | null
}

export interface ShoppingLine {
  readonly item: MaterialItem
  /** Needed by all frames together; for what is cut, the number bought. */
  readonly need: number
  readonly onHand: number
}

export interface ShoppingList {
  /** What to buy, less what is on hand; lines of which nothing is bought are kept, so that one sees why. */
  readonly lines: readonly ShoppingLine[]
  readonly cost: number
  readonly cut: readonly CutMaterial[]
}

/**
 * Everything that these frames need, less what is on hand, and how to cut it from stores and from what is
 * bought.
 */
export function shoppingList(
  frames: readonly WantedFrame[],
  stores: readonly InStores[],
  catalogue: Catalogue,
): ShoppingList {
  const cut = cutMaterials(frames, stores, catalogue)
  const lines = [
    ...cut.flatMap((material) => linesOfCut(material)),
    ...countedLines(frames, stores, catalogue),
  ]
  return { lines, cost: lines.reduce((sum, line) => sum + line.item.price, 0), cut }
}

interface Gathered {
  readonly what: 'roll' | 'stock'
  readonly refId: string
  readonly pieces: WantedPiece[]
  rolls: readonly RollSize[]
}

function cutMaterials(
  frames: readonly WantedFrame[],
  stores: readonly InStores[],
  catalogue: Catalogue,
): CutMaterial[] {
  const gathered = new Map<string, Gathered>()
  const gather = (what: 'roll' | 'stock', refId: string, rolls: readonly RollSize[]): Gathered => {
    const key = `${what} ${refId}`
    const known = gathered.get(key)
    if (known) return known
    const fresh: Gathered = { what, refId, pieces: [], rolls }
    gathered.set(key, fresh)
    return fresh
  }
  for (const { name, plan } of frames) {
    const { repeat } = plan
    for (const { wire, choice, stringing } of plan.wires)
      for (const [lengthM, quantity] of byLength((stringing?.pieces ?? []).map((piece) => piece.cutLengthM)))
        gather('roll', wire.id, choice.rolls).pieces.push({
          lengthM,
          quantity: quantity * repeat,
          frame: name,
        })
    for (const { stock, lengthsM } of plan.stock)
      for (const [lengthM, quantity] of byLength(lengthsM))
        gather('stock', stock.id, stock.lengths).pieces.push({
          lengthM,
          quantity: quantity * repeat,
          frame: name,
        })
  }
  return [...gathered.values()].map(({ what, refId, pieces, rolls }) => {
    const sale = what === 'roll' ? (catalogue.wires.find((wire) => wire.id === refId)?.rolls ?? rolls) : rolls
    const onHand = stores.flatMap((one) =>
      one.what === what && one.refId === refId && one.lengthM !== null
        ? [{ lengthM: one.lengthM, quantity: one.quantity }]
        : [],
    )
    const { cut: fromStores, rest } = cutFromStores(pieces, onHand)
    return { what, refId, pieces, onHand, fromStores, rolls: sale, cutting: tryCut(rest, sale) }
  })
}

function tryCut(rest: readonly PieceDemand[], rolls: readonly RollSize[]): CuttingPlan | null {
  try {
    return cutFromRolls(rest, rolls)
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

/** To the millimetre, rounded up: nobody cuts finer, and equal pieces count together. */
function byLength(lengthsM: readonly number[]): [number, number][] {
  const counts = new Map<number, number>()
  for (const lengthM of lengthsM) {
    const mm = Math.ceil(lengthM * 1000 - 1e-6)
    counts.set(mm, (counts.get(mm) ?? 0) + 1)
  }
  return [...counts].map(([mm, count]) => [mm / 1000, count])
}

function linesOfCut({ what, refId, rolls, cutting, fromStores }: CutMaterial): ShoppingLine[] {
  const bought = rolls.flatMap((roll, size): ShoppingLine[] => {
    const quantity = cutting?.rolls.filter((cut) => cut.size === size).length ?? 0
    if (quantity === 0) return []
    const price = quantity * (roll.price ?? 0)
    const head = { lengthM: roll.lengthM, quantity, price }
    return [
      {
        item: what === 'roll' ? { what, wireId: refId, ...head } : { what, stockId: refId, ...head },
        need: quantity,
        onHand: fromStores.length,
      },
    ]
  })
  if (bought.length > 0 || fromStores.length === 0) return bought
  const nothing = { lengthM: rolls[0]?.lengthM ?? 0, quantity: 0, price: 0 }
  return [
    {
      item: what === 'roll' ? { what, wireId: refId, ...nothing } : { what, stockId: refId, ...nothing },
      need: 0,
      onHand: fromStores.length,
    },
  ]
}

type Counted = Extract<MaterialItem, { what: 'fixing' | 'screw' | 'good' }>
const refOf = (item: Counted) =>
  item.what === 'fixing' ? item.fixingId : item.what === 'screw' ? item.screwId : item.goodId

function countedLines(
  frames: readonly WantedFrame[],
  stores: readonly InStores[],
  catalogue: Catalogue,
): ShoppingLine[] {
  const needs = new Map<string, { item: Counted; need: number }>()
  for (const { plan } of frames) {
    for (const item of plan.takeOff?.items ?? []) {
      if (item.what === 'roll' || item.what === 'stock') continue
      const key = `${item.what} ${refOf(item)}`
      const before = needs.get(key)?.need ?? 0
      const isShared = item.what === 'good' && sharedTools.has(item.goodId)
      const need = isShared ? Math.max(before, item.quantity) : before + item.quantity
      needs.set(key, { item, need })
    }
  }
  return [...needs.values()].map(({ item, need }) => {
    const onHand = stores.reduce(
      (sum, one) => (one.what === item.what && one.refId === refOf(item) ? sum + one.quantity : sum),
      0,
    )
    const quantity = Math.max(0, Math.round((need - onHand) * 10) / 10)
    return { item: { ...item, quantity, price: quantity * unitPrice(item, catalogue) }, need, onHand }
  })
}

function unitPrice(item: Counted, catalogue: Catalogue): number {
  switch (item.what) {
    case 'fixing':
      return catalogue.fixings.find((one) => one.id === item.fixingId)?.price ?? 0
    case 'screw':
      return catalogue.screws.find((one) => one.id === item.screwId)?.price ?? 0
    case 'good':
      return priceOf(catalogue, item.goodId)
  }
}
