import { standardCatalogue } from '../catalogue/index.ts'
import type { FrameDesign, PlannedSite } from '../design/index.ts'
import type { CheckCode } from '../frame/index.ts'
import { checkDesign, planFrame } from '../plan/index.ts'
import type { PlanContext } from '../plan/index.ts'
import type { Check, CheckUnit } from '../strength/index.ts'
import { METRIC_GRAIN, leversOf } from './levers.ts'
import type { Grain, Lever, LeverStep } from './levers.ts'
import { triesOf } from './tries.ts'

/** A change of the design after which a check holds, computed and not guessed, and what it comes to. */
export interface Remedy {
  /** One change, or several that hold only together. */
  readonly steps: readonly LeverStep[]
  readonly design: FrameDesign
  /** What it costs more, and how much longer it takes; below zero for less. */
  readonly moreCost: number
  readonly moreMinutes: number
  /** Checks that are still open with it. */
  readonly open: number
}

/** What can be done about one thing that does not hold. */
export interface Advice {
  readonly code: CheckCode
  /** The least dear first. Empty where nothing in the catalogue makes it hold. */
  readonly remedies: readonly Remedy[]
  /** What would have to hold, where nothing on offer does: the rating to ask for. */
  readonly needed: { readonly value: number; readonly unit: CheckUnit } | null
}

export interface AllAdvice {
  readonly advice: readonly Advice[]
  /** Everything at once, where that takes more than one of them; `null` where it is one or cannot be done. */
  readonly together: Remedy | null
}

export interface AdviceContext extends PlanContext {
  readonly grain?: Grain
}

/**
 * Looking for pairs and for everything at once ends after so much work: frames tried, times their nodes. A large cover is
 * answered in seconds then, with what was found until that.
 */
const PAIR_WORK = 60_000
const TOGETHER_WORK = 300_000

/** What a search may still spend. */
interface Work {
  left: number
}
interface Searching extends AdviceContext {
  readonly work: Work
}
const within = (context: AdviceContext, left: number): Searching => ({ ...context, work: { left } })

/** Of so many levers moved together, so many tries of each are gone through, spread over all of them. */
const TRIES_OF: Readonly<Record<number, number>> = { 2: 12, 3: 8 }
const TRIES_IN_PAIR = 6
const MOST_REMEDIES = 4
/** Changes that are made one after the other for everything to hold. */
const MOST_STEPS = 8

/**
 * What to change for each check that does not hold. A proposal is laid out and checked as the bench would: with
 * it that check holds, nothing that held before gives way, and all of it can still be cut and bought.
 */
export function adviseAll(site: PlannedSite, design: FrameDesign, context: AdviceContext = {}): AllAdvice {
  const now = standingOf(site, design, within(context, Infinity))
  if (!now) return { advice: [], together: null }
  const base = costOf(site, design, context)
  const advice = [...now.open].map((code): Advice => {
    const remedies = base ? remediesOf(site, design, code, now, base, context) : []
    return { code, remedies, needed: remedies.length > 0 ? null : neededOf(now.checks, code) }
  })
  const isOneEnough = advice.some(({ remedies }) => remedies.some(({ open }) => open === 0))
  return {
    advice,
    together: isOneEnough || !base || now.open.size === 0 ? null : allTogether(site, design, base, context),
  }
}

interface Standing {
  readonly checks: readonly Check[]
  readonly open: ReadonlySet<CheckCode>
}

/** How a design stands; `null` where it cannot be laid out here or something in it is refused. */
function standingOf(site: PlannedSite, design: FrameDesign, context: Searching): Standing | null {
  if (context.work.left <= 0) return null
  const { frame, checks, problems } = checkDesign(site, design, context)
  context.work.left -= 1 + (frame?.nodes.length ?? 0)
  if (!frame || problems.length > 0) return null
  const open = new Set(checks.filter(({ verdict }) => verdict !== 'holds').map(({ code }) => code))
  return { checks, open }
}

/**
 * Whether `code` is no longer open, and nothing is that was not. A check may fall away with what it was about: a
 * post that is tied back need not stand by itself.
 */
function isBetter(after: Standing | null, code: CheckCode, before: Standing): after is Standing {
  return after !== null && !after.open.has(code) && [...after.open].every((one) => before.open.has(one))
}

interface Cost {
  readonly cost: number
  readonly minutes: number
}

function costOf(site: PlannedSite, design: FrameDesign, context: AdviceContext): Cost | null {
  const { takeOff, problems } = planFrame(site, design, context)
  return takeOff && problems.length === 0 ? takeOff : null
}

function remediesOf(
  site: PlannedSite,
  design: FrameDesign,
  code: CheckCode,
  now: Standing,
  base: Cost,
  context: AdviceContext,
  /** Of a search for everything at once, which this is a step of. */
  work: Work | null = null,
): Remedy[] {
  const alone = work ? { ...context, work } : within(context, Infinity)
  const single = leversOf[code].flatMap((lever) => {
    const found = firstThat(triesFor(lever, site, design, context), (step) =>
      remedyOf(site, [step], code, now, base, alone),
    )
    return found ? [found] : []
  })
  const found =
    single.length > 0
      ? single
      : pairFor(site, design, code, now, base, work ? alone : within(context, PAIR_WORK))
  return found.sort((a, b) => a.open - b.open || a.moreCost - b.moreCost).slice(0, MOST_REMEDIES)
}

