import { bendingMomentNm, findScrew, findStock, findWire, isString, stockWidthM } from '../catalogue/index.ts'
import type { Catalogue, ScrewOnOffer, Stock, Wire } from '../catalogue/index.ts'
import type { FrameDesign, WireChoice } from '../design/index.ts'
import { kindOf } from '../frame/index.ts'
import type { CheckCode, Field, Pattern, Pot, RowPattern } from '../frame/index.ts'

/** What of a design can be changed so that a check holds; each has its words in the translations. */
export const levers = [
  'tension',
  'light-tension',
  'wire',
  'light-wire',
  'fixing',
  'supports-closer',
  'posts-closer',
  'bays-shorter',
  'rafters-closer',
  'anchors-closer-along',
  'anchors-closer-across',
  'posts-deeper',
  'ends-deeper',
  'deeper',
  'post-stock',
  'end-stock',
  'beam-stock',
  'leg-stock',
  'brace-stock',
  'screw',
  'screws-in-line',
  'tie-higher',
  'tie-flatter',
  'tie-back',
  'brace',
  'more-legs',
  'lower',
  'wider-pot',
  'ballast',
  'smaller-cells',
  'larger-cells',
] as const
export type Lever = (typeof levers)[number]

/** From what, or to what, a lever moves: a length, a pull, a number, an angle, or a thing of the catalogue. */
export type LeverValue =
  | { readonly is: 'length'; readonly m: number }
  | { readonly is: 'mass'; readonly kg: number }
  | { readonly is: 'force'; readonly N: number }
  | { readonly is: 'count'; readonly n: number }
  | { readonly is: 'screws'; readonly id: string; readonly n: number }
  | { readonly is: 'angle'; readonly deg: number }
  | { readonly is: 'wire' | 'fixing' | 'stock' | 'screw'; readonly id: string }

/** One change of a design along one lever. */
export interface LeverStep {
  readonly lever: Lever
  /** `null` where it changes what the thing is and not how much of it. */
  readonly from: LeverValue | null
  readonly to: LeverValue | null
  readonly design: FrameDesign
}

/** The steps in which a grower measures, so that what is proposed can be set out with a tape. */
export interface Grain {
  readonly depthM: number
  readonly spacingM: number
  readonly forceN: number
  readonly massKg: number
}
const INCH_M = 0.0254
const POUND_N = 4.4482216
const POUND_KG = 0.45359237
export const METRIC_GRAIN: Grain = { depthM: 0.05, spacingM: 0.1, forceN: 10, massKg: 5 }
export const INCH_GRAIN: Grain = {
  depthM: 2 * INCH_M,
  spacingM: 6 * INCH_M,
  forceN: 5 * POUND_N,
  massKg: 10 * POUND_KG,
}

interface Trying {
  readonly design: FrameDesign
  readonly catalogue: Catalogue
  readonly grain: Grain
}
type Tries = (trying: Trying) => LeverStep[]

