import { boundOf } from './bound.ts'
import type { Bound, Open } from './bound.ts'
import type { Choice, Laid, LayingInstance } from './instance.ts'
import { costOf, flattened, programOf } from './rows.ts'
import type { Program } from './rows.ts'

export interface LayingSolution {
  /** The best choice that was found; `null` where none meets the requirements, or none was found in time. */
  readonly chosen: Choice | null
  readonly laid: Laid | null
  /** Whether nothing is better: then `bound` is its objective. */
  readonly isProven: boolean
  /** No choice is better than this; Infinity where there is none at all. */
  readonly bound: number
}

export interface LayingLimits {
  readonly deadlineMs?: number
  /** A clock of the caller's, milliseconds: core has none. Without it there is no deadline. */
  readonly now?: () => number
  readonly onProgress?: (so: { readonly objective: number | null; readonly bound: number }) => void
  readonly isCancelled?: () => boolean
}

const ROOT_STEPS = 2500
const NODE_STEPS = 100
const NODE_SCALE = 0.9
const SAME = 1e-9
/** From the first nodes, and then from some, a choice is made and bettered. */
const TRIED_FIRST = 30
const TRY_EVERY = 12
/** Nodes between two looks at the clock. */
const LOOK_EVERY = 16

/**
 * Exactly one option for each candidate at the least cost, by branch and bound on Lagrange's bound. Exact where it
 * ends by itself; where the deadline or the caller ends it, the best so far and what it can be worse by. Parts of the
 * instance that share no row are solved one by one.
 */
export function solveLaying(instance: LayingInstance, limits: LayingLimits = {}): LayingSolution {
  const program = programOf(instance)
  const { now } = limits
  const end = now && limits.deadlineMs !== undefined ? now() + limits.deadlineMs : Infinity
  const isOver = () => limits.isCancelled?.() === true || (now !== undefined && now() >= end)
  const { fixed, parts } = partsOf(program)
  const picked: number[] = program.columns.map(() => 0)
  let [bound, isProven, isFound] = [fixed, true, fixed < Infinity]
  for (const [n, part] of parts.entries()) {
    const left = parts.length - n
    const partEnd = now && Number.isFinite(end) ? now() + Math.max(1, (end - now()) / left) : Infinity
    const done = solvePart(part.program, () => isOver() || (now !== undefined && now() >= partEnd), limits)
    bound += done.bound
    isProven &&= done.isProven
    if (done.picked) part.candidates.forEach((c, i) => (picked[c] = done.picked![i]!))
    else isFound = false
  }
  if (!isFound) return { chosen: null, laid: null, isProven, bound: isProven ? Infinity : bound }
  const laid = laidOf(program, picked)
  const chosen = Object.fromEntries(
    instance.candidates.map(({ id, options }, c) => [id, options[picked[c]!]!.id]),
  )
  return { chosen, laid, isProven, bound: isProven ? laid.objective : Math.min(bound, laid.objective) }
}

/** What a choice comes to: its objective is Infinity where a requirement is not met. */
export function valueOf(instance: LayingInstance, choice: Choice): Laid {
  const picked = instance.candidates.map(({ id, options }) =>
    options.findIndex((one) => one.id === choice[id]),
  )
  return laidOf(programOf(instance), picked)
}

function laidOf({ rows, columns }: Program, picked: readonly number[]): Laid {
  const sums = sumsOf(rows.length, columns, picked)
  let [objective, uncoveredM, overlapM, buds] = [0, 0, 0, 0]
  rows.forEach((row, r) => {
    objective += costOf(row, sums[r]!)
    if (row.is !== 'stretch') return
    if (sums[r] === 0) uncoveredM += row.wantedM
    overlapM += row.lengthM * Math.max(0, sums[r]! - 1)
  })
  picked.forEach((o, c) => {
    objective += columns[c]![o]!.cost
    buds += columns[c]![o]!.buds
  })
  return { objective, uncoveredM, overlapM, buds }
}

