import { fenceFields, usualConditions } from '../src/design/index.ts'
import type { FenceMade, FrameDesign, PlannedSite } from '../src/design/index.ts'
import { standardCatalogue } from '../src/catalogue/index.ts'
import fc from 'fast-check'
import { frameKinds, frameOptions, isField, levelId, nodeId } from '../src/frame/index.ts'
import type {
  Field,
  Fields,
  Pattern,
  PatternKind,
  PatternOfKind,
  Pot,
  RowLevel,
  StartPlace,
} from '../src/frame/index.ts'

export const options = frameOptions(
  { moveToleranceM: 0.05, dragged: {}, snap: 'none', ids: {} },
  standardCatalogue,
)

/** A fence of ordinary make, looked at from top to bottom. */
export const usualFence = Object.fromEntries(
  Object.entries(fenceFields).map(([key, { usual }]) => [key, usual]),
) as unknown as FenceMade

export const siteOf = (
  widthM: number,
  usableHeightM: number,
  rest: Partial<PlannedSite> = {},
): PlannedSite => ({
  widthM,
  usableHeightM,
  firstForkM: 0,
  viewingEnd: 'left',
  avoid: [],
  surface: 'brick',
  setting: 'open',
  conditions: usualConditions,
  ...rest,
})

export const designOf = (pattern: Pattern, rest: Partial<FrameDesign> = {}): FrameDesign => ({
  pattern,
  moveToleranceM: 0.05,
  dragged: {},
  snap: 'none',
  ids: {},
  wireId: 'stainless-2',
  tensionN: 150,
  rolls: [
    { lengthM: 25, price: 14 },
    { lengthM: 200, price: 90 },
  ],
  light: { wireId: 'high-tensile-2', tensionN: 200, rolls: [{ lengthM: 1000, price: 124 }] },
  endWrapM: 0.15,
  wireEnding: null,
  strainers: 1,
  handlingLengthM: 150,
  endsAt: 'any',
  fixingId: 'eye-100',
  setC: 12,
  plantKindId: null,
  repeat: 1,
  standOffM: null,
  plantOffM: null,
  feetBallastKg: 0,
  unknown: [],
  boughtPrice: null,
  ...rest,
})

/** Tiers at these heights, named as a first design names them. */
export const tierLevels = (...heightsM: number[]) =>
  heightsM.map((heightM, i) => ({ id: levelId(`t${i}`), heightM }))

/** A level of a row: named by its number, a single carrying wire unless said otherwise. */
export const rowLevel = (n: number, heightM: number, rest: Partial<RowLevel> = {}): RowLevel => ({
  id: levelId(`w${n}`),
  heightM,
  role: 'carrying',
  form: 'single',
  spreadM: 0,
  liftM: 0,
  ...rest,
})

const m = (min: number, max: number) =>
  fc.double({ min, max, noNaN: true }).map((x) => Math.round(x * 1000) / 1000)
const int = (min: number, max: number) => fc.integer({ min, max })
const stockOf = (use: string) =>
  fc.constantFrom(...standardCatalogue.stock.filter((s) => s.use === use).map((s) => s.id))
const potArbOf = (leastWidthM: number): fc.Arbitrary<Pot | null> =>
  fc.option(
    fc.record({
      shape: fc.constantFrom('round' as const, 'square' as const),
      widthM: m(leastWidthM, leastWidthM + 0.8),
      heightM: m(0.45, 1),
      ballastKg: m(0, 50),
      drainageM: m(0, 0.1),
      hasCharcoal: fc.boolean(),
      isThere: fc.boolean(),
    }),
  )
const potArb = potArbOf(0.2)
const rising = (least: number, most: number, from: number, to: number) =>
  fc
    .uniqueArray(int(from * 100, to * 100), { minLength: least, maxLength: most })
    .map((cm) => cm.sort((a, b) => a - b).map((n) => n / 100))

