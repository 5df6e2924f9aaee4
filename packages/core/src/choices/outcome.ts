import { polylineLengthM } from '../geometry/index.ts'
import { addDays } from '../season/index.ts'
import type { CalendarDate } from '../season/index.ts'
import type { Piece } from '../wood/index.ts'
import type { ChoiceRecord } from './projection.ts'

/** What came of one piece that was kept, by the next winter. */
export interface PieceOutcome {
  readonly pieceId: string
  readonly letter: string
  readonly isAlive: boolean
  readonly endedWhy: string | null
  readonly laidM: number
  /** Shoots that grew on it since, a metre; `null` where nobody drew or counted any. */
  readonly shootsPerM: number | null
}

export interface ChoiceOutcome {
  readonly pieces: readonly PieceOutcome[]
  /** Kilograms picked off the plant in the year after. */
  readonly cropKg: number | null
  /** Too little was written down to say anything. */
  readonly isTold: boolean
}

const YEAR_DAYS = 365

/** A choice beside what came of it: what it laid, whether that lives, what broke on it, what was picked. */
export function choiceOutcome(
  choice: ChoiceRecord,
  pieces: ReadonlyMap<string, Piece>,
  readings: readonly { readonly on: CalendarDate; readonly what: string; readonly value: number }[],
): ChoiceOutcome {
  const since = choice.doneOn ?? choice.madeOn
  const until = addDays(since, YEAR_DAYS)
  const kept = choice.decided.filter(({ deed }) => deed !== 'off' && deed !== 'wait')
  const outcomes = kept.flatMap(({ pieceId, letter }): PieceOutcome[] => {
    const piece = pieces.get(pieceId)
    if (!piece) return []
    const laidM = polylineLengthM(piece.path)
    const grown = [...pieces.values()].filter(
      (one) =>
        one.parent.on === 'piece' &&
        one.parent.pieceId === pieceId &&
        one.drawnOn > since &&
        one.drawnOn <= until,
    ).length
    const isAlive = piece.removedOn === null && piece.health !== 'dead'
    return [
      {
        pieceId,
        letter,
        isAlive,
        endedWhy: piece.removedWhy,
        laidM,
        shootsPerM: grown > 0 && laidM > 0 ? grown / laidM : null,
      },
    ]
  })
  const picked = readings.filter(({ on, what }) => what === 'crop' && on > since && on <= until)
  const cropKg = picked.length > 0 ? picked.reduce((sum, { value }) => sum + value, 0) : null
  return {
    pieces: outcomes,
    cropKg,
    isTold: cropKg !== null || outcomes.some((one) => one.shootsPerM !== null || !one.isAlive),
  }
}