/** Which levers can help a check, the most ordinary first. Whether one does is for the engine to say. */
export const leversOf: Readonly<Record<CheckCode, readonly Lever[]>> = {
  'wire-pull': [
    'tension',
    'light-tension',
    'wire',
    'light-wire',
    'supports-closer',
    'smaller-cells',
    'posts-closer',
    'anchors-closer-along',
    'anchors-closer-across',
  ],
  'wire-sag': [
    'tension',
    'light-tension',
    'supports-closer',
    'smaller-cells',
    'posts-closer',
    'wire',
    'light-wire',
    'anchors-closer-along',
    'anchors-closer-across',
    'fixing',
  ],
  'strainer-travel': ['tension', 'light-tension', 'wire', 'light-wire'],
  'fixing-pull': ['tension', 'fixing', 'supports-closer', 'smaller-cells', 'larger-cells', 'wire'],
  'anchor-pull': [
    'tie-higher',
    'tie-flatter',
    'screw',
    'screws-in-line',
    'tension',
    'light-tension',
    'posts-closer',
    'anchors-closer-along',
    'anchors-closer-across',
    'brace',
  ],
  'end-sideways': ['ends-deeper', 'tie-back', 'brace', 'end-stock', 'tension', 'light-tension'],
  'end-bending': ['end-stock', 'tie-back', 'brace', 'tension', 'light-tension'],
  'brace-foot': ['brace-stock', 'tie-higher', 'tie-flatter', 'tie-back', 'tension', 'light-tension'],
  'post-sideways': ['posts-deeper', 'post-stock', 'posts-closer', 'bays-shorter'],
  'post-frost': ['posts-deeper', 'deeper'],
  'post-bearing': ['bays-shorter', 'posts-closer'],
  'beam-bending': ['beam-stock', 'bays-shorter', 'rafters-closer'],
  'cover-uplift': ['screw', 'anchors-closer-along', 'anchors-closer-across'],
  'leg-bending': ['leg-stock', 'more-legs', 'lower'],
  'tub-tips': ['ballast', 'wider-pot', 'lower'],
}

/** Deepest hole and deepest leg that a grower digs or drives by hand, metres. */
const DEEPEST_M = 1.8
const WIDEST_POT_M = 1.2
const MOST_LEGS = 8
/** Slacker than that a wire is not the one that was wanted. */
const SHARES_DOWN = [0.9, 0.8, 0.7, 0.6, 0.5, 0.4]
const SHARES_UP = [1.1, 1.25, 1.5, 1.75, 2, 2.5, 3, 4]

const patternOf = (design: FrameDesign) => design.pattern as Pattern & Readonly<Record<string, unknown>>
const fieldsOf = (design: FrameDesign) => kindOf(design.pattern).fields as Readonly<Record<string, Field>>
const withField = (design: FrameDesign, key: string, value: unknown): FrameDesign => ({
  ...design,
  pattern: { ...design.pattern, [key]: value } as Pattern,
})

/** Lengths beyond what it is now, on the marks of the tape, as far as its field and `limitM` allow. */
function lengthTries(
  lever: Lever,
  keys: readonly string[],
  way: 'up' | 'down',
  grain: 'depthM' | 'spacingM',
  limitM: (nowM: number) => number,
): Tries {
  return ({ design, grain: grains }) =>
    keys.flatMap((key) => {
      const field = fieldsOf(design)[key]
      const nowM = patternOf(design)[key]
      if (field?.ask !== 'length' || typeof nowM !== 'number') return []
      const step = grains[grain]
      const [leastM, mostM] = [Math.max(field.minM, step), field.maxM]
      const end = limitM(nowM)
      const marks =
        way === 'up'
          ? stepsUp(Math.floor(nowM / step + 1e-6) + 1, Math.floor(Math.min(mostM, end) / step + 1e-6))
          : stepsUp(
              Math.ceil(Math.max(leastM, end) / step - 1e-6),
              Math.ceil(nowM / step - 1e-6) - 1,
            ).reverse()
      return marks.map((n) => {
        const m = Math.round(n * step * 1e6) / 1e6
        return {
          lever,
          from: { is: 'length', m: nowM },
          to: { is: 'length', m },
          design: withField(design, key, m),
        }
      })
    })
}

const stepsUp = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i)

/** Stouter pieces for the same use, those that bear least more first. */
function stockTries(lever: Lever, keys: readonly string[], stouter: (of: Stock) => number): Tries {
  return ({ design, catalogue }) =>
    keys.flatMap((key) => {
      const field = fieldsOf(design)[key]
      const now = findStock(catalogue, String(patternOf(design)[key]))
      if (field?.ask !== 'stock' || !now) return []
      return catalogue.stock
        .filter((one) => field.uses.includes(one.use) && stouter(one) > stouter(now))
        .sort((a, b) => stouter(a) - stouter(b))
        .map(({ id }) => ({
          lever,
          from: { is: 'stock', id: now.id } as const,
          to: { is: 'stock', id } as const,
          design: withField(design, key, id),
        }))
    })
}

