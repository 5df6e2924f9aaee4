import type { LineId } from '../frame/index.ts'
import type { DeepPoint } from '../geometry/index.ts'
import type { Track } from '../laying/index.ts'
import type { CalendarDate } from '../season/index.ts'
import type { Stretch as LedStretch } from '../wood/index.ts'

/** What can be done with a piece. */
export const deeds = ['lay', 'to-and-fro', 'spur', 'off', 'keep', 'cut', 'lower', 'wait'] as const
export type Deed = (typeof deeds)[number]

export const figureUnits = ['mm', 'm', 'count', 'deg'] as const
export type FigureUnit = (typeof figureUnits)[number]

export interface Judgement {
  /** Its words stand with the craft's, or with those of all crafts. */
  readonly code: string
  /** `bars`: it cannot be chosen whatever else speaks for it; `tells` moves nothing. */
  readonly tone: 'for' | 'against' | 'bars' | 'tells'
  readonly figure: number | null
  readonly unit: FigureUnit | null
  /** How much it weighs, for it positive; in metres of bare wire times ten. */
  readonly points: number
}

/** One thing that can be done with one candidate. */
export interface Option {
  readonly id: string
  readonly deed: Deed
  readonly cost: number
  /** Buds (in spring: shoots) that it leaves. */
  readonly buds: number
  /** What is left of it, metres from its base; `null` leaves it as long as it is. */
  readonly cutM: number | null
  readonly aboveBuds: number | null
  /** How it lies afterwards; `null` leaves it where it is. */
  readonly path: readonly DeepPoint[] | null
  /** The same as what it runs along, where the system says it; else that follows from the line. */
  readonly way?: readonly LedStretch[] | null
  readonly covers: readonly { readonly track: string; readonly fromM: number; readonly toM: number }[]
  readonly towards: 'left' | 'right' | null
  /** The wire it lies on, from below, 1 and up. */
  readonly wire: number | null
  /** Never proposed; there for a grower who wants it. */
  readonly isOnlyAsked: boolean
}

export interface Candidate {
  readonly pieceId: string
  /** A, B, C, in the order of merit. */
  readonly letter: string
  readonly judgements: readonly Judgement[]
  readonly options: readonly Option[]
}

type OptionRef = readonly [pieceId: string, optionId: string]

/** What must hold of any answer: so many of these, at least and at most. */
export interface Rule {
  readonly code: string
  readonly options: readonly OptionRef[]
  readonly min: number
  readonly max: number
}

/** A stretch to be filled, as it lies on the elevation: from where, which way, along which wire. */
export interface Stretch extends Track {
  readonly frameId: string | null
  readonly lineId: LineId | null
  readonly wire: number | null
  /** Where it begins and how it runs on. */
  readonly path: readonly DeepPoint[]
}

/** What is to be done to wood that was not chosen among. */
export interface FollowUp {
  readonly pieceId: string
  readonly deed: 'cut' | 'off' | 'spur' | 'lower'
  readonly cutM: number | null
  readonly aboveBuds: number | null
  readonly path: readonly DeepPoint[] | null
  readonly way?: readonly LedStretch[] | null
  readonly why: string
}

/** What an answer means beyond itself, said under it. */
export interface Remark {
  readonly code: string
  readonly pieceId: string | null
  readonly figure: number | null
  readonly unit: FigureUnit | null
  /** The n-th of something, such as a bud or a wire. */
  readonly n: number | null
  readonly side: 'left' | 'right' | null
  /** The day to look again. */
  readonly on: CalendarDate | null
  /** Something that a grown plant has is wanting. */
  readonly isLack: boolean
  /** A wire at this height would put it right. */
  readonly wireAtM: number | null
}
export type Chosen = ReadonlyMap<string, Option>

export interface BudsBySide {
  readonly left: number
  readonly right: number
}

export interface Question {
  /** Which of the questions of its system's year. */
  readonly code: string
  /** What its buds count, shown against the target; `null` where none is kept to. */
  readonly counts: 'buds' | 'canes' | null
  /** Wood that would decide it has not been entered: nothing is proposed, and no answer is the best one. */
  readonly isWoodMissing?: boolean
  /** Bare wires are told of: what is chosen is there to fill them. */
  readonly tellsBare: boolean
  readonly stretches: readonly Stretch[]
  readonly candidates: readonly Candidate[]
  readonly rules: readonly Rule[]
  /** Two options that cannot both be. */
  readonly never: readonly { readonly code: string; readonly a: OptionRef; readonly b: OptionRef }[]
  /** Costs where both are chosen. */
  readonly crossings: readonly { readonly a: OptionRef; readonly b: OptionRef; readonly cost: number }[]
  /** Buds that stand whatever is chosen. */
  readonly standingBuds: number
  readonly buds: {
    readonly aim: number
    readonly min: number
    readonly max: number
    readonly costPerBud: number
    /** Where wood is there to come near the aim itself, and near enough is not enough. */
    readonly isTight?: boolean
  }
  readonly weights: { readonly gapPerM: number; readonly overlapPerM: number }
  /** Where a plant has two sides: the buds of each. */
  readonly budsBySide?: (chosen: Chosen) => BudsBySide
  readonly followUps: (chosen: Chosen) => readonly FollowUp[]
  readonly remarks: (chosen: Chosen) => readonly Remark[]
}
