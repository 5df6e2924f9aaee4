import type { Habit } from '@klados/core/kinds'
import type { CalendarDate, Hemisphere } from '@klados/core/season'
import { roleOf } from '@klados/core/wood'
import type { Piece, PieceRole } from '@klados/core/wood'
import type { TFunction } from '../i18n/texts.ts'

interface Seen {
  readonly state: { readonly pieces: ReadonlyMap<string, Piece> }
  readonly hemisphere: Hemisphere
}

/** What a piece is on a day. */
export function pieceRole(
  piece: Piece,
  { state, hemisphere }: Seen,
  on: CalendarDate,
  habit?: Habit,
): PieceRole {
  return roleOf(piece, state.pieces, on, hemisphere, habit)
}

/** The same in the grower's words. */
export function pieceWords(t: TFunction, piece: Piece, seen: Seen, on: CalendarDate, habit?: Habit): string {
  return t(`wood.parts.${pieceRole(piece, seen, on, habit)}`)
}

/** How old wood is, by the seasons it has behind it. */
export const ageWords = (t: TFunction, seasons: number): string =>
  seasons < 3 ? t(`wood.ages.${seasons as 0}`) : t('wood.ages.older', { count: seasons })
