import { GRAVITY } from './wind.ts'
import { axialStiffnessN, isString, safeLoads, wireWeightNPerM } from '../catalogue/index.ts'
import type { SafeLoads, Wire, WireEnding } from '../catalogue/index.ts'
import type { Conditions } from '../design/index.ts'
import { cableState, slantState, strainerTravel } from '../cable/index.ts'
import type { CableMaterial, StrainerTravel } from '../cable/index.ts'
import { bearsLeaf, wireFor } from '../frame/index.ts'
import type { Frame, LineId, LineRole, WireName } from '../frame/index.ts'

/**
 * What a wire meets: bare in the coldest night, bare in the greatest heat, hot under wet crop, in a storm in
 * leaf, iced, under a cover full of snow.
 */
export const scenarios = ['set', 'cold', 'hot', 'loaded', 'storm', 'ice', 'snow'] as const
export type Scenario = (typeof scenarios)[number]

export interface WireState {
  readonly scenario: Scenario
  readonly temperatureC: number
  readonly tensionN: number
  /** Greatest sag of any of its spans, in the plane of its load. */
  readonly sagM: number
}

/** Lines of wire that are alike: same wire, same spans. */
export interface WireLine {
  /** Of one of them, for choosing it on the drawing. */
  readonly id: LineId
  readonly ids: readonly LineId[]
  readonly role: LineRole
  readonly wire: Wire
  readonly setTensionN: number
  readonly setC: number
  readonly spansM: readonly number[]
  readonly lengthM: number
  /** Rise over distance of a single slanting span. */
  readonly slope: number
  readonly states: readonly WireState[]
  readonly worst: WireState
  readonly greatestSag: WireState
  /** What it may bear with its ends made off as they are. */
  readonly safe: SafeLoads
  readonly travel: StrainerTravel
  readonly endStiffnessNPerM: number | null
}

export interface WireLoads {
  /** Plant in leaf, wet, with crop, newtons per metre of wire. */
  readonly cropNPerM: number
  readonly leafNPerM: number
  /** Wind on the leaf, newtons per metre of wire. */
  readonly windNPerM: number
  /** Snow on a cover that lies on it, newtons per metre of wire. */
  readonly snowNPerM: number
}

/** Slack that is left when a wire is hooked on by hand: half a hand's breadth. */
const HOOK_SLACK_M = 0.03
const STORM_C = 10
const ICE_C = -2
const ICE_DENSITY = 900
/** Nothing hangs in a span shorter than this. */
const SHORTEST_SPAN_M = 1e-3
/** Spans steeper than this are computed as slanting ones. */
const LEVEL_SLOPE = 0.09
export function cableOf(wire: Wire): CableMaterial {
  return {
    weightNPerM: wireWeightNPerM(wire),
    axialStiffnessN: axialStiffnessN(wire),
    expansionPerC: wire.expansionPerC,
  }
}

interface Choice {
  readonly wire: Wire
  readonly tensionN: number
  /** `null` for the ending that is usual for it. */
  readonly ending: WireEnding | null
}

/** Lines that are alike: one role, one wire, the same spans to the millimetre. */
interface Alike {
  readonly ids: LineId[]
  readonly role: LineRole
  readonly spansM: number[]
  readonly riseM: number
  readonly alongM: number
}

interface StrainedAt {
  readonly conditions: Conditions
  readonly setC: number
  readonly endStiffnessNPerM: number | null
}

/**
 * Every straight wire of a frame in every scenario. Lines that are alike to the millimetre are computed once.
 * Cord is wound, not strained, and left out.
 */
export function wireLines(
  frame: Frame,
  choices: Readonly<Record<WireName, Choice | null>>,
  loads: WireLoads,
  place: StrainedAt,
): WireLine[] {
  return alikeLines(frame, choices).map((alike) => lineOf(alike, choices[wireFor(alike.role)]!, loads, place))
}

function alikeLines(frame: Frame, choices: Readonly<Record<WireName, Choice | null>>): Alike[] {
  const byLine = new Map<LineId, Alike>()
  for (const { line, from, to, lengthM } of frame.runs) {
    const choice = choices[wireFor(line.role)]
    if (!choice || isString(choice.wire) || lengthM < SHORTEST_SPAN_M) continue
    const known = byLine.get(line.id)
    if (known) {
      known.spansM.push(lengthM)
      continue
    }
    const [a, b] = [frame.nodes[from]!.at, frame.nodes[to]!.at]
    const alongM = Math.hypot(b.xM - a.xM, b.zM - a.zM)
    byLine.set(line.id, {
      ids: [line.id],
      role: line.role,
      spansM: [lengthM],
      riseM: Math.abs(b.yM - a.yM),
      alongM,
    })
  }
  const groups = new Map<string, Alike>()
  for (const line of byLine.values()) {
    const spansMm = line.spansM.map((spanM) => Math.round(spanM * 1000))
    // Only a line of one span may slant.
    const riseMm = line.spansM.length === 1 ? Math.round(line.riseM * 1000) : 0
    const key = [line.role, riseMm, ...spansMm].join(' ')
    const group = groups.get(key)
    if (group) group.ids.push(...line.ids)
    else groups.set(key, line)
  }
  return [...groups.values()]
}