const choiceOf = (design: FrameDesign, of: 'main' | 'light'): WireChoice | null =>
  of === 'main' ? design : design.light
const withChoice = (design: FrameDesign, of: 'main' | 'light', choice: Partial<WireChoice>): FrameDesign =>
  of === 'main' ? { ...design, ...choice } : { ...design, light: { ...design.light!, ...choice } }

/** Less pull and more, on round figures: what is nearer to how it is set now comes first. */
function tensionTries(lever: Lever, of: 'main' | 'light'): Tries {
  return ({ design, grain }) => {
    const now = choiceOf(design, of)?.tensionN
    if (now === undefined) return []
    const rounded = [...SHARES_DOWN, ...SHARES_UP]
      .map((share) => Math.max(1, Math.round((now * share) / grain.forceN)) * grain.forceN)
      .filter((N) => Math.abs(N - now) > 1e-6)
    return [...new Set(rounded)]
      .sort((a, b) => Math.abs(Math.log(a / now)) - Math.abs(Math.log(b / now)))
      .map((N) => ({
        lever,
        from: { is: 'force', N: now } as const,
        to: { is: 'force', N } as const,
        design: withChoice(design, of, { tensionN: N }),
      }))
  }
}

const workingLoadN = (wire: Wire) => wire.breakingLoadN * wire.workingShare

/** Stronger wires, those of the same stuff first; string is changed for string only. */
function wireTries(lever: Lever, of: 'main' | 'light'): Tries {
  return ({ design, catalogue }) => {
    const now = findWire(catalogue, choiceOf(design, of)?.wireId ?? '')
    if (!now) return []
    const isOther = (wire: Wire) => Number(wire.material !== now.material)
    return catalogue.wires
      .filter((wire) => workingLoadN(wire) > workingLoadN(now) && isString(wire) === isString(now))
      .sort((a, b) => isOther(a) - isOther(b) || workingLoadN(a) - workingLoadN(b))
      .map((wire) => ({
        lever,
        from: { is: 'wire', id: now.id } as const,
        to: { is: 'wire', id: wire.id } as const,
        design: withChoice(design, of, { wireId: wire.id, rolls: wire.rolls.map((roll) => ({ ...roll })) }),
      }))
  }
}

const fixingTries: Tries = ({ design, catalogue }) =>
  catalogue.fixings
    .filter(({ id }) => id !== design.fixingId)
    .sort((a, b) => a.price - b.price)
    .map(({ id }) => ({
      lever: 'fixing',
      from: { is: 'fixing', id: design.fixingId },
      to: { is: 'fixing', id },
      design: { ...design, fixingId: id },
    }))

/** Screws of the same head that go deeper or are wider, the least dear first. */
function strongerScrews(catalogue: Catalogue, nowId: string): readonly ScrewOnOffer[] {
  const now = findScrew(catalogue, nowId)
  const reach = (of: typeof now) => (of ? of.lengthM * of.helixDiameterM : 0)
  return catalogue.screws
    .filter((one) => one.head === (now?.head ?? 'eye') && reach(one) > reach(now))
    .sort((a, b) => a.price - b.price)
}

const screwTries: Tries = ({ design, catalogue }) => {
  const { pattern } = design
  const keys = pattern.kind === 'net' ? (['anchorScrewId'] as const) : []
  const tiedBack = pattern.kind === 'row' && pattern.end.kind === 'tied-back' ? pattern.end : null
  const step = (from: string, to: string, next: FrameDesign): LeverStep => ({
    lever: 'screw',
    from: { is: 'screw', id: from },
    to: { is: 'screw', id: to },
    design: next,
  })
  return [
    ...keys.flatMap((key) => {
      const now = String(patternOf(design)[key])
      return strongerScrews(catalogue, now).map(({ id }) => step(now, id, withField(design, key, id)))
    }),
    ...(tiedBack
      ? strongerScrews(catalogue, tiedBack.screwId).map(({ id }) =>
          step(tiedBack.screwId, id, withField(design, 'end', { ...tiedBack, screwId: id })),
        )
      : []),
  ]
}

