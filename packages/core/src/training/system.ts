import type { Habit } from '../kinds/index.ts'
import type { DeepPoint, Look } from '../geometry/index.ts'
import type { CalendarDate, Hemisphere, SeasonStage, StageWindow } from '../season/index.ts'
import type { FrameTrack, PieceRole, Side, Stretch } from '../wood/index.ts'
import type { PlantView, Stem } from './plant.ts'
import type { Question, Remark } from './question.ts'

/** A place that a mature plant of the system has: what stands there, or that nothing does. */
export interface Position {
  /** In the craft's own words: a head, an arm, a tier. */
  readonly what: string
  readonly side: 'left' | 'right' | null
  /** From the trunk outwards, or from below, 1 and up. */
  readonly n: number
  readonly at: DeepPoint
  readonly pieceId: string | null
}

/** What this stage of this year of the plant's life asks; its reason is in the craft's words. */
export interface Task {
  readonly code: string
  readonly count: number | null
}

/** A question of a plant's year, and when it is asked: by stage, whatever the date. */
export interface Ask {
  readonly code: string
  readonly window: StageWindow
}

/** As much of a piece as its role goes by. */
export interface PieceSeen {
  readonly age: number
  /** It grows on another piece, not from the ground or the crown. */
  readonly isOnWood: boolean
}

export interface SeasonAt {
  readonly stage: SeasonStage
  readonly on: CalendarDate
  readonly hemisphere: Hemisphere
}

/** A piece of a plant as one expects it, to be corrected: named within the skeleton, not yet in any journal. */
export interface ExpectedPiece {
  readonly name: string
  readonly on: string | null
  readonly alongM: number
  readonly path: readonly DeepPoint[]
  /** The same as what it runs along, where the system says it; else that follows from the line. */
  readonly way?: readonly Stretch[]
  readonly seasonsOld: number
  readonly baseMm: number
  readonly role: PieceRole | null
  readonly side: 'left' | 'right' | 'up' | null
  readonly buds: number | null
}

/** Canes over a length of row: of this summer, those that have fruited, and how many of these were cut out since. */
export interface CaneCount {
  readonly fresh: number
  readonly fruited: number
  readonly cutOut: number
  readonly overM: number
}

/** A stem that was called out and not drawn: so long, to that side, from there. */
export interface NewStem {
  readonly lengthM: number
  readonly side: Side | null
  readonly under: Stem | null
  /** On what it grows from. */
  readonly alongM: number
}

/**
 * A training system: everything that is particular to one way of growing a plant. The bench, the solver and the tie
 * plan go by these answers alone and know no system by name. Systems of one craft share a folder, and its words.
 */
export interface TrainingSystem {
  readonly id: string
  /** The name of its folder, under which its words are found. */
  readonly craft: string
  readonly suits: (habit: Habit) => boolean
  /** It is trained along level wires and cannot do without. */
  readonly needsWires: boolean
  /** Its buds are counted against a number that the grower may set. */
  readonly hasBudGoal: boolean
  /** From where its wood is looked at first; from the front unless said. */
  readonly look?: Look['from']
  /** Its nodes are counted, and those of them that have roots. */
  readonly countsNodes?: boolean
  /** What a count of its canes by age says, where they are counted instead of drawn. */
  readonly ofCount?: (view: PlantView, count: CaneCount) => readonly Remark[]
  /** What of the frames its wood is led along, in that order; level wires from below unless said. */
  readonly tracks?: (view: PlantView) => readonly FrameTrack[]
  readonly positions: (view: PlantView) => readonly Position[]
  /** What a piece is now in the craft's own word; `null` leaves it to its place and age. */
  readonly role: (piece: PieceSeen, at: SeasonAt) => string | null
  readonly tasks: (view: PlantView) => readonly Task[]
  /** The questions of this year of the plant's life, in the order of the year; several may stand open at once. */
  readonly year: (view: PlantView) => readonly Ask[]
  /** One of them put to the plant; `null` where there is nothing to choose among. */
  readonly question: (view: PlantView, code: string) => Question | null
  /** How new wood that nobody has drawn is led, where the system says: up a pole, along a wire; `null` leaves it to stand. */
  readonly leads?: (view: PlantView, stem: NewStem) => readonly Stretch[] | null
  /** The wood that a plant of so many years has in this system at this place. */
  readonly skeleton: (view: PlantView, years: number) => readonly ExpectedPiece[]
}
