/**
 * Choosing and laying, without a plant in it: tracks to be filled, candidates of which each gets exactly one of its
 * options, and what it costs to leave stretches open, to lie double, to cross and to miss the number of buds.
 */
export interface LayingInstance {
  readonly tracks: readonly Track[]
  readonly candidates: readonly Candidate[]
  /** A cost where both options are chosen. */
  readonly crossings: readonly { readonly a: OptionRef; readonly b: OptionRef; readonly cost: number }[]
  /** Two options that cannot both be chosen. */
  readonly conflicts: readonly { readonly a: OptionRef; readonly b: OptionRef }[]
  /** Of these options so many are chosen at least and at most. */
  readonly requirements: readonly Requirement[]
  readonly buds: { readonly min: number; readonly max: number; readonly costPerBud: number }
  readonly weights: { readonly gapPerM: number; readonly overlapPerM: number }
}

export interface Track {
  readonly id: string
  readonly lengthM: number
  readonly wanted: readonly (readonly [fromM: number, toM: number])[]
}

export interface Candidate {
  readonly id: string
  readonly options: readonly LayingOption[]
}

/** One thing that can be done with a candidate; `cost` may be below zero for what is worth doing by itself. */
export interface LayingOption {
  readonly id: string
  readonly cost: number
  readonly buds: number
  readonly covers: readonly { readonly track: string; readonly fromM: number; readonly toM: number }[]
}

/** A candidate and one of its options, by their ids. */
export type OptionRef = readonly [candidate: string, option: string]

export interface Requirement {
  readonly options: readonly OptionRef[]
  readonly min: number
  readonly max: number
}

/** Option by candidate. */
export type Choice = Readonly<Record<string, string>>

/** What a choice comes to. */
export interface Laid {
  readonly objective: number
  readonly uncoveredM: number
  /** Each layer above the first, metres. */
  readonly overlapM: number
  readonly buds: number
}
