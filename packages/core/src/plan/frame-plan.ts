import type { Effort } from '../cutting/index.ts'
import { choiceOf, planStock, strungWires, takeOff } from '../bill/index.ts'
import type { StockPlan, StrungWire, TakeOff } from '../bill/index.ts'
import { findFixing, findWire, standardCatalogue } from '../catalogue/index.ts'
import type { Catalogue, Fixing, Wire } from '../catalogue/index.ts'
import { weatherAt } from '../design/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import { CoreError, requireRange, requireWhole } from '../errors/index.ts'
import { frameOptions, makeFrame, markOut } from '../frame/index.ts'
import type { AnchorId, Frame, MarkOut, WireName } from '../frame/index.ts'
import type { Drive } from '../ground/index.ts'
import { NO_LOADS, wireLines, wireLoads } from '../loads/index.ts'
import type { WireLine, WireLoads } from '../loads/index.ts'
import { craftWarnings } from '../warnings/index.ts'
import type { CraftWarning } from '../warnings/index.ts'
import { checkFrame, endStiffness, notComputed, outcomeOf, rowEnd } from '../strength/index.ts'
import type { Check, NotComputed, Outcome, RowEnd } from '../strength/index.ts'

/**
 * All that follows from a design; what could not be computed is `null` or empty, with the reason among the
 * problems.
 */
export interface FramePlan {
  readonly frame: Frame | null
  /** How many are built alike; materials and hours are for all of them. */
  readonly repeat: number
  readonly markOut: MarkOut | null
  readonly wires: readonly StrungWire[]
  readonly stock: readonly StockPlan[]
  readonly lines: readonly WireLine[]
  readonly loads: WireLoads
  readonly checks: readonly Check[]
  readonly outcome: Outcome
  /** What bears force without being computed, and what fittings have to be marked for. */
  readonly unchecked: NotComputed
  /** What pulls and presses at the end of a row; `null` where there is none. */
  readonly end: RowEnd | null
  /** What the craft warns of, which no sum shows. */
  readonly warnings: readonly CraftWarning[]
  readonly takeOff: TakeOff | null
  readonly wire: Wire | null
  readonly fixing: Fixing | null
  readonly problems: readonly CoreError[]
}

export interface PlanContext {
  readonly catalogue?: Catalogue
  /** Anchors as they were driven. */
  readonly drives?: ReadonlyMap<AnchorId, Drive>
  /** How long the cheapest way to cut may be searched for: `thorough` where nothing is said. */
  readonly effort?: Effort
}

const NO_PARTS: NotComputed = { parts: [], markedN: null }
const NOTHING = {
  markOut: null,
  wires: [],
  stock: [],
  lines: [],
  loads: NO_LOADS,
  checks: [],
  outcome: outcomeOf([]),
  unchecked: NO_PARTS,
  end: null,
  warnings: [],
  takeOff: null,
}

/** What of a plan the checks go by: laid, loaded, strained. Neither cut, nor counted, nor priced. */
export interface CheckedFrame {
  readonly frame: Frame | null
  readonly loads: WireLoads
  readonly lines: readonly WireLine[]
  readonly checks: readonly Check[]
  readonly unchecked: NotComputed
  readonly end: RowEnd | null
  readonly problems: readonly CoreError[]
}

/**
 * Lays a design out and checks it, much sooner than its whole plan: for trying many of them. Throws only for
 * bugs.
 */
export function checkDesign(
  place: PlannedSite,
  design: FrameDesign,
  context: PlanContext = {},
): CheckedFrame {
  const catalogue = context.catalogue ?? standardCatalogue
  const site = { ...place, conditions: weatherAt(place) }
  const { problems, attempt } = attempts()
  const fixing = findFixing(catalogue, design.fixingId) ?? catalogue.fixings[0] ?? null
  const frame = attempt(() => makeFrame(site, design.pattern, frameOptions(design, catalogue)))
  if (!frame || !fixing)
    return { frame, loads: NO_LOADS, lines: [], checks: [], unchecked: NO_PARTS, end: null, problems }
  return {
    frame,
    ...strained(frame, site, design, { catalogue, fixing, drives: context.drives }, attempt),
    problems,
  }
}

type Attempt = <T>(step: () => T) => T | null

