import { CoreError, requireRange } from '../errors/index.ts'
import type { LayingInstance, OptionRef } from './instance.ts'

/**
 * One row of the program: how much of it each option brings, and what the sum of them costs. All these costs are
 * convex in the sum, so that a slope from `slope[0]` to `slope[1]` bounds them from below:
 * f(n) ≥ λ n − conjugate(λ).
 */
export interface Row {
  readonly is: 'stretch' | 'crossing' | 'requirement' | 'buds'
  /** What a further layer on a stretch costs, or a bud. */
  readonly weight: number
  /** Cost of nothing there, for a stretch: what is wanted of it and not covered. */
  readonly gap: number
  /** Length that is wanted, metres. */
  readonly wantedM: number
  readonly lengthM: number
  readonly min: number
  readonly max: number
  readonly slope: readonly [number, number]
}

/** What one option brings to the rows. */
export interface Column {
  readonly cost: number
  readonly buds: number
  readonly rows: readonly number[]
  readonly amounts: readonly number[]
}

/** An instance as rows and columns; candidates and options by their place in the instance. */
export interface Program {
  readonly rows: readonly Row[]
  readonly columns: readonly (readonly Column[])[]
  readonly flat: Flat
}

const MOST = 1e9
/** Lengths nearer than this are one length: ends that are sums of tenths touch. */
const TOUCH_M = 1e-9

/**
 * Cuts the tracks at every end of a cover or of a wanted stretch, and writes down what each option brings. Throws
 * `laying/unknown` for a track, candidate or option that is not there, `laying/no-option` for a candidate without one,
 * `core/*` for figures that are none.
 */
