import type { PlantKind } from '../kinds/index.ts'
import { seasonsAtDay, woodYear, dayNumber } from '../season/index.ts'
import type { CalendarDate, Hemisphere } from '../season/index.ts'
import type { Piece } from './wood.ts'

/** Wood of this many seasons and more thickens at the kind's older rate. */
const OLDER_FROM_SEASONS = 2

/**
 * Seasons the wood has behind it on a day: 0 a shoot of this summer, 1 one-year wood, and so on. Never
 * negative.
 */
export function pieceAge(piece: Piece, on: CalendarDate, hemisphere: Hemisphere): number {
  return Math.max(0, piece.seasonsThen + woodYear(on, hemisphere) - woodYear(piece.drawnOn, hemisphere))
}

export type ThickeningPace = 'slow' | 'usual' | 'fast'

/** Growth of diameter in a year, mm, at one end of the kind's range or in its middle. */
export function thickeningMmPerYear(kind: PlantKind, ageSeasons: number, pace: ThickeningPace): number {
  const [slow, fast] = ageSeasons < OLDER_FROM_SEASONS ? kind.youngThickeningMm : kind.olderThickeningMm
  return pace === 'slow' ? slow : pace === 'fast' ? fast : (slow + fast) / 2
}

/**
 * Diameter in mm on a day number, grown from a known diameter on another day at a yearly rate that follows
 * the growing season. Days before the known one give the known diameter: wood is not drawn thinner than it
 * was measured.
 */
export function thickenedMm(
  known: { readonly diameterMm: number; readonly day: number },
  day: number,
  mmPerYear: number,
  hemisphere: Hemisphere,
  allYear: boolean,
): number {
  const seasons = seasonsAtDay(day, hemisphere, allYear) - seasonsAtDay(known.day, hemisphere, allYear)
  return known.diameterMm + mmPerYear * Math.max(0, seasons)
}

/** A piece's diameter at its base in mm on a day at the kind's usual pace, from its last measurement. */
export function baseDiameterMm(
  piece: Piece,
  kind: PlantKind,
  on: CalendarDate,
  hemisphere: Hemisphere,
): number {
  const known = { diameterMm: piece.baseMm, day: dayNumber(piece.measuredOn) }
  const rate = thickeningMmPerYear(kind, pieceAge(piece, piece.measuredOn, hemisphere), 'usual')
  return thickenedMm(known, dayNumber(on), rate, hemisphere, kind.growsAllYear)
}
