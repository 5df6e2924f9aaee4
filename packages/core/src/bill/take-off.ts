import type { StrungWire } from './wires.ts'
import { endingOf, findStock, goodOf, isMasonry, isString, priceOf } from '../catalogue/index.ts'
import type { Catalogue, Fixing, GoodId, Surface, WireEnding } from '../catalogue/index.ts'
import { FOOT_M } from '../ground/index.ts'
import type { StockPlan } from './stock-cuts.ts'
import { isPost } from '../frame/index.ts'
import type { Frame } from '../frame/index.ts'

export type MaterialItem =
  | {
      readonly what: 'roll'
      readonly wireId: string
      readonly lengthM: number
      readonly quantity: number
      readonly price: number
    }
  | {
      readonly what: 'stock'
      readonly stockId: string
      readonly lengthM: number
      readonly quantity: number
      readonly price: number
    }
  | { readonly what: 'fixing'; readonly fixingId: string; readonly quantity: number; readonly price: number }
  | { readonly what: 'screw'; readonly screwId: string; readonly quantity: number; readonly price: number }
  | { readonly what: 'good'; readonly goodId: GoodId; readonly quantity: number; readonly price: number }

/** Cautions at the step where the harm can happen; words are in the translation files. */
export const cautions = [
  'eye-protection',
  'hidden-services',
  'drilling-dust',
  'old-surfaces',
  'ladder',
  'own-wall',
  'buried-services',
  'overhead-lines',
  'head-high',
  'auger-kick',
  'heavy',
  'over-people',
  'cover-loads',
  'tall-ends',
  'cane-tips',
  'cement',
  'plastic-dust',
  'bare-mesh',
] as const
export type Caution = (typeof cautions)[number]
export const stepKinds = ['mark', 'drill', 'dig', 'drive', 'build', 'string', 'cover', 'fill'] as const
export type StepKind = (typeof stepKinds)[number]
export const tools = [
  'tape',
  'level',
  'string-line',
  'drill',
  'bit',
  'bar',
  'pliers',
  'cutter',
  'spade',
  'auger',
  'tamper',
  'torque-bar',
  'saw',
  'spanner',
  'knife',
  'pegs',
  'pencil',
] as const
export type Tool = (typeof tools)[number]
export const gear = ['goggles', 'gloves', 'dust-mask', 'boots', 'ear-defenders', 'helper'] as const
export type Gear = (typeof gear)[number]
/** One step of the work, in order: how long, with what, in what, minding what. */
export interface WorkStep {
  readonly kind: StepKind
  readonly minutes: number
  readonly tools: readonly Tool[]
  readonly gear: readonly Gear[]
  readonly cautions: readonly Caution[]
}

export interface TakeOff {
  /** Price is for the whole quantity, all repeats included. */
  readonly items: readonly MaterialItem[]
  readonly cost: number
  readonly drill: { readonly plugMm: number | null; readonly bitMm: number } | null
  readonly steps: readonly WorkStep[]
  readonly minutes: number
  readonly cautions: readonly Caution[]
}

/** A hoop lower than a head stands over nobody. */
const HEAD_M = 1.6
const LADDER_FROM_M = 1.8
/** Clips along a seam of the cover. */
const CLIP_STEP_M = 0.5
/** Cover and mesh are bought with this much over, for edges turned in. */
const SHEET_ALLOWANCE = 1.05
const POST_IN_HOLE_M = 0.1

export interface TakeOffInput {
  readonly frame: Frame
  readonly wires: readonly StrungWire[]
  readonly stock: readonly StockPlan[]
  readonly fixing: Fixing
  readonly surface: Surface
  readonly catalogue: Catalogue
  readonly repeat: number
  /** How wires are made off; `null` for what is usual for each. */
  readonly wireEnding: WireEnding | null
  /** On each piece of strained wire. */
  readonly strainers: number
}

