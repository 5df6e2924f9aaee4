/**
 * Bodies of earlier releases, brought up to this one. One mechanism for what lies in a browser, in a file and
 * in a save that waits; the database has had its own migrations of the same. Each step has an id that it
 * keeps, needs nothing but the body, and changes nothing that is there: run over a newer body it does
 * nothing.
 */
type Json = Readonly<Record<string, unknown>>
interface Upcast {
  readonly id: string
  readonly up: (body: Json) => Json
}
export type UpcastArea = 'places' | 'frames' | 'plants' | 'stores'

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
const inDesign = (change: (design: Json) => Json) => (body: Json) =>
  isObject(body.design) ? { ...body, design: change(body.design) } : body
const inPattern = (kind: string, more: Json) =>
  inDesign((design) =>
    isObject(design.pattern) && design.pattern.kind === kind
      ? { ...design, pattern: { ...more, ...design.pattern } }
      : design,
  )

/** The conditions that were taken for granted before a place had its own. */
const conditionsOfBefore = {
  soil: 'loam',
  frostDepthM: 0.5,
  coldestC: -15,
  hottestC: 35,
  windMPerS: 22,
  snowPa: 0,
  iceMm: 0,
}

/** What stood on a terrace met its wind there; everything else was taken to stand in the open. */
const settingOf = (kind: unknown) => (kind === 'terrace' ? 'terrace' : 'open')

/**
 * Tiers were heights by their number, levels of a row by their place, with the wire that they are made of for
 * what they do. They get the ids by which the journal knew them: `t0`, `w0` and so on from below.
 */
function nameTheLevels(design: Json): Json {
  const { pattern } = design
  if (!isObject(pattern)) return design
  if (pattern.kind === 'tiers' && Array.isArray(pattern.heightsM)) {
    const { heightsM, ...rest } = pattern
    const levels = (heightsM as unknown[]).map((heightM, i) => ({ id: `t${i}`, heightM }))
    return { ...design, pattern: { ...rest, levels } }
  }
  if (pattern.kind !== 'row' || !Array.isArray(pattern.levels)) return design
  const levels = (pattern.levels as unknown[]).map((level, i) => {
    if (!isObject(level) || !('slot' in level)) return level
    const { slot, ...rest } = level
    return { id: `w${i}`, role: slot === 'light' ? 'foliage' : 'carrying', ...rest }
  })
  return { ...design, pattern: { ...pattern, levels } }
}

/** One screw held each end of a row, and a pot stood by its own weight. */
function addAnchorsInLineAndBallast(design: Json): Json {
  const { pattern } = design
  if (!isObject(pattern)) return design
  const filled = Object.fromEntries(
    Object.entries(pattern).map(([key, value]) => {
      if (!isObject(value)) return [key, value]
      if (key === 'pot' || key === 'tub') return [key, { ballastKg: 0, ...value }]
      return [key, key === 'end' && value.kind === 'tied-back' ? { inLine: 1, ...value } : value]
    }),
  )
  return { ...design, pattern: filled }
}

/** Each tie of a row was one strand of its wire. */
function addStrandsOfTies(design: Json): Json {
  const { pattern } = design
  if (!isObject(pattern) || !isObject(pattern.end) || pattern.end.kind !== 'tied-back') return design
  return { ...design, pattern: { ...pattern, end: { strands: 1, ...pattern.end } } }
}

