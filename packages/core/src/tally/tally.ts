import { daysBetween } from '../season/index.ts'
import type { CalendarDate } from '../season/index.ts'

/** What is counted at a plant instead of drawing it. */
export interface Counted {
  readonly canes: number | null
  readonly spurs: number | null
  readonly buds: number | null
  readonly ties: number | null
  readonly minutes: number | null
  readonly pruningsKg: number | null
}

export type TallyFailure = 'empty' | 'not-a-count' | 'unknown-word'
export type TallyLine =
  | { readonly ok: true; readonly counted: Counted }
  | { readonly ok: false; readonly reason: TallyFailure; readonly word: string }

const ORDER = ['canes', 'spurs', 'buds', 'ties', 'minutes'] as const
const MOST_COUNT = 10_000
const MOST_KG = 1000
const KG_PER_LB = 0.45359237
const MASS = /^(\d+(?:[.,]\d+)?)(kg|g|lb|lbs|oz)$/
const IN_KG: Readonly<Record<string, number>> = {
  kg: 1,
  g: 0.001,
  lb: KG_PER_LB,
  lbs: KG_PER_LB,
  oz: KG_PER_LB / 16,
}

/**
 * Reads what one calls out at a plant of a row: canes, spurs, buds, ties, minutes in that order, as many as one likes; a
 * dash leaves one out; the mass of prunings with its unit, `2 2 28 0.6kg`.
 */
export function readTallyLine(text: string): TallyLine {
  const parts = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (parts.length === 0) return { ok: false, reason: 'empty', word: '' }
  const counts: (number | null)[] = []
  let pruningsKg: number | null = null
  for (const part of parts) {
    const mass = MASS.exec(part)
    if (mass) {
      pruningsKg = Number(mass[1]!.replace(',', '.')) * IN_KG[mass[2]!]!
      if (pruningsKg > MOST_KG) return { ok: false, reason: 'not-a-count', word: part }
    } else if (part === '-' || part === '–') counts.push(null)
    else if (!/^\d+$/.test(part)) return { ok: false, reason: 'unknown-word', word: part }
    else if (Number(part) > MOST_COUNT || counts.length >= ORDER.length)
      return { ok: false, reason: 'not-a-count', word: part }
    else counts.push(Number(part))
  }
  const [canes = null, spurs = null, buds = null, ties = null, minutes = null] = counts
  return { ok: true, counted: { canes, spurs, buds, ties, minutes, pruningsKg } }
}

/** One plant of a row, as far as its count goes. */
export interface RowPlant {
  readonly id: string
  /** `missing`: a gap in the row; `young`: with a budget of its own; `portrait`: drawn, its buds from its choice. */
  readonly is: 'counted' | 'portrait' | 'young' | 'missing'
  readonly target: { readonly aim: number; readonly min: number; readonly max: number }
  readonly counted: Counted | null
}

export interface RowTotals {
  readonly plants: number
  readonly missing: number
  readonly young: number
  readonly portraits: number
  /** Plants of which the buds are known, and those that count towards the budget. */
  readonly known: number
  readonly buds: number
  readonly wanted: number
  /** What the plants already known were to have. */
  readonly wantedOfKnown: number
  readonly short: number
  readonly over: number
  /** Buds beyond what is near enough, on all that are over: to be trimmed. */
  readonly toTrim: number
  readonly canes: number
  readonly spurs: number
  readonly ties: number
  readonly minutes: number
  readonly pruningsKg: number
}

export type BudState = 'unknown' | 'short' | 'within' | 'over' | 'not-counted'

/** How a plant stands to its budget; missing plants have none, and young ones go by their own. */
export function budState({ is, target, counted }: RowPlant): BudState {
  if (is === 'missing') return 'not-counted'
  const buds = counted?.buds ?? null
  if (buds === null) return 'unknown'
  return buds < target.min ? 'short' : buds > target.max ? 'over' : 'within'
}

/** A row added up. Missing plants count for nothing, young ones not towards the row's budget. */
export function rowTotals(plants: readonly RowPlant[]): RowTotals {
  const standing = plants.filter(({ is }) => is !== 'missing')
  const grown = standing.filter(({ is }) => is !== 'young')
  const known = grown.filter(({ counted }) => (counted?.buds ?? null) !== null)
  const sum = (of: readonly RowPlant[], what: (plant: RowPlant) => number | null | undefined) =>
    of.reduce((total, plant) => total + (what(plant) ?? 0), 0)
  return {
    plants: plants.length,
    missing: plants.length - standing.length,
    young: standing.length - grown.length,
    portraits: standing.filter(({ is }) => is === 'portrait').length,
    known: known.length,
    buds: sum(known, ({ counted }) => counted!.buds),
    wanted: sum(grown, ({ target }) => target.aim),
    wantedOfKnown: sum(known, ({ target }) => target.aim),
    short: grown.filter((plant) => budState(plant) === 'short').length,
    over: grown.filter((plant) => budState(plant) === 'over').length,
    toTrim: sum(grown, (plant) => (budState(plant) === 'over' ? plant.counted!.buds! - plant.target.max : 0)),
    canes: sum(standing, ({ counted }) => counted?.canes),
    spurs: sum(standing, ({ counted }) => counted?.spurs),
    ties: sum(standing, ({ counted }) => counted?.ties),
    minutes: sum(standing, ({ counted }) => counted?.minutes),
    pruningsKg: sum(standing, ({ counted }) => counted?.pruningsKg),
  }
}

/** A count holds for the winter in which it was made. */
const WINTER_DAYS = 200

/** What was counted at a plant this winter, each figure as it was last given: one who weighs later counted before. */
export function countOfWinter(
  tallies: readonly (Counted & { readonly on: CalendarDate })[],
  on: CalendarDate,
): Counted | null {
  const ours = tallies.filter((tally) => tally.on <= on && daysBetween(tally.on, on) <= WINTER_DAYS)
  if (ours.length === 0) return null
  const last = (what: keyof Counted) => ours.findLast((tally) => tally[what] !== null)?.[what] ?? null
  return {
    canes: last('canes'),
    spurs: last('spurs'),
    buds: last('buds'),
    ties: last('ties'),
    minutes: last('minutes'),
    pruningsKg: last('pruningsKg'),
  }
}