/** Patterns as people would measure them, for places of 2 to 40 m by 0.8 to 3 m. */
export const patternArbs: { readonly [K in PatternKind]: fc.Arbitrary<PatternOfKind<K>> } = {
  tiers: fc.record({
    kind: fc.constant('tiers' as const),
    levels: rising(1, 6, 0.1, 0.8).map((heightsM) => tierLevels(...heightsM)),
    maxSupportSpacingM: m(0.5, 4),
  }),
  diamonds: fc.record({
    kind: fc.constant('diamonds' as const),
    cell: fc.oneof(
      fc.record({ by: fc.constant('width' as const), widthM: m(0.2, 2) }),
      fc.record({ by: fc.constant('count' as const), count: int(1, 30), halfAtEnd: fc.boolean() }),
    ),
    cellHeightM: fc.constant(null),
    rows: int(1, 3),
    closeCutEnd: fc.boolean(),
  }),
  zigzag: fc.record({ kind: fc.constant('zigzag' as const), strokeWidthM: m(0.2, 2) }),
  triangles: fc.record({ kind: fc.constant('triangles' as const), baseM: m(0.2, 2), rows: int(1, 5) }),
  grid: fc.record({ kind: fc.constant('grid' as const), verticals: int(2, 30), horizontals: int(2, 8) }),
  free: fc
    .record({
      nodes: fc.uniqueArray(int(0, 15), { minLength: 1, maxLength: 12 }),
      links: fc.array(fc.tuple(int(0, 15), int(0, 15)), { maxLength: 20 }),
    })
    .map(({ nodes, links }) => ({
      kind: 'free' as const,
      nodes: nodes.map((n) => ({
        id: nodeId(`n${n}`),
        xM: ((n * 7) % 19) / 10,
        yM: ((n * 5) % 8) / 10,
        isStart: n === 0,
      })),
      runs: links.map(([a, b]) => [nodeId(`n${a}`), nodeId(`n${b}`)] as const),
    })),
  fan: fc.record({
    kind: fc.constant('fan' as const),
    ribs: int(1, 15),
    spreadDeg: m(0, 180),
    wireStepM: fc.option(m(0.1, 0.8)),
    maxSupportSpacingM: m(0.5, 3),
    ribReachM: fc.option(m(0.4, 4)),
    ribStockId: stockOf('stake'),
  }),
  row: fc.record({
    kind: fc.constant('row' as const),
    maxPostSpacingM: m(2, 8),
    postHeightM: m(1.4, 2),
    postBuriedM: m(0.4, 0.7),
    postStockId: fc.constantFrom('post-round-100', 'post-round-140'),
    endStockId: fc.constant('post-round-140'),
    endBuriedM: m(0.5, 0.9),
    endLeanDeg: m(0, 15),
    endSlabM: fc.constantFrom(0, 0.3),
    end: fc.oneof(
      fc.record({
        kind: fc.constant('tied-back' as const),
        attachHeightM: m(0.8, 1.4),
        angleDeg: m(35, 60),
        screwId: fc.constant('screw-eye-1200'),
        inLine: int(1, 3),
        strands: int(1, 3),
      }),
      fc.record({
        kind: fc.constant('braced' as const),
        attachHeightM: m(0.8, 1.4),
        angleDeg: m(35, 60),
        stockId: fc.constant('post-round-100'),
      }),
      fc.constant({ kind: 'free' as const }),
    ),
    armStockId: fc.constant('batten-20x30'),
    levels: rising(1, 6, 0.4, 1.3).chain((heights) =>
      fc.tuple(
        ...heights.map((heightM) =>
          fc.record({
            id: fc.constant(levelId(`h${heightM}`)),
            heightM: fc.constant(heightM),
            role: fc.constantFrom('carrying' as const, 'foliage' as const),
            form: fc.constantFrom('single' as const, 'pair' as const, 'arms' as const),
            spreadM: m(0.2, 1),
            liftM: fc.constant(0),
          }),
        ),
      ),
    ),
    waterHeightM: fc.option(m(0.2, 0.4)),
    plantSpacingM: m(0.5, 3),
    roomBeyondM: fc.option(m(0, 5)),
  }),
  overhead: fc.record({
    kind: fc.constant('overhead' as const),
    depthM: m(1.2, 3),
    headroomM: m(1.9, 2.4),
    maxBayM: m(1.5, 3),
    postStockId: fc.constant('post-square-100'),
    postBuriedM: m(0.4, 0.9),
    beamStockId: fc.constant('beam-75x200'),
    overhangM: m(0, 0.4),
    maxRafterSpacingM: m(0.4, 1.5),
    wireSpacingM: m(0.2, 0.8),
    backWires: int(0, 5),
  }),
  arch: fc.record({
    kind: fc.constant('arch' as const),
    spanM: m(0.8, 2),
    heightM: m(1.2, 2),
    depthM: m(0.4, 3),
    hoops: int(1, 5),
    rungStepM: m(0.2, 0.8),
    buriedM: m(0, 0.5),
    hoopStockId: fc.constant('tube-steel-21'),
    rungStockId: fc.constant('rod-steel-6'),
    pot: potArbOf(1),
    potsAs: fc.constantFrom('trough' as const, 'each-foot' as const),
  }),
  net: fc.record({
    kind: fc.constant('net' as const),
    depthM: m(4, 30),
    heightM: m(1.8, 2.4),
    maxSpacingAlongM: m(3, 8),
    maxSpacingAcrossM: m(3, 8),
    postStockId: fc.constant('post-steel-48'),
    interior: fc.constantFrom('screw' as const, 'hole' as const),
    postBuriedM: m(0.4, 0.8),
    flangeScrewId: fc.constant('screw-flange-900'),
    anchorScrewId: fc.constant('screw-eye-1200'),
    anchorOutM: m(0.8, 2),
    panelWidthM: m(3, 12),
    dropM: m(0, 1.8),
    cover: fc.constantFrom('net' as const, 'film' as const),
    offInWinter: fc.boolean(),
  }),
  spiral: fc.record({
    kind: fc.constant('spiral' as const),
    stakes: int(2, 6),
    circleRadiusM: m(0.1, 0.4),
    heightM: m(1, 1.6),
    buriedM: m(0.1, 0.4),
    startHeightM: m(0.1, 0.4),
    turns: int(1, 12),
    wrapsPerContact: fc.constantFrom(0 as const, 1 as const),
    knotEvery: int(0, 4),
    knotAllowanceM: m(0, 0.15),
    winding: fc.constantFrom('clockwise' as const, 'anticlockwise' as const),
    top: fc.constantFrom('ring' as const, 'polygon' as const, 'loops' as const),
    stakeStockId: fc.constant('cane-24'),
    topStockId: fc.constant('rod-steel-6'),
    pot: potArb,
  }),
  obelisk: fc.record({
    kind: fc.constant('obelisk' as const),
    form: fc.constantFrom('obelisk' as const, 'cone' as const, 'ladder' as const),
    legs: int(3, 8),
    baseM: m(0.3, 0.8),
    topM: m(0, 0.3),
    heightM: m(1, 1.9),
    buriedM: m(0.1, 0.4),
    rungs: int(0, 8),
    legStockId: fc.constant('cane-24'),
    rungStockId: fc.constant('cane-12'),
    pot: potArb,
  }),
  pole: fc.record({
    kind: fc.constant('pole' as const),
    form: fc.constantFrom('mesh' as const, 'wrapped' as const, 'modules' as const),
    heightM: m(0.4, 1.6),
    buriedM: m(0.05, 0.4),
    diameterM: m(0.06, 0.15),
    lapM: m(0, 0.05),
    moduleM: m(0.2, 0.6),
    coreStockId: fc.constant('pipe-plastic-32'),
    rootsM: fc.option(m(0.05, 0.4)),
    pot: potArb,
  }),
  stakes: fc.record({
    kind: fc.constant('stakes' as const),
    count: int(1, 6),
    spacingM: m(0.02, 0.3),
    heightM: m(0.4, 1.6),
    buriedM: m(0.1, 0.4),
    stakeStockId: fc.constant('cane-24'),
    pot: fc.constant(null),
  }),
  column: fc.record({
    kind: fc.constant('column' as const),
    tub: fc.record({
      shape: fc.constantFrom('round' as const, 'square' as const),
      widthM: m(0.4, 1),
      heightM: m(0.4, 0.8),
      ballastKg: m(0, 50),
      drainageM: m(0, 0.1),
      hasCharcoal: fc.boolean(),
      isThere: fc.boolean(),
    }),
    columnStockId: fc.constant('post-steel-48'),
    barStockId: fc.constant('rod-steel-12'),
    lowerM: m(0.6, 1.2),
    upperM: m(1.25, 1.8),
    reachM: m(0.3, 1),
    gravelM: m(0, 0.2),
    plants: int(1, 6),
  }),
  brush: fc.record({
    kind: fc.constant('brush' as const),
    rows: int(1, 4),
    rowSpacingM: m(0.1, 0.5),
    twigStepM: m(0.1, 0.4),
    heightM: m(0.4, 1.2),
    buriedM: m(0.1, 0.2),
    twigStockId: fc.constant('twig-hazel-8'),
  }),
}