/** What a row's tie or brace can do: be made off higher, run flatter. */
const tieHigherTries: Tries = ({ design, grain }) => {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.end.kind === 'free') return []
  const { end } = pattern
  const from = Math.floor(end.attachHeightM / grain.depthM + 1e-6) + 1
  return stepsUp(from, Math.floor(pattern.postHeightM / grain.depthM + 1e-6)).map((n) => {
    const m = Math.round(n * grain.depthM * 1e6) / 1e6
    return {
      lever: 'tie-higher',
      from: { is: 'length', m: end.attachHeightM },
      to: { is: 'length', m },
      design: withField(design, 'end', { ...end, attachHeightM: m }),
    }
  })
}

const FLATTEST_DEG = 30
const DEGREES_A_STEP = 5
const tieFlatterTries: Tries = ({ design }) => {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.end.kind === 'free') return []
  const { end } = pattern
  const count = Math.max(0, Math.ceil((end.angleDeg - FLATTEST_DEG) / DEGREES_A_STEP))
  return Array.from({ length: count }, (_, i) => {
    const deg = Math.max(FLATTEST_DEG, end.angleDeg - (i + 1) * DEGREES_A_STEP)
    return {
      lever: 'tie-flatter',
      from: { is: 'angle', deg: end.angleDeg },
      to: { is: 'angle', deg },
      design: withField(design, 'end', { ...end, angleDeg: deg }),
    }
  })
}

/** Share of the post's height at which an end is tied back or braced to begin with. */
const ATTACH_SHARE = 0.8
const ATTACH_DEG = 45

function otherEndTries(lever: 'tie-back' | 'brace'): Tries {
  return ({ design, catalogue }) => {
    const { pattern } = design
    const kind = lever === 'tie-back' ? 'tied-back' : 'braced'
    if (pattern.kind !== 'row' || pattern.end.kind === kind) return []
    const attachHeightM = Math.round(pattern.postHeightM * ATTACH_SHARE * 100) / 100
    const base = { attachHeightM, angleDeg: ATTACH_DEG }
    const ends: RowPattern['end'][] =
      kind === 'tied-back'
        ? catalogue.screws
            .filter(({ head }) => head === 'eye')
            .sort((a, b) => a.price - b.price)
            .map(({ id }) => ({ kind, ...base, screwId: id, inLine: 1 }))
        : [{ kind, ...base, stockId: pattern.postStockId }]
    return ends.map((end) => ({ lever, from: null, to: null, design: withField(design, 'end', end) }))
  }
}

const braceStockTries: Tries = ({ design, catalogue }) => {
  const { pattern } = design
  const now = pattern.kind === 'row' && pattern.end.kind === 'braced' ? pattern.end : null
  const stock = now && findStock(catalogue, now.stockId)
  if (!now || !stock) return []
  return catalogue.stock
    .filter((one) => one.use === 'post' && stockWidthM(one) > stockWidthM(stock))
    .sort((a, b) => stockWidthM(a) - stockWidthM(b))
    .map(({ id }) => ({
      lever: 'brace-stock',
      from: { is: 'stock', id: now.stockId },
      to: { is: 'stock', id },
      design: withField(design, 'end', { ...now, stockId: id }),
    }))
}

const moreLegsTries: Tries = ({ design }) =>
  ['legs', 'stakes', 'count', 'hoops'].flatMap((key) => {
    const field = fieldsOf(design)[key]
    const now = patternOf(design)[key]
    if (field?.ask !== 'whole' || typeof now !== 'number') return []
    if (kindOf(design.pattern).traits.stands !== 'on-legs') return []
    const most = Math.min(field.max, Math.max(MOST_LEGS, now + 2))
    return stepsUp(now + 1, most).map((n) => ({
      lever: 'more-legs' as const,
      from: { is: 'count', n: now } as const,
      to: { is: 'count', n } as const,
      design: withField(design, key, n),
    }))
  })

