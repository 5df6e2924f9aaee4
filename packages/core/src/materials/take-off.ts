import { plugPrice, strainer } from './catalogue.ts'
import type { Fixing, Surface } from './catalogue.ts'
import type { Frame, Wall } from '../frame/index.ts'
import type { StringingPlan } from '../stringing/index.ts'
import type { CuttingPlan, RollSize } from './rolls.ts'

export type MaterialItem =
  | { readonly what: 'roll'; readonly lengthM: number; readonly quantity: number; readonly price: number }
  | { readonly what: 'fixing' | 'plug' | 'strainer'; readonly quantity: number; readonly price: number }

/** Cautions at the step where the harm can happen; words are in the translation files. */
export type Caution = 'eye-protection' | 'hidden-services' | 'drilling-dust' | 'ladder' | 'own-wall'

export interface TakeOff {
  /** Price is for the whole quantity. */
  readonly items: readonly MaterialItem[]
  readonly cost: number
  readonly drill: { readonly plugMm: number | null; readonly bitMm: number }
  readonly minutes: { readonly marking: number; readonly drilling: number; readonly stringing: number }
  readonly cautions: readonly Caution[]
}

/** Work rates of one practised person, minutes: a start that every garden will correct. */
const MINUTES = { markNode: 1.5, drillMasonry: 6, drillWood: 3, stringMetre: 1, endPiece: 4 } as const
const LADDER_FROM_M = 1.8

const isMasonry = (surface: Surface) => surface === 'brick' || surface === 'render' || surface === 'concrete'

/** Materials, cost and hours counted off the frame's own nodes and pieces, so that bill and drawing cannot differ. */
export function takeOff(input: {
  frame: Frame
  stringing: StringingPlan | null
  cutting: CuttingPlan | null
  rolls: readonly RollSize[]
  fixing: Fixing
  surface: Surface
  wall: Wall
}): TakeOff {
  const { frame, stringing, cutting, rolls, fixing, surface } = input
  const nodes = frame.nodes.length
  const masonry = isMasonry(surface)
  const pieces = stringing?.pieces.length ?? 0
  const items: MaterialItem[] = rolls.flatMap((roll, size) => {
    const quantity = cutting?.rolls.filter((cut) => cut.size === size).length ?? 0
    const price = quantity * (roll.price ?? 0)
    return quantity === 0 ? [] : [{ what: 'roll' as const, lengthM: roll.lengthM, quantity, price }]
  })
  items.push({ what: 'fixing', quantity: nodes, price: nodes * fixing.price })
  if (masonry) items.push({ what: 'plug', quantity: nodes, price: nodes * plugPrice })
  // One strainer a piece: without one there is no taking up what heat and time let out.
  if (pieces > 0) items.push({ what: 'strainer', quantity: pieces, price: pieces * strainer.price })
  const topM = frame.nodes.reduce((top, node) => Math.max(top, node.at.yM), 0)
  const cautions: Caution[] = ['eye-protection', 'hidden-services']
  if (masonry) cautions.push('drilling-dust')
  if (topM > LADDER_FROM_M) cautions.push('ladder')
  cautions.push('own-wall')
  return {
    items,
    cost: items.reduce((sum, item) => sum + item.price, 0),
    drill: { plugMm: masonry ? fixing.plugMm : null, bitMm: masonry ? fixing.plugMm : fixing.woodPilotMm },
    minutes: {
      marking: nodes * MINUTES.markNode,
      drilling: nodes * (masonry ? MINUTES.drillMasonry : MINUTES.drillWood),
      stringing: (stringing?.cutLengthM ?? 0) * MINUTES.stringMetre + pieces * MINUTES.endPiece,
    },
    cautions,
  }
}
