/**
 * Spans, pulls, weights and stiffnesses of wires in gardens lie well within these; beyond them the formulas would
 * run over the range of numbers.
 */
export const LEAST = 1e-9
export const MOST_M = 1e5
export const MOST_N = 1e8
export const MOST_STIFFNESS_N = 1e12