/** Materials, cost and work counted off the frame's own parts, so that bill and drawing cannot differ. */
export function takeOff(input: TakeOffInput): TakeOff {
  const items = [...cutItems(input), ...fixingItems(input), ...goodItems(input)]
  const { fixing, surface, frame } = input
  const hasEyes = frame.nodes.some((node) => node.joint === 'eye')
  const masonry = isMasonry(surface)
  const steps = workSteps(input)
  return {
    items,
    cost: items.reduce((sum, item) => sum + item.price, 0),
    drill:
      hasEyes && !fixing.stick
        ? { plugMm: masonry ? fixing.plugMm : null, bitMm: masonry ? fixing.plugMm : fixing.woodPilotMm }
        : null,
    steps,
    minutes: steps.reduce((sum, step) => sum + step.minutes, 0),
    cautions: [...new Set(steps.flatMap((step) => step.cautions))],
  }
}

/** Wire from rolls, posts and bars from lengths: what their cutting plans take. */
function cutItems({ wires, stock }: TakeOffInput): MaterialItem[] {
  const items: MaterialItem[] = []
  for (const { wire, choice, cutting } of wires) {
    choice.rolls.forEach((roll, size) => {
      const quantity = cutting?.rolls.filter((cut) => cut.size === size).length ?? 0
      if (quantity > 0)
        items.push({
          what: 'roll',
          wireId: wire.id,
          lengthM: roll.lengthM,
          quantity,
          price: quantity * (roll.price ?? 0),
        })
    })
  }
  for (const { stock: of, cutting } of stock) {
    of.lengths.forEach((length, size) => {
      const quantity = cutting.rolls.filter((cut) => cut.size === size).length
      if (quantity > 0)
        items.push({
          what: 'stock',
          stockId: of.id,
          lengthM: length.lengthM,
          quantity,
          price: quantity * length.price,
        })
    })
  }
  return items
}

function fixingItems({ frame, fixing, catalogue, repeat }: TakeOffInput): MaterialItem[] {
  const items: MaterialItem[] = []
  const eyes = jointCount(frame, 'eye') * repeat
  if (eyes > 0)
    items.push({ what: 'fixing', fixingId: fixing.id, quantity: eyes, price: eyes * fixing.price })
  for (const screw of catalogue.screws) {
    const quantity = frame.anchors.filter((anchor) => anchor.screwId === screw.id).length * repeat
    if (quantity > 0)
      items.push({ what: 'screw', screwId: screw.id, quantity, price: quantity * screw.price })
  }
  return items
}

function goodItems({
  frame,
  wires,
  fixing,
  surface,
  catalogue,
  repeat,
  wireEnding,
  strainers,
}: TakeOffInput): MaterialItem[] {
  const goods = new Map<GoodId, number>()
  const add = (goodId: GoodId, quantity: number) => {
    if (quantity > 0) goods.set(goodId, (goods.get(goodId) ?? 0) + quantity * repeat)
  }
  if (isMasonry(surface) && !fixing.stick) add('plug', jointCount(frame, 'eye'))
  // Without a strainer there is no taking up what heat and time let out.
  for (const { wire, stringing } of wires) {
    if (isString(wire)) continue
    const pieces = stringing?.pieces.length ?? 0
    add('strainer', strainers * pieces)
    const perEnd = FITTINGS_AN_END[endingOf(wire, wireEnding)]
    if (perEnd) add(perEnd.good, 2 * pieces * perEnd.quantity)
  }
  // Staples go into wood; on steel a wire is clipped.
  const onSteel = staplesOnSteel(frame, catalogue)
  add('staple', jointCount(frame, 'staple') - onSteel)
  add('post-clip', onSteel)
  add('lashing', jointCount(frame, 'lashing'))
  add('bolt', jointCount(frame, 'bolt'))
  for (const sheet of frame.sheets) {
    add(sheet.good, sheet.areaM2 * SHEET_ALLOWANCE)
    add('clip', Math.ceil(sheet.seamM / CLIP_STEP_M))
  }
  for (const { good, isThere } of frame.units) if (!isThere) add(good, 1)
  for (const fill of frame.fills) add(fill.good, fill.litres)
  add('concrete', concreteLitres(frame))
  add('post-base', frame.anchors.filter((anchor) => anchor.head === 'flange').length)
  addWater()
  // One bit drills all holes of a job, and no more than so many before it is blunt.
  const holes = isMasonry(surface) && !fixing.stick ? jointCount(frame, 'eye') * repeat : 0
  if (holes > 0) goods.set('masonry-bit', Math.ceil(holes / HOLES_A_BIT))
  // One for them all: it turns the screws with the auger's motor.
  if (frame.anchors.length * repeat >= SCREWS_BY_HAND) goods.set('drive-adapter', 1)
  return [...goods].map(([goodId, exact]) => {
    const unit = goodOf(catalogue, goodId)?.unit
    const quantity = unit === 'square-metre' ? Math.ceil(exact * 10 - 1e-6) / 10 : Math.ceil(exact - 1e-6)
    return { what: 'good', goodId, quantity, price: quantity * priceOf(catalogue, goodId) }
  })

  /** A row's own line of water: pipe, and at its head what makes it drip evenly and can shut it off. */
  function addWater(): void {
    const pipeM = frame.runs.reduce((sum, run) => (run.line.role === 'water' ? sum + run.lengthM : sum), 0)
    if (pipeM === 0) return
    add('water-pipe', pipeM * PIPE_ALLOWANCE)
    for (const good of ['riser', 'water-filter', 'pressure-regulator', 'valve'] as const) add(good, 1)
  }
}