function sumsOf(count: number, columns: Program['columns'], picked: readonly number[]): Float64Array {
  const sums = new Float64Array(count)
  picked.forEach((o, c) => {
    const { rows, amounts } = columns[c]![o]!
    for (let i = 0; i < rows.length; i++) sums[rows[i]!]! += amounts[i]!
  })
  return sums
}

interface Part {
  readonly candidates: readonly number[]
  readonly program: Program
}

/** Candidates that share a row belong together; what no candidate can touch costs what it costs. */
function partsOf({ rows, columns }: Program): { readonly fixed: number; readonly parts: readonly Part[] } {
  const root = columns.map((_, c) => c)
  const find = (c: number): number => (root[c] === c ? c : (root[c] = find(root[c]!)))
  const first = new Map<number, number>()
  columns.forEach((options, c) => {
    for (const { rows: of } of options)
      for (const row of of) {
        const other = first.get(row)
        if (other === undefined) first.set(row, c)
        else root[find(c)] = find(other)
      }
  })
  const fixed = rows.reduce((sum, row, r) => (first.has(r) ? sum : sum + costOf(row, 0)), 0)
  const groups = new Map<number, number[]>()
  columns.forEach((_, c) => groups.set(find(c), [...(groups.get(find(c)) ?? []), c]))
  const parts = [...groups.values()].map((candidates): Part => {
    const touched = new Set(candidates.flatMap((c) => columns[c]!.flatMap(({ rows: of }) => of)))
    // In their order: stretches that lie beside each other stay so.
    const own = [...touched].sort((a, b) => a - b)
    const place = new Map(own.map((row, i) => [row, i]))
    const mine = candidates.map((c) =>
      columns[c]!.map((one) => ({ ...one, rows: one.rows.map((row) => place.get(row)!) })),
    )
    const ours = own.map((r) => rows[r]!)
    return { candidates, program: flattened(ours, mine) }
  })
  return { fixed, parts }
}

interface PartDone {
  readonly picked: readonly number[] | null
  readonly isProven: boolean
  readonly bound: number
}

