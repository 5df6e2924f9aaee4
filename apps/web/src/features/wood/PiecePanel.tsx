import type { PiecePanelProps } from './piece-props.ts'
import { pathLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { stageOn } from '@klados/core/season'
import { baseDiameterMm, pieceAge } from '@klados/core/wood'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { LengthField } from '../../ui/LengthField.tsx'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { ageWords } from '../../ui/piece-words.ts'
import { Grown } from './Grown.tsx'
import { woodWords } from './wood-words.ts'
import { useUnits } from '../../ui/units.tsx'
import { aboutWords, positionWords } from './choose/words.ts'
import { craftOf } from '../../i18n/craft-words.ts'
import { TextField } from '../../ui/TextField.tsx'
import { SeenOfPiece } from './SeenOfPiece.tsx'
import { TieIt } from './TieIt.tsx'

/** One piece of wood: what it is on this day, and what can be done to it. */
export function PiecePanel(props: PiecePanelProps) {
  const { piece, position, data, on, canWrite } = props
  const { t } = useTranslation()
  const units = useUnits()
  const plant = data.plants.find((one) => one.id === piece.plantId)
  const craft = craftOf(t, plant?.body.system ?? null)
  const kind = findKind(plant?.body.kindId ?? '')
  const age = pieceAge(piece, on, data.hemisphere)
  const diameterMm = kind ? baseDiameterMm(piece, kind, on, data.hemisphere) : piece.baseMm
  const title = `${woodWords(t, piece, data, on)}, ${plant?.body.name ?? ''}`
  return (
    <>
      <SlipGroup title={title}>
        {position && <SlipRow label={t('wood.position')}>{positionWords(craft, position)}</SlipRow>}
        <SlipRow label={t('wood.age')}>{ageWords(t, age)}</SlipRow>
        <SlipRow label={t('wood.thickness')} isDeciding>
          {aboutWords(t, piece.isTypical, units.length(diameterMm / 1000, 'fine'))}
        </SlipRow>
        <SlipRow label={t('wood.length')}>
          {aboutWords(t, piece.isTypical, units.length(pathLengthM(piece.path)))}
        </SlipRow>
        {piece.isTypical && <SlipRow label={t('wood.figures')}>{t('wood.typical')}</SlipRow>}
        <SlipRow label={t('wood.drawnOn')}>{formatDate(piece.drawnOn)}</SlipRow>
        <SlipRow label={t('wood.ties')}>
          {data.ties.filter((tie) => tie.pieceId === piece.id && tie.endedOn === null).length}
        </SlipRow>
      </SlipGroup>
      {piece.removedOn && (
        <p className="text-iron">
          {t('wood.removedOn', { date: formatDate(piece.removedOn), why: piece.removedWhy })}
        </p>
      )}
      {canWrite && piece.removedOn === null && (
        <>
          <TieIt {...props} diameterMm={diameterMm} />
          <Grown {...props} />
          <SeenOfPiece {...props} />
          <Cut {...props} diameterMm={diameterMm} />
        </>
      )}
    </>
  )
}

function Cut({ piece, place, data, on, recorder, diameterMm }: PiecePanelProps & { diameterMm: number }) {
  const { t } = useTranslation()
  const kind = findKind(data.plants.find((one) => one.id === piece.plantId)?.body.kindId ?? '')
  const stage = stageOn(on, null, data.hemisphere, kind?.growsAllYear ?? false)
  const isStoneFruit = kind?.isStoneFruit === true && (stage === 'dormant' || stage === 'leaf-fall')
  const lengthM = pathLengthM(piece.path)
  const [toLengthM, setToLengthM] = useState(Math.round(lengthM * 500) / 1000)
  const [nowMm, setNowMm] = useState(useUnits().onGauge(diameterMm))
  const [reason, setReason] = useState('')
  const head = { placeId: place.id, plantId: piece.plantId, at: on }
  return (
    <section className="flex flex-col gap-2">
      <h2>{t('wood.actions')}</h2>
      {isStoneFruit && <p className="text-ochre">{t('choose.stoneFruit')}</p>}
      <TextField
        label={t('wood.reason')}
        value={reason}
        longest={200}
        placeholder={t('wood.reasonPlaceholder')}
        onChange={setReason}
      />
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <LengthField
          label={t('wood.shorten')}
          minM={0.005}
          maxM={Math.max(0.006, lengthM - 0.001)}
          valueM={toLengthM}
          onChange={setToLengthM}
        />
        <button
          type="button"
          className="btn"
          disabled={toLengthM >= lengthM}
          onClick={() =>
            recorder.write(t('wood.shortenDo'), [
              {
                ...head,
                kind: 'piece.cut',
                body: { v: 1, pieceId: piece.id, alongM: toLengthM, aboveBuds: null, reason },
              },
            ])
          }
        >
          {t('wood.shortenDo')}
        </button>
        <LengthField
          label={t('wood.measure')}
          style="fine"
          maxM={1}
          valueM={nowMm / 1000}
          onChange={(m) => setNowMm(m * 1000)}
        />
        <button
          type="button"
          className="btn"
          onClick={() =>
            recorder.write(t('wood.measure'), [
              {
                ...head,
                kind: 'piece.measured',
                body: { v: 1, pieceId: piece.id, baseMm: nowMm, tipMm: null, buds: null },
              },
            ])
          }
        >
          {t('wood.measureDo')}
        </button>
      </div>
      <button
        type="button"
        className="btn self-start border-iron text-iron"
        onClick={() =>
          recorder.write(t('wood.remove'), [
            { ...head, kind: 'piece.removed', body: { v: 1, pieceId: piece.id, reason } },
          ])
        }
      >
        {t('wood.remove')}
      </button>
    </section>
  )
}