export function programOf(instance: LayingInstance): Program {
  const { weights, buds } = instance
  const gapPerM = requireRange('gapPerM', weights.gapPerM, 0, MOST)
  const overlapPerM = requireRange('overlapPerM', weights.overlapPerM, 0, MOST)
  const rows: Row[] = []
  const brought = instance.candidates.map(({ id, options }) => {
    if (options.length === 0)
      throw new CoreError('laying/no-option', `${id} has no option`, { candidate: id })
    return options.map(() => new Map<number, number>())
  })
  const indexOf = indexes(instance)
  const bring = (row: number, candidate: number, option: number, amount: number) => {
    const of = brought[candidate]![option]!
    of.set(row, (of.get(row) ?? 0) + amount)
  }
  for (const track of instance.tracks) layTrack(track)
  addCrossings()
  addConflicts()
  for (const { options, min, max } of instance.requirements) {
    rows.push({ ...NOTHING, is: 'requirement', min, max, slope: FREE })
    for (const ref of options) bring(rows.length - 1, ...indexOf(ref), 1)
  }
  const costPerBud = requireRange('costPerBud', buds.costPerBud, 0, MOST)
  if (costPerBud > 0) {
    const { min, max } = buds
    rows.push({ ...NOTHING, is: 'buds', weight: costPerBud, min, max, slope: [-costPerBud, costPerBud] })
    instance.candidates.forEach(({ options }, c) =>
      options.forEach((option, o) => bring(rows.length - 1, c, o, option.buds)),
    )
  }
  const columns = instance.candidates.map(({ options }, c) =>
    options.map((option, o): Column => {
      const of = [...brought[c]![o]!].filter(([, amount]) => amount !== 0)
      return {
        cost: requireRange('cost', option.cost, -MOST, MOST),
        buds: requireRange('buds', option.buds, 0, MOST),
        rows: of.map(([row]) => row),
        amounts: of.map(([, amount]) => amount),
      }
    }),
  )
  return flattened(rows, columns)

  /**
   * Crossings of one option with several of another candidate, of which only one can be chosen, are one row: as much as
   * the dearest of them for the one, for each of the others its own cost, and what is over the dearest is paid.
   */
  function addCrossings(): void {
    const byPair = new Map<
      string,
      { a: readonly [number, number]; others: Map<number, number>; other: number }
    >()
    for (const { a, b, cost } of instance.crossings) {
      const [at, other] = [indexOf(a), indexOf(b)]
      const key = `${at.join(' ')} ${other[0]}`
      const row = byPair.get(key) ?? { a: at, other: other[0], others: new Map<number, number>() }
      row.others.set(other[1], (row.others.get(other[1]) ?? 0) + requireRange('cost', cost, 0, MOST))
      byPair.set(key, row)
    }
    for (const { a, other, others } of byPair.values()) {
      const dearest = Math.max(...others.values())
      if (dearest === 0) continue
      rows.push({ ...NOTHING, is: 'crossing', max: dearest, slope: [0, 1] })
      bring(rows.length - 1, ...a, dearest)
      for (const [option, cost] of others) bring(rows.length - 1, other, option, cost)
    }
  }

  /**
   * Conflicts between two candidates, of each of which only one option is chosen: options that are in conflict with the
   * same ones of the other are one row, of which one is chosen at most.
   */
  function addConflicts(): void {
    const byPair = new Map<string, Map<number, Set<number>>>()
    for (const { a, b } of instance.conflicts) {
      const [first, second] = [indexOf(a), indexOf(b)].sort((one, two) => one[0] - two[0]) as [
        readonly [number, number],
        readonly [number, number],
      ]
      const pair = `${first[0]} ${second[0]}`
      const against = byPair.get(pair) ?? new Map<number, Set<number>>()
      against.set(first[1], (against.get(first[1]) ?? new Set<number>()).add(second[1]))
      byPair.set(pair, against)
    }
    for (const [pair, against] of byPair) {
      const [c, d] = pair.split(' ').map(Number) as [number, number]
      const alike = new Map<string, { mine: number[]; theirs: readonly number[] }>()
      for (const [option, others] of against) {
        const theirs = [...others].sort((one, two) => one - two)
        const group = alike.get(theirs.join(' ')) ?? { mine: [], theirs }
        group.mine.push(option)
        alike.set(theirs.join(' '), group)
      }
      for (const { mine, theirs } of alike.values()) {
        rows.push({ ...NOTHING, is: 'requirement', max: 1, slope: FREE })
        for (const option of mine) bring(rows.length - 1, c, option, 1)
        for (const option of theirs) bring(rows.length - 1, d, option, 1)
      }
    }
  }

  function layTrack({ id, lengthM, wanted }: LayingInstance['tracks'][number]): void {
    const endM = requireRange('lengthM', lengthM, 0, MOST)
    const within = (m: number) => Math.min(endM, Math.max(0, requireRange('coverM', m, -MOST, MOST)))
    const covers = instance.candidates.flatMap(({ options }, candidate) =>
      options.flatMap((option, o) =>
        option.covers
          .filter(({ track }) => track === id)
          .map(({ fromM, toM }) => ({ candidate, option: o, from: within(fromM), to: within(toM) })),
      ),
    )
    const asked = wanted.map(([from, to]) => [within(from), within(to)] as const)
    const cuts = distinct([0, endM, ...asked.flat(), ...covers.flatMap(({ from, to }) => [from, to])])
    for (let i = 1; i < cuts.length; i++) {
      const [from, to] = [cuts[i - 1]!, cuts[i]!]
      const middle = (from + to) / 2
      const isWanted = asked.some(([a, b]) => a <= middle && middle <= b)
      const here = covers.filter((cover) => cover.from <= middle && middle <= cover.to)
      if (!isWanted && here.length === 0) continue
      const length = to - from
      const gap = isWanted ? gapPerM * length : 0
      rows.push({
        ...NOTHING,
        is: 'stretch',
        weight: overlapPerM * length,
        gap,
        wantedM: isWanted ? length : 0,
        lengthM: length,
        slope: [-gap, overlapPerM * length],
      })
      for (const { candidate, option } of here) bring(rows.length - 1, candidate, option, 1)
    }
  }
}

const FREE = [-Infinity, Infinity] as const
const NOTHING = { weight: 0, gap: 0, wantedM: 0, lengthM: 0, min: 0, max: 0 }

function distinct(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted.filter((value, i) => i === 0 || value - sorted[i - 1]! > TOUCH_M)
}

function indexes(instance: LayingInstance): (ref: OptionRef) => readonly [number, number] {
  const byCandidate = new Map(instance.candidates.map(({ id }, c) => [id, c]))
  const byOption = instance.candidates.map(({ options }) => new Map(options.map(({ id }, o) => [id, o])))
  const tracks = new Set(instance.tracks.map(({ id }) => id))
  for (const { id, options } of instance.candidates)
    for (const { covers } of options)
      for (const { track } of covers)
        if (!tracks.has(track))
          throw new CoreError('laying/unknown', `${id} covers ${track}, which is not there`, { id: track })
  return ([candidate, option]) => {
    const c = byCandidate.get(candidate)
    const o = c === undefined ? undefined : byOption[c]!.get(option)
    if (c === undefined || o === undefined)
      throw new CoreError('laying/unknown', `There is no ${option} of ${candidate}`, { candidate, option })
    return [c, o]
  }
}

