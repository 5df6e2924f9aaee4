import type { Check } from '../strength/index.ts'
import { endStiffness, checkFrame } from '../strength/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import { wireLoads, wireLines } from '../loads/index.ts'
import { planStock, choiceOf, planStrings, takeOff } from '../bill/index.ts'
import type { StockPlan, StringPlan, TakeOff } from '../bill/index.ts'
import type { WireLine, WireLoads } from '../loads/index.ts'
import type { Drive } from '../ground/index.ts'
import { findFixing, findWire, standardCatalogue } from '../catalogue/index.ts'
import type { Catalogue, Fixing, Wire } from '../catalogue/index.ts'
import { CoreError, requireRange, requireWhole } from '../errors/index.ts'
import { frameOptions, makeFrame, markOut } from '../frame/index.ts'
import type { Frame, MarkOut } from '../frame/index.ts'

/**
 * All that follows from a design; what could not be computed is `null` or empty, with the reason among the
 * problems.
 */
export interface FramePlan {
  readonly frame: Frame | null
  /** How many are built alike; materials and hours are for all of them. */
  readonly repeat: number
  readonly markOut: MarkOut | null
  readonly strings: readonly StringPlan[]
  readonly stock: readonly StockPlan[]
  readonly lines: readonly WireLine[]
  readonly loads: WireLoads
  readonly checks: readonly Check[]
  readonly takeOff: TakeOff | null
  readonly wire: Wire | null
  readonly fixing: Fixing | null
  readonly problems: readonly CoreError[]
}

export interface PlanContext {
  readonly catalogue?: Catalogue
  /** Anchors as they were driven, by anchor id. */
  readonly drives?: ReadonlyMap<string, Drive>
}

const NO_LOADS: WireLoads = { cropNPerM: 0, leafNPerM: 0, windNPerM: 0 }

/**
 * The consequences of a design at a place. A step that refuses its input leaves a problem and the steps
 * before it stand, so a grower sees the drawing even where the handling length is too short for one run.
 * Throws only for bugs.
 */
export function planFrame(site: PlannedSite, design: FrameDesign, context: PlanContext = {}): FramePlan {
  const catalogue = context.catalogue ?? standardCatalogue
  const problems: CoreError[] = []
  const attempt = <T>(step: () => T): T | null => {
    try {
      return step()
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      problems.push(error)
      return null
    }
  }
  const fixing = findFixing(catalogue, design.fixingId) ?? catalogue.fixings[0] ?? null
  const wire = findWire(catalogue, design.wireId) ?? null
  const repeat = attempt(() => requireWhole('repeat', design.repeat, 1, 10_000))
  const frame = attempt(() => makeFrame(site, design.pattern, frameOptions(design, catalogue)))
  const nothing = {
    repeat: repeat ?? 1,
    markOut: null,
    strings: [],
    stock: [],
    lines: [],
    loads: NO_LOADS,
    checks: [],
    takeOff: null,
  }
  if (!frame || !fixing || repeat === null) return { frame, ...nothing, wire, fixing, problems }
  const strings = planStrings(frame, design, catalogue, attempt)
  const stock = planStock(frame, catalogue, repeat, attempt)
  const loads = wireLoads(frame, design, site.conditions)
  const lines = attempt(() => strainedLines(frame, site, design, catalogue, loads)) ?? []
  const checks =
    attempt(() =>
      checkFrame({
        frame,
        site,
        design,
        catalogue,
        fixing,
        lines,
        loads,
        drives: context.drives ?? new Map<string, Drive>(),
      }),
    ) ?? []
  return {
    frame,
    repeat,
    markOut: markOut(frame, site),
    strings,
    stock,
    lines,
    loads,
    checks,
    takeOff: takeOff({ frame, strings, stock, fixing, surface: site.surface, catalogue, repeat }),
    wire,
    fixing,
    problems,
  }
}

function strainedLines(
  frame: Frame,
  site: PlannedSite,
  design: FrameDesign,
  catalogue: Catalogue,
  loads: WireLoads,
): WireLine[] {
  const choice = (slot: 'main' | 'light') => {
    const { wireId, tensionN } = choiceOf(design, slot)
    const wire = findWire(catalogue, wireId)
    return wire ? { wire, tensionN: requireRange('tensionN', tensionN, 1e-3, 1e6) } : null
  }
  return wireLines(frame, { main: choice('main'), light: choice('light') }, loads, {
    conditions: site.conditions,
    setC: design.setC,
    endStiffnessNPerM: endStiffness(design, catalogue),
  })
}