function solvePart(program: Program, isOver: () => boolean, limits: LayingLimits): PartDone {
  const { rows, columns } = program
  let best: { readonly picked: readonly number[]; readonly objective: number } | null = null
  let [nodes, wasCut, openBound] = [0, false, Infinity]
  const all: Open = columns.map((options) => options.map((_, o) => o))
  offer(improved(all.map(() => 0)))
  const start = new Float64Array(rows.length)
  const root = boundOf(program, all, start, targetOf(start, all), ROOT_STEPS)
  search(all, root)
  const objective = best ? (best as { objective: number }).objective : Infinity
  const bound = wasCut ? Math.min(openBound, objective) : objective
  return { picked: best ? (best as { picked: readonly number[] }).picked : null, isProven: !wasCut, bound }

  function targetOf(_: Float64Array, open: Open): number {
    if (best) return best.objective
    // Without a choice yet: anything above what can come of it.
    return open.reduce(
      (sum, options, c) => sum + Math.max(...options.map((o) => Math.abs(columns[c]![o]!.cost))),
      rows.reduce((sum, row) => sum + row.gap + row.weight + row.max, 1),
    )
  }

  function offer(picked: readonly number[]): void {
    const { objective: value } = laidOf(program, picked)
    if (value < (best?.objective ?? Infinity) - SAME) {
      best = { picked: [...picked], objective: value }
      limits.onProgress?.({ objective: value, bound: openBound })
    }
  }

  /** Better by changing one candidate at a time, as long as that helps; broken requirements weigh most. */
  function improved(from: readonly number[]): number[] {
    const picked = [...from]
    const sums = sumsOf(rows.length, columns, picked)
    const soft = (r: number, sum: number) => {
      const row = rows[r]!
      if (row.is !== 'requirement') return costOf(row, sum)
      return BROKEN * Math.max(0, row.min - sum, sum - row.max)
    }
    for (let isBetter = true, round = 0; isBetter && round < MOST_ROUNDS; round++) {
      isBetter = false
      for (let c = 0; c < columns.length; c++) {
        const was = columns[c]![picked[c]!]!
        let [to, gain] = [picked[c]!, SAME]
        for (let o = 0; o < columns[c]!.length; o++) {
          if (o === picked[c]) continue
          const change = changeOf(was, columns[c]![o]!, sums, soft)
          if (-change > gain) [to, gain] = [o, -change]
        }
        if (to === picked[c]) continue
        move(sums, was, -1)
        move(sums, columns[c]![to]!, 1)
        picked[c] = to
        isBetter = true
      }
    }
    return picked
  }

  function search(open: Open, bound: Bound): void {
    if (nodes++ % LOOK_EVERY === 0 && isOver()) wasCut = true
    if (wasCut) {
      openBound = Math.min(openBound, bound.value)
      return
    }
    if (nodes <= TRIED_FIRST || nodes % TRY_EVERY === 0)
      offer(improved(open.map((options, c) => options[bound.cheapest[c]!]!)))
    const most = () => best?.objective ?? Infinity
    if (bound.value >= most() - SAME) return
    // What would take the bound over the best choice is not chosen here.
    const narrowed = open.map((options, c) =>
      options.filter((_, k) => bound.value + bound.reduced[c]![k]! < most() - SAME),
    )
    if (narrowed.some((options) => options.length === 0)) return
    const at = branchAt(open, narrowed, bound)
    if (at === null) return offer(narrowed.map((options) => options[0]!))
    const ways = narrowed[at]!.map((option) => ({
      option,
      worse: bound.reduced[at]![open[at]!.indexOf(option)]!,
    })).sort((a, b) => a.worse - b.worse)
    for (const [n, { option, worse }] of ways.entries()) {
      if (wasCut) {
        openBound = Math.min(openBound, bound.value + Math.min(...ways.slice(n).map((one) => one.worse)))
        return
      }
      if (bound.value + worse >= most() - SAME) continue
      const child = narrowed.map((options, c) => (c === at ? [option] : options))
      search(
        child,
        boundOf(program, child, bound.slopes, targetOf(bound.slopes, child), NODE_STEPS, NODE_SCALE),
      )
    }
  }

  /** The candidate that is least decided: its two best options are nearly one as good as the other. */
  function branchAt(open: Open, narrowed: Open, bound: Bound): number | null {
    let [at, least] = [-1, Infinity]
    narrowed.forEach((options, c) => {
      if (options.length < 2) return
      const worse = options.map((o) => bound.reduced[c]![open[c]!.indexOf(o)]!).sort((a, b) => a - b)
      if (worse[1]! < least) [at, least] = [c, worse[1]!]
    })
    return at < 0 ? null : at
  }
}

/** One requirement that is broken by one outweighs whatever else a choice may save. */
const BROKEN = 1e7
const MOST_ROUNDS = 50

type Column = Program['columns'][number][number]

function move(sums: Float64Array, { rows, amounts }: Column, way: 1 | -1): void {
  for (let i = 0; i < rows.length; i++) sums[rows[i]!]! += way * amounts[i]!
}

/** What taking another option instead changes; the rows of both are in order and are gone through side by side. */
function changeOf(
  was: Column,
  next: Column,
  sums: Float64Array,
  soft: (row: number, sum: number) => number,
): number {
  let change = next.cost - was.cost
  for (let [i, k] = [0, 0]; i < was.rows.length || k < next.rows.length; ) {
    const [a, b] = [was.rows[i] ?? Infinity, next.rows[k] ?? Infinity]
    const row = a < b ? a : b
    let by = 0
    if (a === row) by -= was.amounts[i++]!
    if (b === row) by += next.amounts[k++]!
    if (by !== 0) change += soft(row, sums[row]! + by) - soft(row, sums[row]!)
  }
  return change
}
