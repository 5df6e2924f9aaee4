import type { Option, Question, Remark } from './question.ts'
import type { PlantView, Stem } from './plant.ts'
import type { Task } from './system.ts'

/** An option that does nothing in particular; what differs is said. */
export const option = (id: string, deed: Option['deed'], rest: Partial<Option> = {}): Option => ({
  id,
  deed,
  cost: 0,
  buds: 0,
  cutM: null,
  aboveBuds: null,
  path: null,
  covers: [],
  towards: null,
  wire: null,
  isOnlyAsked: false,
  ...rest,
})

/** A question in which nothing is counted, filled or forbidden; what differs is said. */
export const questionOf = (rest: Pick<Question, 'code' | 'candidates'> & Partial<Question>): Question => ({
  counts: null,
  tellsBare: false,
  stretches: [],
  rules: [],
  never: [],
  crossings: [],
  standingBuds: 0,
  buds: { aim: 0, min: 0, max: 100_000, costPerBud: 0 },
  weights: { gapPerM: 0, overlapPerM: 0 },
  followUps: () => [],
  remarks: () => [],
  ...rest,
})

export const off = (cost = 0): Option => option('off', 'off', { cost, cutM: 0, aboveBuds: 0 })

/** One cuts half a joint above the last bud that stays. */
const ABOVE_BUD = 0.5

/** What is left of a stem that is cut above so many buds: never more than there is. */
export function cutAbove(stem: Pick<Stem, 'internodeM' | 'lengthM' | 'buds'>, buds: number) {
  const kept = Math.min(buds, stem.buds)
  return { aboveBuds: kept, cutM: Math.min(stem.lengthM, (kept + ABOVE_BUD) * stem.internodeM) }
}

export function spur(stem: Stem, view: PlantView, cost: number, rest: Partial<Option> = {}): Option {
  const { aboveBuds, cutM } = cutAbove(stem, view.settings.spurBuds)
  return option('spur', 'spur', { cost, buds: aboveBuds, aboveBuds, cutM, ...rest })
}

/** A spur with one bud more than usual: its shoot fills a place beside it. */
export function longSpur(stem: Stem, view: PlantView, cost: number, rest: Partial<Option> = {}): Option {
  const { aboveBuds, cutM } = cutAbove(stem, view.settings.spurBuds + 1)
  return option('long-spur', 'spur', { cost, buds: aboveBuds, aboveBuds, cutM, ...rest })
}

/** How a craft tells what an answer means beyond itself: by the names of its own words. */
export const remarksIn =
  <Code extends string>() =>
  (code: Code, rest: Partial<Remark> = {}): Remark => ({
    code,
    pieceId: null,
    figure: null,
    unit: null,
    n: null,
    side: null,
    on: null,
    isLack: false,
    wireAtM: null,
    ...rest,
  })

export const tasksIn =
  <Code extends string>() =>
  (code: Code, count: number | null = null): Task => ({ code, count })

/** The name of a text without what tells its forms apart. */
export type Plain<Name> = Name extends `${infer Own}_${string}` ? Own : Name & string