/** Every number of a pattern put at random to something extreme, a slip of the hand or the decimal point. */
export function deranged(pattern: Pattern): fc.Arbitrary<Pattern> {
  const slips = fc.constantFrom(0, -1, 1e-9, 1e9, NaN, Infinity, -Infinity, 0.5, 1e-3, 50, 1e300, -1e300)
  const derange = (value: unknown): fc.Arbitrary<unknown> => {
    if (typeof value === 'number')
      return fc.oneof({ weight: 3, arbitrary: fc.constant(value) }, { weight: 1, arbitrary: slips })
    if (Array.isArray(value)) return fc.tuple(...value.map(derange))
    if (value && typeof value === 'object')
      return fc.record(Object.fromEntries(Object.entries(value).map(([key, own]) => [key, derange(own)])))
    return fc.constant(value)
  }
  return derange(pattern) as fc.Arbitrary<Pattern>
}

const placeArb: fc.Arbitrary<StartPlace> = fc.record({
  kind: fc.constantFrom('wall', 'fence', 'row', 'bed', 'terrace', 'bench', 'tub'),
  widthM: m(0.4, 40),
  usableHeightM: m(0.4, 3),
  firstForkM: m(0, 0.5),
})

/**
 * Something that a field may have, not far from what a design starts with: it holds for every field there is.
 */
