import { requireRange } from '../errors/index.ts'

/**
 * What a clip-on meter of the ordinary kind shows: to the nearest five newtons, within three parts in a
 * hundred.
 */
const STEP_N = 5
const ERROR_SHARE = 0.03

/**
 * A stand-in for a clip-on tension meter: the pull there is, read as such a meter reads it. The error comes
 * from `chance` (0 to 1), so that a reading can be repeated. Never below zero.
 */
export function simulatedReading(tensionN: number, chance: number): number {
  const pull = requireRange('tensionN', tensionN, 0, 1e6)
  const error = (2 * requireRange('chance', chance, 0, 1) - 1) * ERROR_SHARE
  return Math.max(0, Math.round((pull * (1 + error)) / STEP_N) * STEP_N)
}