/** Three clips or two sleeves at each end of a piece (EN 13411); a wrap or knot takes nothing but wire. */
const FITTINGS_AN_END: Readonly<Partial<Record<WireEnding, { good: GoodId; quantity: number }>>> = {
  clip: { good: 'wire-clip', quantity: 3 },
  crimp: { good: 'sleeve', quantity: 2 },
}
const HOLES_A_BIT = 100
/** More screws than this nobody turns in by hand. */
const SCREWS_BY_HAND = 5
/** Pipe lies a little slack and goes down to its riser. */
const PIPE_ALLOWANCE = 1.03

/** Wires that are held to posts of steel. */
function staplesOnSteel(frame: Frame, catalogue: Catalogue): number {
  const steel = frame.members.filter(
    ({ role, stockId }) => isPost(role) && findStock(catalogue, stockId)?.material === 'steel',
  )
  if (steel.length === 0) return 0
  return frame.nodes.filter(
    ({ joint, at }) =>
      joint === 'staple' &&
      steel.some(({ foot, path }) => Math.abs((foot ?? path[0]!).xM - at.xM) < ON_POST_M),
  ).length
}
const ON_POST_M = 0.05

function jointCount(frame: Frame, joint: Frame['nodes'][number]['joint']): number {
  return frame.nodes.reduce((sum, node) => sum + (node.joint === joint ? 1 : 0), 0)
}

/**
 * Posts under a roof or cover are set in concrete, in a hole bored for them; those of rows are tamped in.
 * Litres.
 */
export function concreteLitres(frame: Frame): number {
  const perMetre = (Math.PI / 4) * (FOOT_M ** 2 - POST_IN_HOLE_M ** 2) * 1000
  return frame.members.reduce((sum, m) => sum + (m.role === 'post' ? m.buriedM * perMetre : 0), 0)
}

