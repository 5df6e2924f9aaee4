import { clashOf, solveLaying } from '../laying/index.ts'
import type { LayingInstance, LayingLimits, LayingSolution } from '../laying/index.ts'
import type {
  BudsBySide,
  Candidate,
  Chosen,
  FollowUp,
  Option,
  Question,
  Remark,
  Stretch,
} from './question.ts'

/** A grower's own choices: option by piece. */
export type Overrides = ReadonlyMap<string, string>

export interface Proposal {
  readonly chosen: Chosen
  readonly objective: number
  /** Nothing is better by these judgements; else it may be better by no more than `gap`. */
  readonly isProven: boolean
  readonly gap: number
  /** Buds of the plant when it is done so. */
  readonly buds: number
  readonly bySide: BudsBySide | null
  readonly bareM: number
  readonly doubleM: number
  readonly bare: readonly Bare[]
  readonly followUps: readonly FollowUp[]
  readonly remarks: readonly Remark[]
}

/** A part of a stretch that nothing lies on. */
export interface Bare {
  readonly stretch: Stretch
  readonly fromM: number
  readonly toM: number
}

/** The rules that an override would break, where there is no answer that keeps them all. */
export interface Refused {
  readonly rules: readonly string[]
}

/** Shorter than this is not bare: the last joint of a cane. */
const BARE_M = 0.05

/** Whether an option can be chosen: all that are proposed, or the one that the grower wants. */
function openOptions(question: Question, overrides: Overrides): (ref: readonly [string, string]) => boolean {
  const open = new Map(
    question.candidates.map(({ pieceId, options }) => {
      const asked = options.find(({ id }) => id === overrides.get(pieceId))
      const usual = asked ? [asked] : options.filter((one) => !one.isOnlyAsked)
      return [pieceId, new Set(usual.map(({ id }) => id))] as const
    }),
  )
  return ([pieceId, optionId]) => open.get(pieceId)?.has(optionId) ?? false
}

/** The question as the solver knows it; what is only done when asked for is left out unless it is. */
export function instanceOf(question: Question, overrides: Overrides = new Map()): LayingInstance {
  const isOpen = openOptions(question, overrides)
  const { standingBuds, buds } = question
  return {
    tracks: question.stretches.map(({ id, lengthM, wanted }) => ({ id, lengthM, wanted })),
    candidates: question.candidates.map(({ pieceId, options }) => ({
      id: pieceId,
      options: options
        .filter(({ id }) => isOpen([pieceId, id]))
        .map(({ id, cost, buds, covers }) => ({ id, cost, buds, covers })),
    })),
    crossings: question.crossings.filter(({ a, b }) => isOpen(a) && isOpen(b)),
    conflicts: question.never.filter(({ a, b }) => isOpen(a) && isOpen(b)).map(({ a, b }) => ({ a, b })),
    requirements: question.rules.map(({ options, min, max }) => ({
      options: options.filter(isOpen),
      min,
      max,
    })),
    buds: {
      min: Math.max(0, (buds.isTight ? buds.aim : buds.min) - standingBuds),
      max: Math.max(0, (buds.isTight ? buds.aim : buds.max) - standingBuds),
      costPerBud: buds.costPerBud,
    },
    weights: question.weights,
  }
}

/** The best answer by the judgements, with what the grower wants fixed; or the rules that it would break. */
export function propose(
  question: Question,
  overrides: Overrides = new Map(),
  limits: LayingLimits = {},
): Proposal | Refused {
  if (question.candidates.length === 0) return proposalOf(question, new Map(), 0, true, 0)
  const instance = instanceOf(question, overrides)
  return (
    proposalFrom(question, solveLaying(instance, limits)) ?? {
      rules: brokenBy(question, overrides, instance),
    }
  )
}

/** What a solution of the question's instance means; `null` where it has none. */
export function proposalFrom(
  question: Question,
  { chosen, laid, isProven, bound }: LayingSolution,
): Proposal | null {
  if (!chosen || !laid) return null
  const options = new Map(
    question.candidates.map(({ pieceId, options }) => [
      pieceId,
      options.find(({ id }) => id === chosen[pieceId])!,
    ]),
  )
  return proposalOf(question, options, laid.objective, isProven, Math.max(0, laid.objective - bound))
}

export const isRefused = (answer: object): answer is Refused => 'rules' in answer