const widerPotTries: Tries = ({ design, grain }) =>
  ['pot', 'tub'].flatMap((key) => {
    const pot = patternOf(design)[key] as Pot | null | undefined
    if (!pot) return []
    const first = Math.floor(pot.widthM / grain.depthM + 1e-6) + 1
    return stepsUp(first, Math.floor(WIDEST_POT_M / grain.depthM + 1e-6)).map((n) => {
      const widthM = Math.round(n * grain.depthM * 1e6) / 1e6
      return {
        lever: 'wider-pot' as const,
        from: { is: 'length', m: pot.widthM } as const,
        to: { is: 'length', m: widthM } as const,
        design: withField(design, key, { ...pot, widthM }),
      }
    })
  })

const MOST_BALLAST_KG = 120
const ballastTries: Tries = ({ design, grain }) =>
  ['pot', 'tub'].flatMap((key) => {
    const pot = patternOf(design)[key] as Pot | null | undefined
    if (!pot) return []
    const first = Math.floor(pot.ballastKg / grain.massKg + 1e-6) + 1
    return stepsUp(first, Math.floor(MOST_BALLAST_KG / grain.massKg)).map((n) => ({
      lever: 'ballast' as const,
      from: { is: 'mass', kg: pot.ballastKg } as const,
      to: { is: 'mass', kg: n * grain.massKg } as const,
      design: withField(design, key, { ...pot, ballastKg: n * grain.massKg }),
    }))
  })

/** More screws one behind the other, of the same kind or of a stronger one: the least dear first. */
const inLineTries: Tries = ({ design, catalogue }) => {
  const { pattern } = design
  if (pattern.kind !== 'row' || pattern.end.kind !== 'tied-back') return []
  const { end } = pattern
  return [
    ...catalogue.screws.filter(({ id }) => id === end.screwId),
    ...strongerScrews(catalogue, end.screwId),
  ]
    .flatMap((screw) => stepsUp(end.inLine + 1, MOST_IN_LINE).map((n) => ({ screw, n })))
    .sort((a, b) => a.n * a.screw.price - b.n * b.screw.price)
    .map(({ screw, n }) => ({
      lever: 'screws-in-line',
      from: { is: 'screws', id: end.screwId, n: end.inLine },
      to: { is: 'screws', id: screw.id, n },
      design: withField(design, 'end', { ...end, screwId: screw.id, inLine: n }),
    }))
}

const MOST_IN_LINE = 4
const MOST_CELLS_MORE = 12

/** A lattice with cells of another size: by their width where that was asked for, else by their number. */
function cellTries(lever: 'smaller-cells' | 'larger-cells'): Tries {
  const isSmaller = lever === 'smaller-cells'
  return (trying) => {
    const { design } = trying
    const { pattern } = design
    const limit = (nowM: number) => (isSmaller ? nowM * 0.3 : nowM * 3)
    const byLength = (key: string) =>
      lengthTries(lever, [key], isSmaller ? 'down' : 'up', 'spacingM', limit)(trying)
    const byCount = (now: number, make: (n: number) => Pattern): LeverStep[] =>
      (isSmaller ? stepsUp(now + 1, now + MOST_CELLS_MORE) : stepsUp(1, now - 1).reverse()).map((n) => ({
        lever,
        from: { is: 'count', n: now },
        to: { is: 'count', n },
        design: { ...design, pattern: make(n) },
      }))
    switch (pattern.kind) {
      case 'zigzag':
        return byLength('strokeWidthM')
      case 'triangles':
        return byLength('baseM')
      case 'grid':
        return byCount(pattern.verticals, (verticals) => ({ ...pattern, verticals }))
      case 'diamonds':
        return cellsOfDiamonds(pattern, trying, isSmaller, byCount)
      default:
        return []
    }
  }
}

