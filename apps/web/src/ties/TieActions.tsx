import type { Place } from '@klados/contract'
import { usualLoopMm } from '@klados/core/ties'
import type { PlantKind } from '@klados/core/kinds'
import { addDays } from '@klados/core/season'
import type { CalendarDate, Hemisphere } from '@klados/core/season'
import { baseDiameterMm } from '@klados/core/wood'
import type { Piece, Tie } from '@klados/core/wood'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../i18n/use-translation.tsx'
import type { NewEntry } from '../data/record.ts'

interface TieActionsProps {
  readonly tie: Tie
  readonly piece: Piece
  readonly kind: PlantKind
  readonly place: Place
  readonly hemisphere: Hemisphere
  readonly on: CalendarDate
  readonly onWrite: (what: string, entries: readonly NewEntry[]) => void
  readonly isLarge?: boolean
}

const POSTPONE_DAYS = 14

/** What one does at a tie, each in one tap: sound, loosened, replaced, in two weeks. */
export function TieActions({ tie, piece, kind, place, hemisphere, on, onWrite, isLarge }: TieActionsProps) {
  const { t } = useTranslation()
  const head = { placeId: place.id, plantId: tie.plantId, at: on }
  const stemMm =
    Math.round(Math.max(tie.stemDiameterMm, baseDiameterMm(piece, kind, on, hemisphere)) * 10) / 10
  // Let out or tied anew, a loop gets the usual slack round the piece as thick as it is by now.
  const loopLengthMm = Math.max(tie.loopLengthMm, usualLoopMm(tie.hitch, stemMm, tie.supportDiameterMm))
  const { id: tieId, materialId, hitch } = tie
  const acts: readonly (readonly ['done' | 'loosened' | 'replaced' | 'postpone', NewEntry])[] = [
    ['done', { ...head, kind: 'tie.checked', body: { v: 1, tieId } }],
    [
      'loosened',
      { ...head, kind: 'tie.loosened', body: { v: 1, tieId, loopLengthMm, stemDiameterMm: stemMm } },
    ],
    [
      'replaced',
      {
        ...head,
        kind: 'tie.replaced',
        body: {
          v: 1,
          tieId,
          newTieId: uuidv7(),
          materialId,
          hitch,
          loopLengthMm: usualLoopMm(hitch, stemMm, tie.supportDiameterMm),
          stemDiameterMm: stemMm,
        },
      },
    ],
    [
      'postpone',
      { ...head, kind: 'tie.postponed', body: { v: 1, tieId, untilOn: addDays(on, POSTPONE_DAYS) } },
    ],
  ]
  return (
    <div className={`grid gap-2 ${isLarge ? 'grid-cols-2 sm:grid-cols-4' : 'grid-cols-2'}`}>
      {acts.map(([key, entry]) => (
        <button
          key={key}
          type="button"
          className={`btn ${key === 'done' ? 'btn-main' : ''} ${isLarge ? 'min-h-12 text-[16px]' : ''}`}
          onClick={() => onWrite(t(`round.${key}`), [entry])}
        >
          {t(`round.${key}`)}
        </button>
      ))}
    </div>
  )
}