/** Stout eyes, ropes, a wide flange: what checks of ends and covers may ask for, as they were offered when those came. */
const NEWLY_OFFERED: Readonly<Record<'fixings' | 'wires' | 'screws', readonly Json[]>> = {
  fixings: [eyeOf(130, 10, 0.05, 7, 12, 1400, 3.2), eyeOf(140, 12, 0.055, 9, 14, 2000, 5.6)],
  wires: [
    ropeOf(4, 6.9, 300, [
      { lengthM: 50, price: 88 },
      { lengthM: 100, price: 165 },
    ]),
    ropeOf(6, 15.6, 500, [
      { lengthM: 50, price: 175 },
      { lengthM: 100, price: 330 },
    ]),
  ],
  screws: [
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
}
const OFFERED_AT_MOST = { fixings: 60, wires: 100, screws: 40 } as const

function eyeOf(
  lengthMm: number,
  threadMm: number,
  standOffM: number,
  woodPilotMm: number,
  plugMm: number,
  plugRatedN: number,
  price: number,
): Json {
  const full = { plugFullSpacingM: plugMm / 100, plugFullEdgeM: plugMm / 100 }
  const plug = { plugMm, plugRatedN, ...full }
  return {
    id: `eye-${lengthMm}`,
    name: null,
    threadMm,
    lengthMm,
    standOffM,
    woodPilotMm,
    ...plug,
    price,
  }
}

function ropeOf(
  diameterMm: number,
  metalAreaMm2: number,
  usualTensionN: number,
  rolls: readonly Json[],
): Json {
  return {
    id: `stainless-rope-${diameterMm}`,
    name: null,
    material: 'stainless-rope',
    diameterMm,
    metalAreaMm2,
    massKgPerM: metalAreaMm2 * 0.0087,
    modulusGPa: 100,
    expansionPerC: 1.6e-5,
    breakingLoadN: metalAreaMm2 * 1360,
    workingShare: 0.25,
    firstYearStrain: 5e-4,
    lifeYears: 40,
    mayTouchBark: true,
    usualTensionN,
    rolls,
  }
}

/** A garden's own catalogue is offered them too, after what it has. */
function addWhatEndsAndCoversNeed(body: Json): Json {
  const { catalogue } = body
  if (!isObject(catalogue)) return body
  const grown = Object.entries(NEWLY_OFFERED).map(([list, more]) => {
    const has = catalogue[list]
    if (!Array.isArray(has)) return [list, has]
    const ids = new Set(has.map((one: unknown) => (isObject(one) ? one.id : undefined)))
    const all = [...(has as unknown[]), ...more.filter(({ id }) => !ids.has(id))]
    return [list, all.slice(0, Math.max(has.length, OFFERED_AT_MOST[list as keyof typeof OFFERED_AT_MOST]))]
  })
  return { ...body, catalogue: { ...catalogue, ...Object.fromEntries(grown) } }
}

/** A pattern whose pots say more than they did; what they say already stays. */
const withInPots = (pattern: Json, more: Json): Json =>
  Object.fromEntries(
    Object.entries(pattern).map(([key, value]) => [
      key,
      (key === 'pot' || key === 'tub') && isObject(value) ? { ...more, ...value } : value,
    ]),
  )

/** Pots without a layer below or charcoal, an arch in one trough. */
function addWhatIsInPots(design: Json): Json {
  const { pattern } = design
  if (!isObject(pattern)) return design
  const filled = withInPots(pattern, { drainageM: 0, hasCharcoal: false })
  const pots =
    pattern.kind === 'arch' ? { potsAs: 'trough' } : pattern.kind === 'pole' ? { rootsM: null } : {}
  return { ...design, pattern: { ...pots, ...filled } }
}

/** Pots were bought, and nobody had said how much room there is beyond a row. */
function addWhatIsThere(design: Json): Json {
  const { pattern } = design
  if (!isObject(pattern)) return design
  const of = withInPots(pattern, { isThere: false })
  return { ...design, pattern: pattern.kind === 'row' ? { roomBeyondM: null, ...of } : of }
}

const steps: Readonly<Record<UpcastArea, readonly Upcast[]>> = {
  places: [
    {
      id: 'places/1 AddRiseLinesConditionsPhoto',
      up: (body) => ({
        riseM: 0,
        uprights: null,
        levels: null,
        photo: null,
        conditions: conditionsOfBefore,
        ...body,
      }),
    },
    { id: 'places/2 AddSetting', up: (body) => ({ setting: settingOf(body.kind), ...body }) },
    { id: 'places/3 AddFence', up: (body) => ({ fence: null, ...body }) },
  ],
  frames: [
    {
      id: 'frames/1 AddSnapLightSettingPlant',
      up: inDesign((design) => ({
        snap: 'none',
        light: null,
        setC: 12,
        plantKindId: null,
        repeat: 1,
        ...design,
      })),
    },
    { id: 'frames/2 AddWhereWireEnds', up: inDesign((design) => ({ endsAt: 'any', ...design })) },
    { id: 'frames/3 AddPotOfArch', up: inPattern('arch', { pot: null }) },
    { id: 'frames/4 AddReachOfRibs', up: inPattern('fan', { ribReachM: null }) },
    { id: 'frames/5 NameTheLevels', up: inDesign(nameTheLevels) },
    { id: 'frames/6 AddIdsAlongAxes', up: inDesign((design) => ({ ids: {}, ...design })) },
    { id: 'frames/7 AddAnchorsInLineAndBallast', up: inDesign(addAnchorsInLineAndBallast) },
    { id: 'frames/8 AddWhatIsInPots', up: inDesign(addWhatIsInPots) },
    {
      id: 'frames/9 AddAsSeen',
      up: inDesign((design) => ({
        standOffM: null,
        plantOffM: null,
        feetBallastKg: 0,
        unknown: [],
        boughtPrice: null,
        ...design,
      })),
    },
    { id: 'frames/10 AddStage', up: (body) => ({ stage: 'idea', ...body }) },
    { id: 'frames/11 AddStrandsOfTies', up: inDesign(addStrandsOfTies) },
    // Ends of wire were wrapped or clipped as is usual, end posts stood on nothing, covers were nets that stayed out.
    {
      id: 'frames/12 AddWireEnding',
      up: inDesign((design) => ({ wireEnding: null, strainers: 1, ...design })),
    },
    { id: 'frames/13 AddSlabUnderEnds', up: inPattern('row', { endSlabM: 0 }) },
    { id: 'frames/14 AddWhatACoverIs', up: inPattern('net', { cover: 'net', offInWinter: false }) },
    // Beside them a top may be bent with loops, which a release of before does not know.
    { id: 'frames/15 AddPotsThatAreThereAndRoomBeyondRows', up: inDesign(addWhatIsThere) },
  ],
  plants: [
    {
      id: 'plants/1 AddSystemGraftMotherLeadsEnd',
      up: (body) => ({
        system: null,
        rootstock: '',
        graftHeightM: null,
        motherId: null,
        formPlanted: null,
        leads: [],
        ended: null,
        ...body,
      }),
    },
    { id: 'plants/2 AddBudGoal', up: (body) => ({ budGoal: null, ...body }) },
  ],
  stores: [{ id: 'stores/1 AddWhatEndsAndCoversNeed', up: addWhatEndsAndCoversNeed }],
}

/**
 * The body as this release writes it; what is no body at all comes back as it is, for the schema to refuse.
 */
export function upcastBody(area: UpcastArea, body: unknown): unknown {
  return isObject(body) ? steps[area].reduce((now, { up }) => up(now), body) : body
}

/** Ids of the steps of an area, in order: a store that has recorded them all needs none again. */
export function upcastIds(area: UpcastArea): readonly string[] {
  return steps[area].map(({ id }) => id)
}

/** The version of bodies that this release writes: one more with each step. */
export const BODY_VERSIONS: Readonly<Record<UpcastArea, number>> = {
  places: steps.places.length,
  frames: steps.frames.length,
  plants: steps.plants.length,
  stores: steps.stores.length,
}

/** A body of a later release than this one, which is not to be read, shown or written over by it. */
export const isNewerBody = (area: UpcastArea, bodyVersion: unknown): boolean =>
  typeof bodyVersion === 'number' && bodyVersion > BODY_VERSIONS[area]

/** Bodies that were read when there were fewer steps than this in all may be of an earlier release. */
export const UPCASTS = Object.values(steps).reduce((sum, { length }) => sum + length, 0)

/** A frame that somebody handed on, with its place's measures, brought up to this release. */
export function upcastFrameFile(file: unknown): unknown {
  if (!isObject(file)) return file
  const place = upcastBody('places', file.place)
  // The photo of a place stays at home.
  const { photo: _, ...measures } = isObject(place) ? place : {}
  const frame = upcastBody('frames', file.frame)
  // Whether it is to be built, whoever takes it in decides.
  const { stage: __, ...design } = isObject(frame) ? frame : {}
  return { ...file, place: measures, frame: isObject(frame) ? design : frame }
}
