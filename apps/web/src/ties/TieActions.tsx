import type { Place } from '@klados/contract'
import { findTieMaterial, tiedAnew } from '@klados/core/ties'
import type { PlantKind } from '@klados/core/kinds'
import { addDays } from '@klados/core/season'
import type { CalendarDate, Hemisphere } from '@klados/core/season'
import { tieEnds } from '@klados/core/wood'
import type { Piece, Tie, TieEnd, TieFailure } from '@klados/core/wood'
import { useId, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../i18n/use-translation.tsx'
import type { NewEntry } from '../data/record.ts'
import { NoteForm } from '../notes/NoteForm.tsx'
import { Check } from '../ui/Choice.tsx'
import { onePress } from '../ui/one-press.ts'

interface TieActionsProps {
  readonly gardenId: string
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

/** What one does at a tie, each in one tap: sound, loosened, replaced, in two weeks; and in two, how it had ended. */
export function TieActions(props: TieActionsProps) {
  const { gardenId, tie, piece, kind, place, hemisphere, on, onWrite, isLarge } = props
  const { t } = useTranslation()
  const [hasEnded, setHasEnded] = useState(false)
  const [isAnew, setIsAnew] = useState(true)
  const foundId = useId()
  const head = { placeId: place.id, plantId: tie.plantId, at: on }
  const { id: tieId, materialId, hitch } = tie
  const anew = (failure: TieFailure | null) =>
    tiedAnew(tie, piece, kind, findTieMaterial(materialId), on, hemisphere, failure)
  const fresh = anew(null)
  // Let out, a loop is never made shorter.
  const loopLengthMm = Math.max(tie.loopLengthMm, fresh.loopLengthMm)
  const { stemDiameterMm } = fresh
  const acts: readonly (readonly ['done' | 'loosened' | 'replaced' | 'postpone', NewEntry])[] = [
    ['done', { ...head, kind: 'tie.checked', body: { v: 1, tieId } }],
    ['loosened', { ...head, kind: 'tie.loosened', body: { v: 1, tieId, loopLengthMm, stemDiameterMm } }],
    [
      'replaced',
      {
        ...head,
        kind: 'tie.replaced',
        body: { v: 1, tieId, newTieId: uuidv7(), materialId, hitch, ...fresh },
      },
    ],
    [
      'postpone',
      { ...head, kind: 'tie.postponed', body: { v: 1, tieId, untilOn: addDays(on, POSTPONE_DAYS) } },
    ],
  ]
  const endOf = (why: TieEnd): NewEntry =>
    isAnew && why !== 'taken-off'
      ? {
          ...head,
          kind: 'tie.replaced',
          body: { v: 3, tieId, newTieId: uuidv7(), why, ...anew(why) },
        }
      : { ...head, kind: 'tie.ended', body: { v: 1, tieId, why } }
  const size = isLarge ? 'min-h-12 text-[1rem]' : ''
  const columns = isLarge ? 'grid-cols-2 sm:grid-cols-4' : 'grid-cols-2'
  const end = (why: TieEnd) => (
    <button
      key={why}
      type="button"
      className={`btn ${size}`}
      onClick={onePress(() => onWrite(t(`tie.ended.${why}`), [endOf(why)]))}
    >
      {t(`tie.ended.${why}`)}
    </button>
  )
  return (
    <div className="flex flex-col gap-2">
      <div className={`grid gap-2 ${columns}`}>
        {acts.map(([key, entry]) => (
          <button
            key={key}
            type="button"
            className={`btn ${key === 'done' ? 'btn-main' : ''} ${size}`}
            onClick={onePress(() => onWrite(t(`round.${key}`), [entry]))}
          >
            {t(`round.${key}`)}
          </button>
        ))}
      </div>
      <button
        type="button"
        className={`btn btn-plain self-start px-0 ${isLarge ? 'min-h-11 sm:min-h-0' : ''}`}
        aria-expanded={hasEnded}
        aria-controls={foundId}
        onClick={() => setHasEnded(!hasEnded)}
      >
        {t(isLarge ? 'tie.hasEndedOrNote' : 'tie.hasEnded')}
      </button>
      {hasEnded && (
        <div id={foundId} className="flex flex-col gap-2 border-l-2 border-slate pl-3">
          <p className="text-slate">{t('tie.bittenHow')}</p>
          <Check label={t('tie.anew')} isOn={isAnew} onChange={setIsAnew} />
          <div className={`grid gap-2 ${columns}`}>{tieEnds.map(end)}</div>
          {isLarge && (
            <NoteForm
              {...{ gardenId, on, onWrite }}
              placeId={place.id}
              plantId={tie.plantId}
              pieceId={tie.pieceId}
            />
          )}
        </div>
      )}
    </div>
  )
}