const triesFor = (
  lever: Lever,
  site: PlannedSite,
  design: FrameDesign,
  context: AdviceContext,
): LeverStep[] =>
  triesOf[lever]({
    site,
    design,
    catalogue: context.catalogue ?? standardCatalogue,
    grain: context.grain ?? METRIC_GRAIN,
  })

function firstThat<T, R>(list: readonly T[], make: (item: T) => R | null): R | null {
  for (const item of list) {
    const made = make(item)
    if (made !== null) return made
  }
  return null
}

function remedyOf(
  site: PlannedSite,
  steps: readonly LeverStep[],
  code: CheckCode,
  before: Standing,
  base: Cost,
  context: Searching,
): Remedy | null {
  const { design } = steps.at(-1)!
  const after = standingOf(site, design, context)
  if (!isBetter(after, code, before)) return null
  const costs = costOf(site, design, context)
  if (!costs) return null
  return {
    steps,
    design,
    moreCost: costs.cost - base.cost,
    moreMinutes: costs.minutes - base.minutes,
    open: after.open.size,
  }
}

/** Two changes that hold only together: the first pair in the order of the levers. */
function pairFor(
  site: PlannedSite,
  design: FrameDesign,
  code: CheckCode,
  now: Standing,
  base: Cost,
  context: Searching,
): Remedy[] {
  const all = leversOf[code]
  for (const [i, first] of all.entries()) {
    for (const one of spread(triesFor(first, site, design, context), TRIES_IN_PAIR)) {
      for (const second of all.slice(i + 1)) {
        const found = firstThat(spread(triesFor(second, site, one.design, context), TRIES_IN_PAIR), (step) =>
          remedyOf(site, [one, step], code, now, base, context),
        )
        if (found) return [found]
      }
    }
  }
  return []
}

/** A few of a list, evenly, its last among them. */
function spread<T>(list: readonly T[], most: number): T[] {
  if (list.length <= most) return [...list]
  return Array.from({ length: most }, (_, i) => list[Math.ceil(((i + 1) * list.length) / most) - 1]!)
}

const cheapestFirst = (remedies: readonly Remedy[]) => [...remedies].sort((a, b) => a.moreCost - b.moreCost)

/** So many designs are gone on from in looking for one in which everything holds. */
const MOST_LOOKED_AT = 24

/**
 * Everything at once: the least dear remedy of what is weakest, and so on with what it leaves open, going back to
 * the next dearer one where that leads nowhere; then pairs of changes that settle all of it together.
 */
function allTogether(
  site: PlannedSite,
  design: FrameDesign,
  base: Cost,
  context: AdviceContext,
): Remedy | null {
  const search = within(context, TOGETHER_WORK)
  let looked = 0
  const goOn = (at: FrameDesign, taken: readonly LeverStep[]): readonly LeverStep[] | null => {
    const now = standingOf(site, at, search)
    if (!now) return null
    if (now.open.size === 0) return taken
    if (taken.length >= MOST_STEPS || ++looked > MOST_LOOKED_AT) return null
    return firstThat([...now.open], (code) =>
      firstThat(cheapestFirst(remediesOf(site, at, code, now, base, context, search.work)), (remedy) =>
        goOn(remedy.design, [...taken, ...remedy.steps]),
      ),
    )
  }
  const steps = goOn(design, []) ?? jointly(site, design, search)
  const end = steps?.at(-1)?.design
  const costs = end && costOf(site, end, context)
  if (!steps || !end || !costs) return null
  return {
    steps: merged(steps),
    design: end,
    moreCost: costs.cost - base.cost,
    moreMinutes: costs.minutes - base.minutes,
    open: 0,
  }
}

/** So many changes are made together at most, where one after the other leads nowhere. */
const MOST_JOINT = 3

/** The fewest changes after which nothing is open, whatever each of them alone would do. */
function jointly(site: PlannedSite, design: FrameDesign, context: Searching): LeverStep[] | null {
  const now = standingOf(site, design, context)
  const all = [...new Set([...(now?.open ?? [])].flatMap((code) => leversOf[code]))]
  const settles = (at: FrameDesign) =>
    standingOf(site, at, context)?.open.size === 0 &&
    costOf(site, at, { ...context, effort: 'quick' }) !== null
  const from = (
    at: FrameDesign,
    levers: readonly Lever[],
    depth: number,
    tries: number,
  ): LeverStep[] | null =>
    firstThat([...levers.entries()], ([i, lever]) =>
      firstThat(spread(triesFor(lever, site, at, context), tries), (step) => {
        if (depth === 1) return settles(step.design) ? [step] : null
        const rest = from(step.design, levers.slice(i + 1), depth - 1, tries)
        return rest ? [step, ...rest] : null
      }),
    )
  const depths = Array.from({ length: MOST_JOINT - 1 }, (_, i) => i + 2)
  return firstThat(depths, (depth) => from(design, all, depth, TRIES_OF[depth]!))
}

/** A lever moved twice is one change, from where it was to where it went. */
function merged(steps: readonly LeverStep[]): LeverStep[] {
  const byLever = new Map<Lever, LeverStep>()
  for (const step of steps)
    byLever.set(step.lever, { ...step, from: byLever.get(step.lever)?.from ?? step.from })
  return [...byLever.values()]
}

/** The greatest need among the checks of a code; `null` where none can be told. */
function neededOf(checks: readonly Check[], code: CheckCode): Advice['needed'] {
  const of = checks.filter((one) => one.code === code && one.need !== null)
  const [first] = of
  return first ? { value: Math.max(...of.map(({ need }) => need!)), unit: first.unit } : null
}