/** Cost of a row at a sum; Infinity for a requirement that is not met. */
export function costOf(row: Row, sum: number): number {
  switch (row.is) {
    case 'stretch':
      return sum === 0 ? row.gap : row.weight * (sum - 1)
    case 'crossing':
      return Math.max(0, sum - row.max)
    case 'requirement':
      return sum < row.min || sum > row.max ? Infinity : 0
    case 'buds':
      return row.weight * Math.max(0, row.min - sum, sum - row.max)
  }
}

/**
 * Rows and columns laid flat for the bound. A stretch and a crossing have their least at `max`, from both sides; a
 * requirement and the buds lie level from `min` to `max`.
 */
export interface Flat {
  readonly count: number
  readonly atZero: Uint8Array
  readonly min: Float64Array
  readonly max: Float64Array
  readonly low: Float64Array
  readonly high: Float64Array
  /** Column of the first option of each candidate. */
  readonly first: Int32Array
  readonly cost: Float64Array
  /** Stretches come first, so many of them. A column covers them in runs that lie one after the other. */
  readonly stretches: number
  /** Where each column's runs begin in `from`, `to` and `times`. */
  readonly runs: Int32Array
  readonly from: Int32Array
  readonly to: Int32Array
  readonly times: Float64Array
  /** Where each column's entries in all other rows begin in `index` and `amount`. */
  readonly start: Int32Array
  readonly index: Int32Array
  readonly amount: Float64Array
}

interface Run {
  readonly from: number
  to: number
  readonly times: number
}

/** The stretches of a column, which come in order, as runs of the same amount. */
function runsOf({ rows, amounts }: Column, stretches: number): readonly Run[] {
  const runs: Run[] = []
  rows.forEach((row, i) => {
    if (row >= stretches) return
    const last = runs.at(-1)
    if (last && last.to === row && last.times === amounts[i]) last.to = row + 1
    else runs.push({ from: row, to: row + 1, times: amounts[i]! })
  })
  return runs
}

const startsOf = (lists: readonly (readonly unknown[])[]): Int32Array => {
  const starts = new Int32Array(lists.length + 1)
  lists.forEach((list, k) => (starts[k + 1] = starts[k]! + list.length))
  return starts
}

/** The program with its flat form; of its rows the stretches come first, and in each column they are in order. */
export function flattened(rows: readonly Row[], columns: Program['columns']): Program {
  const all = columns.flat()
  const first = new Int32Array(columns.length)
  for (let c = 1; c < columns.length; c++) first[c] = first[c - 1]! + columns[c - 1]!.length
  const stretches = rows.filter(({ is }) => is === 'stretch').length
  const runs = all.map((column) => runsOf(column, stretches))
  const others = all.map(({ rows: of, amounts }) =>
    of.flatMap((row, i) => (row < stretches ? [] : [{ row, amount: amounts[i]! }])),
  )
  // The conjugate of a stretch is its slope, of a crossing its slope times its most: one product for all rows.
  const turns = (row: Row) => (row.is === 'stretch' ? 1 : row.max)
  return {
    rows,
    columns,
    flat: {
      count: rows.length,
      atZero: Uint8Array.from(rows, ({ is }) => (is === 'stretch' || is === 'crossing' ? 1 : 0)),
      min: Float64Array.from(rows, (row) =>
        row.is === 'requirement' || row.is === 'buds' ? row.min : turns(row),
      ),
      max: Float64Array.from(rows, turns),
      low: Float64Array.from(rows, ({ slope }) => slope[0]),
      high: Float64Array.from(rows, ({ slope }) => slope[1]),
      first,
      cost: Float64Array.from(all, ({ cost }) => cost),
      stretches,
      runs: startsOf(runs),
      from: Int32Array.from(runs.flat(), ({ from }) => from),
      to: Int32Array.from(runs.flat(), ({ to }) => to),
      times: Float64Array.from(runs.flat(), ({ times }) => times),
      start: startsOf(others),
      index: Int32Array.from(others.flat(), ({ row }) => row),
      amount: Float64Array.from(others.flat(), ({ amount }) => amount),
    },
  }
}