function cellsOfDiamonds(
  pattern: Extract<Pattern, { kind: 'diamonds' }>,
  { design, grain }: Trying,
  isSmaller: boolean,
  byCount: (now: number, make: (n: number) => Pattern) => LeverStep[],
): LeverStep[] {
  const { cell } = pattern
  if (cell.by === 'count') return byCount(cell.count, (count) => ({ ...pattern, cell: { ...cell, count } }))
  const step = grain.spacingM
  const marks = isSmaller
    ? stepsUp(Math.ceil((cell.widthM * 0.3) / step), Math.ceil(cell.widthM / step - 1e-6) - 1).reverse()
    : stepsUp(Math.floor(cell.widthM / step + 1e-6) + 1, Math.floor((cell.widthM * 3) / step))
  return marks.map((n) => {
    const widthM = Math.round(n * step * 1e6) / 1e6
    return {
      lever: isSmaller ? 'smaller-cells' : 'larger-cells',
      from: { is: 'length', m: cell.widthM },
      to: { is: 'length', m: widthM },
      design: { ...design, pattern: { ...pattern, cell: { ...cell, widthM } } },
    }
  })
}

const LEG_STOCKS = ['legStockId', 'stakeStockId', 'hoopStockId', 'coreStockId', 'columnStockId'] as const
const closer = (nowM: number) => nowM * 0.3
const deep = () => DEEPEST_M

export const triesOf: Readonly<Record<Lever, Tries>> = {
  tension: tensionTries('tension', 'main'),
  'light-tension': tensionTries('light-tension', 'light'),
  wire: wireTries('wire', 'main'),
  'light-wire': wireTries('light-wire', 'light'),
  fixing: fixingTries,
  'supports-closer': lengthTries('supports-closer', ['maxSupportSpacingM'], 'down', 'spacingM', closer),
  'posts-closer': lengthTries('posts-closer', ['maxPostSpacingM'], 'down', 'spacingM', closer),
  'bays-shorter': lengthTries('bays-shorter', ['maxBayM'], 'down', 'spacingM', closer),
  'rafters-closer': lengthTries('rafters-closer', ['maxRafterSpacingM'], 'down', 'depthM', closer),
  'anchors-closer-along': lengthTries(
    'anchors-closer-along',
    ['maxSpacingAlongM'],
    'down',
    'spacingM',
    closer,
  ),
  'anchors-closer-across': lengthTries(
    'anchors-closer-across',
    ['maxSpacingAcrossM'],
    'down',
    'spacingM',
    closer,
  ),
  'posts-deeper': lengthTries('posts-deeper', ['postBuriedM'], 'up', 'depthM', deep),
  'ends-deeper': lengthTries('ends-deeper', ['endBuriedM'], 'up', 'depthM', deep),
  deeper: lengthTries('deeper', ['buriedM'], 'up', 'depthM', deep),
  'post-stock': stockTries('post-stock', ['postStockId'], stockWidthM),
  'end-stock': stockTries('end-stock', ['endStockId'], bendingMomentNm),
  'beam-stock': stockTries('beam-stock', ['beamStockId'], bendingMomentNm),
  'leg-stock': stockTries('leg-stock', LEG_STOCKS, bendingMomentNm),
  'brace-stock': braceStockTries,
  screw: screwTries,
  'tie-higher': tieHigherTries,
  'tie-flatter': tieFlatterTries,
  'tie-back': otherEndTries('tie-back'),
  brace: otherEndTries('brace'),
  'more-legs': moreLegsTries,
  lower: lengthTries('lower', ['heightM'], 'down', 'spacingM', (nowM) => nowM * 0.5),
  'wider-pot': widerPotTries,
  ballast: ballastTries,
  'screws-in-line': inLineTries,
  'smaller-cells': cellTries('smaller-cells'),
  'larger-cells': cellTries('larger-cells'),
}