function proposalOf(
  question: Question,
  chosen: Chosen,
  objective: number,
  isProven: boolean,
  gap: number,
): Proposal {
  const { bare, doubleM } = coverOf(question, chosen)
  return {
    chosen,
    objective,
    isProven,
    gap,
    buds: question.standingBuds + [...chosen.values()].reduce((sum, one) => sum + one.buds, 0),
    bySide: question.budsBySide?.(chosen) ?? null,
    bareM: bare.reduce((sum, { fromM, toM }) => sum + toM - fromM, 0),
    doubleM,
    bare: bare.filter(({ fromM, toM }) => toM - fromM > BARE_M),
    followUps: question.followUps(chosen),
    remarks: question.remarks(chosen),
  }
}

/** What of the wanted stretches nothing lies on, and how much lies double. */
function coverOf({ stretches }: Question, chosen: Chosen): { bare: Bare[]; doubleM: number } {
  const bare: Bare[] = []
  let doubleM = 0
  for (const stretch of stretches) {
    const covers = [...chosen.values()]
      .flatMap((one) => one.covers)
      .filter(({ track }) => track === stretch.id)
      .sort((a, b) => a.fromM - b.fromM)
    doubleM += doubled(covers)
    for (const [wantedFrom, wantedTo] of stretch.wanted) {
      let at = wantedFrom
      for (const { fromM, toM } of covers) {
        if (fromM > at) bare.push({ stretch, fromM: at, toM: Math.min(fromM, wantedTo) })
        at = Math.max(at, toM)
        if (at >= wantedTo) break
      }
      if (at < wantedTo) bare.push({ stretch, fromM: at, toM: wantedTo })
    }
  }
  return { bare: bare.filter(({ fromM, toM }) => toM > fromM + 1e-9), doubleM }
}

function doubled(covers: readonly { readonly fromM: number; readonly toM: number }[]): number {
  let [sum, reached] = [0, -Infinity]
  for (const { fromM, toM } of covers) {
    sum += Math.max(0, Math.min(toM, reached) - fromM)
    reached = Math.max(reached, toM)
  }
  return sum
}

/** Which rules do not go together with what the grower wants. */
function brokenBy(question: Question, overrides: Overrides, instance: LayingInstance): string[] {
  // What the wishes break among themselves is told whole; only where nothing is broken so, the least that clashes.
  const isWished = ([pieceId, optionId]: readonly [string, string]) => overrides.get(pieceId) === optionId
  const direct = [
    ...question.rules.filter(({ options, max }) => options.filter(isWished).length > max),
    ...question.never.filter(({ a, b }) => isWished(a) && isWished(b)),
  ]
  if (direct.length > 0) return [...new Set(direct.map(({ code }) => code))]
  const clash = clashOf(instance)
  if (!clash) return []
  const isOpen = openOptions(question, overrides)
  const never = question.never.filter(({ a, b }) => isOpen(a) && isOpen(b))
  return [
    ...new Set([
      ...clash.requirements.map((index) => question.rules[index]!.code),
      ...clash.conflicts.map((index) => never[index]!.code),
    ]),
  ]
}

/** What changes where one candidate is given another option: the answer to "why not". */
export interface Difference {
  readonly option: Option
  /** How much worse it is by the judgements; below zero where the grower's other wishes made it so. */
  readonly worseBy: number
  /** Other candidates that are then done otherwise. */
  readonly others: readonly {
    readonly candidate: Candidate
    readonly before: Option
    readonly after: Option
  }[]
  readonly bareM: number
  readonly bareMoreM: number
  readonly buds: number
  readonly budsMore: number
  readonly isProven: boolean
}

/** Solves again with that option fixed; or the rules that forbid it. */
export function whyNot(
  question: Question,
  now: Proposal,
  overrides: Overrides,
  pieceId: string,
  optionId: string,
  limits: LayingLimits = {},
): Difference | Refused {
  const then = propose(question, new Map(overrides).set(pieceId, optionId), limits)
  if (isRefused(then)) return then
  const others = question.candidates.flatMap((candidate) => {
    const [before, after] = [now.chosen.get(candidate.pieceId)!, then.chosen.get(candidate.pieceId)!]
    return candidate.pieceId === pieceId || before.id === after.id ? [] : [{ candidate, before, after }]
  })
  return {
    option: then.chosen.get(pieceId)!,
    worseBy: then.objective - now.objective,
    others,
    bareM: then.bareM,
    bareMoreM: then.bareM - now.bareM,
    buds: then.buds,
    budsMore: then.buds - now.buds,
    isProven: then.isProven && now.isProven,
  }
}