/** Steps that may refuse their input: what they refuse is kept, and they answer `null`. */
function attempts(): { readonly problems: CoreError[]; readonly attempt: Attempt } {
  const problems: CoreError[] = []
  return {
    problems,
    attempt: (step) => {
      try {
        return step()
      } catch (error) {
        if (!(error instanceof CoreError)) throw error
        problems.push(error)
        return null
      }
    },
  }
}

function strained(
  frame: Frame,
  site: PlannedSite,
  design: FrameDesign,
  {
    catalogue,
    fixing,
    drives = new Map(),
  }: { catalogue: Catalogue; fixing: Fixing; drives?: ReadonlyMap<AnchorId, Drive> },
  attempt: Attempt,
): Pick<CheckedFrame, 'loads' | 'lines' | 'checks' | 'unchecked' | 'end'> {
  const loads = attempt(() => wireLoads(frame, design, site.conditions)) ?? NO_LOADS
  const lines = attempt(() => strainedLines(frame, site, design, catalogue, loads)) ?? []
  const context = { frame, site, design, catalogue, fixing, lines, loads, drives }
  const checks = checkFrame(context)
  return {
    loads,
    lines,
    checks,
    unchecked: notComputed(context, checks),
    end: attempt(() => rowEnd(context)),
  }
}

/**
 * The consequences of a design at a place. A step that refuses its input leaves a problem and the steps
 * before it stand, so a grower sees the drawing even where the handling length is too short for one run.
 * Throws only for bugs.
 */
export function planFrame(place: PlannedSite, design: FrameDesign, context: PlanContext = {}): FramePlan {
  const catalogue = context.catalogue ?? standardCatalogue
  const site = { ...place, conditions: weatherAt(place) }
  const { problems, attempt } = attempts()
  const fixing = findFixing(catalogue, design.fixingId) ?? catalogue.fixings[0] ?? null
  const wire = findWire(catalogue, design.wireId) ?? null
  const repeat = attempt(() => requireWhole('repeat', design.repeat, 1, 10_000))
  const frame = attempt(() => makeFrame(site, design.pattern, frameOptions(design, catalogue)))
  if (!frame || !fixing || repeat === null)
    return { frame, ...NOTHING, repeat: repeat ?? 1, wire, fixing, problems }
  const effort = context.effort ?? 'thorough'
  const wires = strungWires(frame, design, catalogue, attempt, effort)
  const stock = planStock(frame, catalogue, repeat, attempt, effort)
  const { loads, lines, checks, unchecked, end } = strained(
    frame,
    site,
    design,
    { catalogue, fixing, drives: context.drives },
    attempt,
  )
  return {
    frame,
    repeat,
    markOut: markOut(frame, site),
    wires,
    stock,
    lines,
    loads,
    checks,
    outcome: outcomeOf(checks),
    unchecked,
    end,
    warnings: craftWarnings({ frame, site, design, catalogue, wires }),
    takeOff: takeOff({
      frame,
      wires,
      stock,
      fixing,
      surface: site.surface,
      catalogue,
      repeat,
      wireEnding: design.wireEnding,
      strainers: design.strainers,
    }),
    wire,
    fixing,
    problems,
  }
}

/** What is cut in a plan, and what that makes it cost. */
export type CutPlan = Pick<FramePlan, 'wires' | 'stock' | 'takeOff'>

/** Whether it may be cheaper to cut than a plan says; a thorough search might find how. */
export function mayCutCheaper({ wires, stock }: CutPlan): boolean {
  return [...wires, ...stock].some(({ cutting }) => cutting !== null && !cutting.isProvenLeast)
}

function strainedLines(
  frame: Frame,
  site: PlannedSite,
  design: FrameDesign,
  catalogue: Catalogue,
  loads: WireLoads,
): WireLine[] {
  const choice = (name: WireName) => {
    const { wireId, tensionN } = choiceOf(design, name)
    const wire = findWire(catalogue, wireId)
    return wire
      ? { wire, tensionN: requireRange('tensionN', tensionN, 1e-3, 1e6), ending: design.wireEnding }
      : null
  }
  // Ties and guys are pulled by what they hold, not set to a tension: statics gives theirs.
  const runs = frame.runs.filter(({ line }) => line.role !== 'tie-back')
  return wireLines({ ...frame, runs }, { main: choice('main'), light: choice('light') }, loads, {
    conditions: site.conditions,
    setC: design.setC,
    endStiffnessNPerM: endStiffness(design, catalogue),
  })
}