function valueNear(field: Field, start: unknown): fc.Arbitrary<unknown> {
  const factor = fc.double({ min: 0.7, max: 1.4, noNaN: true })
  const within = (low: number, high: number, value: number) => Math.min(high, Math.max(low, value))
  switch (field.ask) {
    case 'length':
      return factor.map((by) =>
        within(field.minM, field.maxM, Math.round((start as number) * by * 1000) / 1000),
      )
    case 'length-or-none':
      return fc.oneof(fc.constant(null), valueNear({ ...field, ask: 'length' }, start ?? field.usualM))
    case 'number':
      return factor.map((by) => within(field.min, field.max, (start as number) * by))
    case 'whole':
      return factor.map((by) => within(field.min, field.max, Math.round((start as number) * by)))
    case 'choice':
      return fc.constantFrom(...field.options)
    case 'flag':
      return fc.boolean()
    case 'list':
      return isField(field.of)
        ? fc.constant(start)
        : fc.tuple(...(start as object[]).map((item) => valuesNear(field.of as Fields, item)))
    case 'one-of':
      return valuesNear(field.of[(start as Record<string, string>)[field.by]!]!, start as object)
    case 'stock':
    case 'screw':
    case 'pot':
    case 'id':
    case 'link':
      return fc.constant(start)
  }
}
const valuesNear = (fields: Fields, start: object): fc.Arbitrary<object> =>
  fc
    .record(
      Object.fromEntries(
        Object.entries(fields).map(([key, field]) => [
          key,
          fc.oneof(
            fc.constant((start as Record<string, unknown>)[key]),
            valueNear(field, (start as Record<string, unknown>)[key]),
          ),
        ]),
      ),
    )
    .map((values) => ({ ...start, ...values }))

/** Patterns of any kind as its own record describes them, at a place where they would be begun. */
export const nearStart = (kind: PatternKind): fc.Arbitrary<{ place: StartPlace; pattern: Pattern }> =>
  placeArb.chain((place) =>
    valuesNear(frameKinds[kind].fields as unknown as Fields, frameKinds[kind].start(place)).map(
      (pattern) => ({
        place,
        pattern: pattern as Pattern,
      }),
    ),
  )