function lineOf(
  alike: Alike,
  { wire, tensionN, ending }: Choice,
  loads: WireLoads,
  place: StrainedAt,
): WireLine {
  const { ids, role, spansM, riseM, alongM } = alike
  const isSlant = spansM.length === 1 && riseM > LEVEL_SLOPE * alongM && alongM > 0.01
  const lengthM = spansM.reduce((sum, spanM) => sum + spanM, 0)
  const line: Omit<WireLine, 'states' | 'worst' | 'greatestSag'> = {
    id: ids[0]!,
    ids,
    role,
    wire,
    setTensionN: tensionN,
    setC: place.setC,
    spansM,
    lengthM,
    slope: isSlant ? riseM / alongM : 0,
    safe: safeLoads(wire, ending),
    endStiffnessNPerM: place.endStiffnessNPerM,
    travel: strainerTravel(cableOf(wire), {
      lengthM,
      tensionN,
      slackM: HOOK_SLACK_M,
      warmerByC: Math.max(0, place.conditions.hottestC - place.setC),
      permanentStrain: 2 * wire.firstYearStrain,
    }),
  }
  const borne = loadsOn(role, loads)
  const states = scenarios.flatMap((scenario): WireState[] => {
    const load = loadIn(scenario, wire, borne, place)
    return load ? [{ scenario, temperatureC: load.temperatureC, ...stateUnder(line, load) }] : []
  })
  const most = (pick: (state: WireState) => number) => states.reduce((a, b) => (pick(b) > pick(a) ? b : a))
  return { ...line, states, worst: most((s) => s.tensionN), greatestSag: most((s) => s.sagM) }
}

export const NO_LOADS: WireLoads = { cropNPerM: 0, leafNPerM: 0, windNPerM: 0, snowNPerM: 0 }

/** What a wire bears day after day; a wet crop, as all else, are its worst hours. */
const LASTING: ReadonlySet<Scenario> = new Set(['set', 'hot'])

/** What a line may bear in a state: for years, or in its worst hour. */
export const allowedN = (
  { safe }: Pick<WireLine, 'safe'>,
  { scenario }: Pick<WireState, 'scenario'>,
): number => (LASTING.has(scenario) ? safe.lastingN : safe.peakN)

const shareIn = (line: WireLine, state: WireState): number => state.tensionN / allowedN(line, state)

/** The state in which a line comes nearest to what it may bear then. */
export const hardestState = (line: WireLine): WireState =>
  line.states.reduce((a, b) => (shareIn(line, b) > shareIn(line, a) ? b : a))

/** Of what it may bear in that state, the share that a line bears. */
export const shareBorne = (line: WireLine): number => shareIn(line, hardestState(line))

/**
 * What plants put on a line: one that carries bears all, one for foliage the wind alone, the others nothing.
 */
export function loadsOn(role: LineRole, loads: WireLoads): WireLoads {
  if (role === 'carrying') return loads
  return { ...NO_LOADS, windNPerM: bearsLeaf(role) ? loads.windNPerM : 0 }
}

/** A load case: what a wire meets at one time. */
interface LoadCase {
  readonly temperatureC: number
  readonly verticalNPerM: number
  readonly windNPerM: number
  readonly permanentStrain?: number
}

function loadIn(
  scenario: Scenario,
  wire: Wire,
  loads: WireLoads,
  { conditions, setC }: Pick<StrainedAt, 'conditions' | 'setC'>,
): LoadCase | null {
  const bareAt = (temperatureC: number): LoadCase => ({ temperatureC, verticalNPerM: 0, windNPerM: 0 })
  switch (scenario) {
    case 'set':
      return bareAt(setC)
    case 'cold':
      return bareAt(conditions.coldestC)
    case 'hot':
      return bareAt(conditions.hottestC)
    case 'loaded':
      return loads.cropNPerM > 0
        ? { temperatureC: conditions.hottestC, verticalNPerM: loads.cropNPerM, windNPerM: 0 }
        : null
    case 'storm':
      return loads.windNPerM > 0
        ? { temperatureC: STORM_C, verticalNPerM: loads.cropNPerM, windNPerM: loads.windNPerM }
        : null
    case 'snow':
      return loads.snowNPerM > 0
        ? { temperatureC: ICE_C, verticalNPerM: loads.snowNPerM, windNPerM: 0 }
        : null
    case 'ice': {
      if (conditions.iceMm === 0) return null
      const ring = Math.PI * conditions.iceMm * (conditions.iceMm + wire.diameterMm) * 1e-6
      return { temperatureC: ICE_C, verticalNPerM: ring * ICE_DENSITY * GRAVITY, windNPerM: 0 }
    }
  }
}

/**
 * Pull and greatest sag of a line under any load: slanting single spans by the slanting cable, all others as
 * level ones.
 */
export function stateUnder(
  line: Pick<WireLine, 'wire' | 'spansM' | 'setTensionN' | 'setC' | 'slope' | 'endStiffnessNPerM'>,
  load: LoadCase,
): { readonly tensionN: number; readonly sagM: number } {
  const cable = cableOf(line.wire)
  if (line.slope > 0 && load.windNPerM === 0) {
    const lengthM = line.spansM[0]!
    const across = lengthM / Math.hypot(1, line.slope)
    const slant = slantState(
      cable,
      {
        horizontalDistanceM: across,
        heightDifferenceM: across * line.slope,
        tensionN: line.setTensionN,
        temperatureC: line.setC,
      },
      load,
    )
    return { tensionN: Math.max(slant.tensionAN, slant.tensionBN), sagM: slant.maxSagBelowChordM }
  }
  const ends = line.endStiffnessNPerM === null ? {} : { endStiffnessNPerM: line.endStiffnessNPerM }
  const state = cableState(
    cable,
    { spansM: line.spansM, horizontalTensionN: line.setTensionN, temperatureC: line.setC, ...ends },
    load,
  )
  return { tensionN: state.maxTensionN, sagM: state.sagsInPlaneM.reduce((a, b) => Math.max(a, b), 0) }
}
