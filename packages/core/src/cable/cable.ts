/**
 * What a wire is to a cable formula: weight per metre of unstretched wire, EA, and expansion per degree
 * Celsius.
 */
export interface CableMaterial {
  readonly weightNPerM: number
  readonly axialStiffnessN: number
  readonly expansionPerC: number
}

/**
 * Relative step at which an iteration on a length or a pull stops; beyond it doubles cannot tell the values
 * apart.
 */
export const RELATIVE_STEP = 1e-14
/** More steps than any bracketed Newton iteration here takes from its starting guess. */
export const MAX_STEPS = 80
