import { GRAVITY } from './wind.ts'
import { axialStiffnessN, isString, wireWeightNPerM } from '../catalogue/index.ts'
import type { Wire } from '../catalogue/index.ts'
import type { Conditions } from '../design/index.ts'
import { cableState, slantState, strainerTravel } from '../cable/index.ts'
import type { CableMaterial, StrainerTravel } from '../cable/index.ts'
import type { Frame, WireSlot } from '../frame/index.ts'

/**
 * What a wire meets: bare in the coldest night, bare in the greatest heat, hot under wet crop, in a storm in
 * leaf, iced.
 */
export const scenarios = ['set', 'cold', 'hot', 'loaded', 'storm', 'ice'] as const
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
  readonly id: string
  readonly ids: readonly string[]
  readonly slot: WireSlot
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
  readonly workingLoadN: number
  readonly travel: StrainerTravel
  readonly endStiffnessNPerM: number | null
}

export interface WireLoads {
  /** Plant in leaf, wet, with crop, newtons per metre of wire. */
  readonly cropNPerM: number
  readonly leafNPerM: number
  /** Wind on the leaf, newtons per metre of wire. */
  readonly windNPerM: number
}

/** Slack that is left when a wire is hooked on by hand: half a hand's breadth. */
const HOOK_SLACK_M = 0.03
const STORM_C = 10
const ICE_C = -2
const ICE_DENSITY = 900
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
}

/**
 * Every straight wire of a frame in every scenario. Lines that are alike to the millimetre are computed once.
 * String is wound, not strained, and left out.
 */
export function wireLines(
  frame: Frame,
  choices: Readonly<Record<WireSlot, Choice | null>>,
  loads: WireLoads,
  place: {
    readonly conditions: Conditions
    readonly setC: number
    readonly endStiffnessNPerM: number | null
  },
): WireLine[] {
  const spansByLine = new Map<string, { slot: WireSlot; spans: number[]; rise: number; along: number }>()
  for (const run of frame.runs) {
    const choice = choices[run.slot]
    if (!choice || isString(choice.wire) || run.lengthM < 1e-3) continue
    const [a, b] = [frame.nodes[run.from]!.at, frame.nodes[run.to]!.at]
    const rise = Math.abs(b.yM - a.yM)
    const along = Math.sqrt((b.xM - a.xM) ** 2 + (b.zM - a.zM) ** 2)
    const known = spansByLine.get(run.line)
    if (known) known.spans.push(run.lengthM)
    else spansByLine.set(run.line, { slot: run.slot, spans: [run.lengthM], rise, along })
  }
  const groups = new Map<
    string,
    { ids: string[]; slot: WireSlot; spans: number[]; rise: number; along: number }
  >()
  for (const [line, { slot, spans, rise, along }] of spansByLine) {
    const key = `${slot} ${spans.length === 1 ? Math.round(rise * 1000) : ''} ${spans.map((s) => Math.round(s * 1000)).join(' ')}`
    const group = groups.get(key)
    if (group) group.ids.push(line)
    else groups.set(key, { ids: [line], slot, spans, rise, along })
  }
  return [...groups.values()]
    .map((group) => lineOf(group, choices[group.slot]!, loads, place))
    .sort((a, b) => b.lengthM - a.lengthM)
}

function lineOf(
  group: { ids: string[]; slot: WireSlot; spans: number[]; rise: number; along: number },
  { wire, tensionN }: Choice,
  loads: WireLoads,
  place: { conditions: Conditions; setC: number; endStiffnessNPerM: number | null },
): WireLine {
  const isSlant = group.spans.length === 1 && group.rise > LEVEL_SLOPE * group.along && group.along > 0.01
  // A tie-back or a light wire carries no crop.
  const carries =
    group.slot === 'main' && !group.ids[0]!.startsWith('tie-') && !group.ids[0]!.includes('-down-')
  const isLeafy = group.slot === 'light' && group.ids[0] !== 'water'
  const line: Omit<WireLine, 'states' | 'worst' | 'greatestSag'> = {
    id: group.ids[0]!,
    ids: group.ids,
    slot: group.slot,
    wire,
    setTensionN: tensionN,
    setC: place.setC,
    spansM: group.spans,
    lengthM: group.spans.reduce((sum, s) => sum + s, 0),
    slope: isSlant ? group.rise / group.along : 0,
    workingLoadN: wire.breakingLoadN * wire.workingShare,
    endStiffnessNPerM: place.endStiffnessNPerM,
    travel: strainerTravel(cableOf(wire), {
      lengthM: group.spans.reduce((sum, s) => sum + s, 0),
      tensionN,
      slackM: HOOK_SLACK_M,
      warmerByC: Math.max(0, place.conditions.hottestC - place.setC),
      permanentStrain: 2 * wire.firstYearStrain,
    }),
  }
  const states = scenarios.flatMap((scenario): WireState[] => {
    const met = loadIn(
      scenario,
      wire,
      carries ? loads : isLeafy ? { ...NOTHING, windNPerM: loads.windNPerM } : NOTHING,
      place,
    )
    return met ? [{ scenario, temperatureC: met.temperatureC, ...stateUnder(line, met) }] : []
  })
  const most = (pick: (state: WireState) => number) => states.reduce((a, b) => (pick(b) > pick(a) ? b : a))
  return { ...line, states, worst: most((s) => s.tensionN), greatestSag: most((s) => s.sagM) }
}

const NOTHING: WireLoads = { cropNPerM: 0, leafNPerM: 0, windNPerM: 0 }

interface Met {
  readonly temperatureC: number
  readonly verticalNPerM: number
  readonly windNPerM: number
  readonly permanentStrain?: number
}

function loadIn(
  scenario: Scenario,
  wire: Wire,
  loads: WireLoads,
  { conditions, setC }: { conditions: Conditions; setC: number },
): Met | null {
  switch (scenario) {
    case 'set':
      return { temperatureC: setC, verticalNPerM: 0, windNPerM: 0 }
    case 'cold':
      return { temperatureC: conditions.coldestC, verticalNPerM: 0, windNPerM: 0 }
    case 'hot':
      return { temperatureC: conditions.hottestC, verticalNPerM: 0, windNPerM: 0 }
    case 'loaded':
      return loads.cropNPerM > 0
        ? { temperatureC: conditions.hottestC, verticalNPerM: loads.cropNPerM, windNPerM: 0 }
        : null
    case 'storm':
      return loads.windNPerM > 0
        ? { temperatureC: STORM_C, verticalNPerM: loads.cropNPerM, windNPerM: loads.windNPerM }
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
  met: Met,
): { readonly tensionN: number; readonly sagM: number } {
  const cable = cableOf(line.wire)
  if (line.slope > 0 && met.windNPerM === 0) {
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
      met,
    )
    return { tensionN: Math.max(slant.tensionAN, slant.tensionBN), sagM: slant.maxSagBelowChordM }
  }
  const ends = line.endStiffnessNPerM === null ? {} : { endStiffnessNPerM: line.endStiffnessNPerM }
  const state = cableState(
    cable,
    { spansM: line.spansM, horizontalTensionN: line.setTensionN, temperatureC: line.setC, ...ends },
    met,
  )
  return { tensionN: state.maxTensionN, sagM: state.sagsInPlaneM.reduce((a, b) => Math.max(a, b), 0) }
}