function workSteps({ frame, wires, stock, fixing, surface, catalogue, repeat }: TakeOffInput): WorkStep[] {
  const { rates } = catalogue
  const masonry = isMasonry(surface)
  const isStuckOn = Boolean(fixing.stick)
  const eyes = jointCount(frame, 'eye')
  const bolts = jointCount(frame, 'bolt')
  const inGround = frame.members.filter((member) => member.foot !== null && member.buriedM > 0)
  const posts = inGround.filter((member) => isPost(member.role)).length
  const isHigh = topOf(frame) > LADDER_FROM_M
  const isTall = topOf(frame) > HEAD_M
  const isWound = wires.every((one) => isString(one.wire))
  const steps: WorkStep[] = []
  const add = (
    kind: StepKind,
    minutes: number,
    tools: Tool[],
    gear: Gear[],
    cautions: (Caution | false)[],
  ) => {
    if (minutes > 0)
      steps.push({
        kind,
        minutes: minutes * repeat,
        tools,
        gear,
        cautions: cautions.filter((c) => c !== false),
      })
  }
  const marks = eyes + frame.members.filter((m) => m.foot && m.label).length + frame.anchors.length
  add(
    'mark',
    marks * rates.markNode,
    eyes > 0
      ? ['tape', 'level', 'string-line']
      : frame.units.some(({ good }) => good === 'pot' || good === 'tub')
        ? ['tape', 'pencil']
        : ['tape', 'pegs', 'string-line'],
    [],
    [],
  )
  add(
    'drill',
    (isStuckOn ? 0 : eyes) * (masonry ? rates.drillMasonry : rates.drillWood),
    ['drill', 'bit', 'bar'],
    masonry ? ['goggles', 'gloves', 'dust-mask', 'ear-defenders'] : ['goggles', 'gloves'],
    ['hidden-services', 'old-surfaces', masonry && 'drilling-dust', isHigh && 'ladder', 'own-wall'],
  )
  add(
    'dig',
    posts * rates.setPost,
    ['spade', 'auger', 'tamper', 'level'],
    ['gloves', 'boots', 'goggles', 'helper'],
    [
      'buried-services',
      isTall && 'overhead-lines',
      'auger-kick',
      'heavy',
      concreteLitres(frame) > 0 && 'cement',
    ],
  )
  add(
    'drive',
    frame.anchors.length * rates.driveScrew,
    ['torque-bar'],
    ['gloves', 'boots', 'helper'],
    ['buried-services', 'auger-kick'],
  )
  const cuts = stock.reduce((sum, plan) => sum + plan.pieces, 0)
  add(
    'build',
    cuts * rates.cutMember +
      (jointCount(frame, 'lashing') + bolts) * rates.makeJoint +
      (inGround.length - posts) * rates.pushStake,
    bolts > 0 ? ['saw', 'tape', 'spanner'] : ['saw', 'tape'],
    ['gloves', 'goggles'],
    [
      isHigh && 'ladder',
      isOverPeople(frame) && 'over-people',
      inGround.some((m) => m.role === 'stake' || m.role === 'twig' || m.role === 'leg') && 'cane-tips',
      stock.some((plan) => plan.stock.material === 'plastic') && 'plastic-dust',
      frame.traits.touchesFlesh && 'bare-mesh',
    ],
  )
  const wireM = wires.reduce((sum, one) => sum + (one.stringing?.cutLengthM ?? 0), 0)
  const pieces = wires.reduce((sum, one) => sum + (one.stringing?.pieces.length ?? 0), 0)
  add(
    'string',
    wireM * rates.stringMetre + pieces * rates.endPiece,
    isWound ? ['knife'] : ['pliers', 'cutter', 'bar'],
    isWound ? [] : ['goggles', 'gloves'],
    isWound
      ? []
      : [
          'eye-protection',
          isHigh && 'ladder',
          frame.traits.stands === 'in-open' && isTall && 'head-high',
          frame.members.some((m) => m.role === 'end-post') && isHigh && 'tall-ends',
        ],
  )
  const coverM2 = frame.sheets.reduce((sum, sheet) => sum + sheet.areaM2, 0)
  add(
    'cover',
    coverM2 * rates.coverM2,
    ['knife', 'pliers'],
    ['gloves'],
    frame.traits.isCover ? ['cover-loads', 'ladder'] : [],
  )
  const litres = frame.fills.reduce((sum, fill) => sum + fill.litres, 0)
  add('fill', (litres / 10) * rates.fillTenLitres, [], ['gloves'], ['heavy'])
  return steps
}

function topOf(frame: Frame): number {
  let top = 0
  for (const node of frame.nodes) top = Math.max(top, node.at.yM)
  for (const member of frame.members) for (const p of member.path) top = Math.max(top, p.yM)
  return top
}

function isOverPeople(frame: Frame): boolean {
  const { isOverPeople: when } = frame.traits
  return when === 'always' || (when === 'when-tall' && topOf(frame) > HEAD_M)
}
