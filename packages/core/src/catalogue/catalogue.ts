import { standardStock } from './stock.ts'
import type { Stock } from './stock.ts'
import { standardWires } from './wire.ts'
import type { Wire } from './wire.ts'

/** What fixings go into; `open` where there is nothing but the ground. */
export const surfaces = [
  'brick',
  'render',
  'concrete',
  'boards',
  'posts',
  'studs',
  'steel',
  'tile',
  'glass',
  'open',
] as const
export type Surface = (typeof surfaces)[number]

/** A screw-in or plugged eye that holds a node. */
export interface Fixing {
  readonly id: string
  readonly name: string | null
  readonly threadMm: number
  /** Of its whole shank, from its tip to where the wire runs. */
  readonly lengthMm: number
  /** How far off the surface the wire runs, metres: air behind the leaves. */
  readonly standOffM: number
  /** Pilot in wood: smaller than the core of the thread. */
  readonly woodPilotMm: number
  /**
   * Plug and bit in masonry, and the plug's rated load with the distances at which it holds in full, from its
   * packet.
   */
  readonly plugMm: number
  readonly plugRatedN: number
  readonly plugFullSpacingM: number
  readonly plugFullEdgeM: number
  readonly price: number
  /**
   * For what is stuck on and not screwed in: its packet's load, on what it sticks, what is left of that in sun and
   * rain, and for how long.
   */
  readonly stick?: {
    readonly surfaces: readonly Surface[]
    readonly ratedN: number
    readonly outdoorShare: number
    readonly lifeYears: number
  } | null
}

/** Ground screws: an eye to tie back to, or a flange to set a post on. */
export interface ScrewOnOffer {
  readonly id: string
  readonly name: string | null
  readonly head: 'eye' | 'flange'
  readonly helixDiameterM: number
  readonly lengthM: number
  readonly torqueFactorPerM: number
  readonly price: number
}

/**
 * Everything that is bought by number, length, area or volume and has no figures of its own but its price.
 */
export type GoodId =
  | 'plug'
  | 'strainer'
  | 'staple'
  | 'lashing'
  | 'clip'
  | 'bolt'
  | 'post-base'
  | 'net'
  | 'mesh'
  | 'padding'
  | 'fibre-medium'
  | 'gravel'
  | 'concrete'
  | 'soil'
  | 'pole-module'
  | 'tub'
  | 'pot'
  | 'post-clip'
  | 'water-pipe'
  | 'riser'
  | 'water-filter'
  | 'pressure-regulator'
  | 'valve'
  | 'drive-adapter'
  | 'charcoal'
  | 'masonry-bit'
  | 'wire-clip'
  | 'sleeve'
export type GoodUnit = 'piece' | 'square-metre' | 'litre' | 'metre'

export interface Good {
  readonly id: GoodId
  readonly unit: GoodUnit
  readonly price: number
}

/** Minutes that one practised person takes: a start that every garden will correct. */
export interface WorkRates {
  readonly markNode: number
  readonly drillMasonry: number
  readonly drillWood: number
  readonly setPost: number
  readonly driveScrew: number
  readonly cutMember: number
  readonly makeJoint: number
  readonly pushStake: number
  readonly stringMetre: number
  readonly endPiece: number
  readonly coverM2: number
  readonly fillTenLitres: number
}

/**
 * What can be bought, with its figures and prices. Growers edit their own copy; every computation gets it as
 * an argument.
 */
export interface Catalogue {
  readonly wires: readonly Wire[]
  readonly fixings: readonly Fixing[]
  readonly stock: readonly Stock[]
  readonly screws: readonly ScrewOnOffer[]
  readonly goods: readonly Good[]
  /** Price of one tie of each material, by its id in the ties module. */
  readonly ties: readonly { readonly id: string; readonly price: number }[]
  readonly rates: WorkRates
}

const eye = (
  lengthMm: number,
  threadMm: number,
  standOffM: number,
  woodPilotMm: number,
  plugMm: number,
  plugRatedN: number,
  price: number,
): Fixing => ({
  id: `eye-${lengthMm}`,
  name: null,
  threadMm,
  lengthMm,
  standOffM,
  woodPilotMm,
  plugMm,
  plugRatedN,
  plugFullSpacingM: plugMm / 100,
  plugFullEdgeM: plugMm / 100,
  price,
})

/** A pad with a hook for faces that are not drilled: tile, glass, smooth steel and sound paint. */
const stickOn = (id: string, ratedN: number, price: number): Fixing => ({
  ...eye(20, 3, 0.01, 2, 4, ratedN, price),
  id,
  stick: { surfaces: ['tile', 'glass', 'steel'], ratedN, outdoorShare: 0.4, lifeYears: 3 },
})

const good = (id: GoodId, unit: GoodUnit, price: number): Good => ({ id, unit, price })

/** What a tie of ordinary length costs. */
export const standardTies: Catalogue['ties'] = [
  { id: 'soft-jute', price: 0.02 },
  { id: 'coir', price: 0.03 },
  { id: 'raffia', price: 0.02 },
  { id: 'stretch-tape', price: 0.04 },
  { id: 'rubber-coated-wire', price: 0.25 },
  { id: 'cloth-strip', price: 0.01 },
  { id: 'padded-hose', price: 0.6 },
  { id: 'hook-and-loop', price: 0.15 },
]

export const standardCatalogue: Catalogue = {
  wires: standardWires,
  fixings: [
    eye(60, 5, 0.03, 3.5, 8, 500, 0.9),
    eye(100, 6, 0.05, 4, 8, 600, 1.4),
    // Short and stout: what the wires of a wall end at.
    eye(130, 10, 0.05, 7, 12, 1400, 3.2),
    eye(140, 12, 0.055, 9, 14, 2000, 5.6),
    eye(150, 8, 0.1, 5.5, 10, 900, 2.3),
    eye(200, 10, 0.12, 7, 12, 1400, 4.2),
    stickOn('hook-stick-40', 30, 1.6),
    stickOn('hook-stick-80', 80, 3.4),
  ],
  stock: standardStock,
  screws: [
    {
      id: 'screw-eye-800',
      name: null,
      head: 'eye',
      helixDiameterM: 0.1,
      lengthM: 0.8,
      torqueFactorPerM: 33,
      price: 14,
    },
    {
      id: 'screw-eye-1200',
      name: null,
      head: 'eye',
      helixDiameterM: 0.15,
      lengthM: 1.2,
      torqueFactorPerM: 33,
      price: 24,
    },
    {
      id: 'screw-eye-1600',
      name: null,
      head: 'eye',
      helixDiameterM: 0.2,
      lengthM: 1.6,
      torqueFactorPerM: 29,
      price: 42,
    },
    {
      id: 'screw-flange-900',
      name: null,
      head: 'flange',
      helixDiameterM: 0.12,
      lengthM: 0.9,
      torqueFactorPerM: 26,
      price: 28,
    },
    {
      id: 'screw-flange-1400',
      name: null,
      head: 'flange',
      helixDiameterM: 0.2,
      lengthM: 1.4,
      torqueFactorPerM: 26,
      price: 52,
    },
  ],
  goods: [
    good('plug', 'piece', 0.12),
    good('strainer', 'piece', 3.2),
    good('staple', 'piece', 0.05),
    good('lashing', 'piece', 0.06),
    good('clip', 'piece', 0.2),
    good('bolt', 'piece', 0.9),
    good('post-base', 'piece', 7.5),
    good('net', 'square-metre', 1.6),
    good('mesh', 'square-metre', 6),
    good('padding', 'square-metre', 4),
    good('fibre-medium', 'litre', 0.6),
    good('gravel', 'litre', 0.12),
    good('concrete', 'litre', 0.22),
    good('soil', 'litre', 0.15),
    good('pole-module', 'piece', 6.5),
    good('tub', 'piece', 45),
    good('pot', 'piece', 6),
    good('post-clip', 'piece', 0.3),
    good('water-pipe', 'metre', 0.7),
    good('riser', 'piece', 4.5),
    good('water-filter', 'piece', 14),
    good('pressure-regulator', 'piece', 11),
    good('valve', 'piece', 6),
    good('drive-adapter', 'piece', 32),
    good('charcoal', 'litre', 0.9),
    good('masonry-bit', 'piece', 5),
    good('wire-clip', 'piece', 0.5),
    good('sleeve', 'piece', 0.15),
  ],
  ties: standardTies,
  rates: {
    markNode: 1.5,
    drillMasonry: 6,
    drillWood: 3,
    setPost: 25,
    driveScrew: 12,
    cutMember: 2,
    makeJoint: 1,
    pushStake: 1.5,
    stringMetre: 1,
    endPiece: 4,
    coverM2: 0.6,
    fillTenLitres: 2,
  },
}

/** Turns a strainer can take up, metres, from fully open. */
export const STRAINER_TRAVEL_M = 0.11
export const MOST_STRAINERS = 4

const find = <T extends { readonly id: string }>(list: readonly T[], id: string): T | undefined =>
  list.find((item) => item.id === id)
export const findWire = (catalogue: Catalogue, id: string): Wire | undefined => find(catalogue.wires, id)
export const findFixing = (catalogue: Catalogue, id: string): Fixing | undefined =>
  find(catalogue.fixings, id)
export const findStock = (catalogue: Catalogue, id: string): Stock | undefined => find(catalogue.stock, id)
export const findScrew = (catalogue: Catalogue, id: string): ScrewOnOffer | undefined =>
  find(catalogue.screws, id)
/** Tools that one job leaves for the next: what frames share of them is bought once. */
export const sharedTools: ReadonlySet<GoodId> = new Set<GoodId>(['drive-adapter', 'masonry-bit'])

/** A catalogue of a garden's own from before there was this good has no price for it: then the usual one. */
export const priceOf = (catalogue: Catalogue, id: GoodId): number => goodOf(catalogue, id)?.price ?? 0
export const goodOf = (catalogue: Catalogue, id: GoodId): Good | undefined =>
  find(catalogue.goods, id) ?? find(standardCatalogue.goods, id)

export const isMasonry = (surface: Surface): boolean => holdsBy(surface) === 'plug'

/**
 * How a surface holds an eye: by a plug, by the eye's thread in wood, or in no way that the figures of an eye
 * tell: steel wants a rated fixing, tile and glass are not drilled, and in the open there is nothing to screw
 * into.
 */
export function holdsBy(surface: Surface): 'plug' | 'thread' | 'unknown' {
  switch (surface) {
    case 'brick':
    case 'render':
    case 'concrete':
      return 'plug'
    case 'boards':
    case 'posts':
    case 'studs':
      return 'thread'
    case 'steel':
    case 'tile':
    case 'glass':
    case 'open':
      return 'unknown'
  }
}
