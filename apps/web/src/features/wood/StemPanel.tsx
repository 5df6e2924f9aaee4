import type { Place } from '@klados/contract'
import { distanceM, polylineLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { findTieMaterial, tieMaterials, usualLoopMm } from '@klados/core/ties'
import { hitches, stemAge, stemDiameterMm, tiePoints } from '@klados/core/wood'
import type { Hitch, Stem } from '@klados/core/wood'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { formatDate } from '../../data/dates.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'
import type { Recorder } from '../../data/use-recorder.ts'

interface StemPanelProps {
  readonly stem: Stem
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
}

/** Ties nearer than this are at the same crossing. */
const SAME_CROSSING_M = 0.03

/** One piece of wood: what it is on this day, and what can be done to it. */
export function StemPanel(props: StemPanelProps) {
  const { stem, data, on, canWrite } = props
  const { t } = useTranslation()
  const units = useUnits()
  const plant = data.plants.find((one) => one.id === stem.plantId)
  const kind = findKind(plant?.body.kindId ?? '')
  const age = stemAge(stem, on, data.hemisphere)
  const diameterMm = kind ? stemDiameterMm(stem, kind, on, data.hemisphere) : stem.diameterMm
  const title = `${t(`wood.parts.${stem.part}`)}, ${plant?.body.name ?? ''}`
  const ageWords = age < 3 ? t(`wood.ages.${age as 0}`) : t('wood.ages.older', { count: age })
  return (
    <>
      <SlipGroup title={title}>
        <SlipRow label={t('wood.age')}>{ageWords}</SlipRow>
        <SlipRow label={t('wood.thickness')} isDeciding>
          {units.length(diameterMm / 1000, 'fine')}
        </SlipRow>
        <SlipRow label={t('wood.length')}>{units.length(polylineLengthM(stem.points))}</SlipRow>
        <SlipRow label={t('wood.drawnOn')}>{formatDate(stem.drawnOn)}</SlipRow>
        <SlipRow label={t('wood.ties')}>
          {data.ties.filter((tie) => tie.stemId === stem.id && tie.endedOn === null).length}
        </SlipRow>
      </SlipGroup>
      {stem.removedOn && (
        <p className="text-iron">
          {t('wood.removedOn', { date: formatDate(stem.removedOn), why: stem.removedWhy })}
        </p>
      )}
      {canWrite && stem.removedOn === null && (
        <>
          <TieIt {...props} diameterMm={diameterMm} />
          <Cut {...props} diameterMm={diameterMm} />
        </>
      )}
    </>
  )
}

function TieIt({ stem, place, data, on, recorder, diameterMm }: StemPanelProps & { diameterMm: number }) {
  const { t } = useTranslation()
  const units = useUnits()
  const [materialId, setMaterialId] = useState('soft-jute')
  const [hitch, setHitch] = useState<Hitch>('figureEight')
  const taken = data.ties.filter((tie) => tie.stemId === stem.id && tie.endedOn === null)
  const free = tiePoints(stem.points, data.supports).filter(
    (point) => !taken.some((tie) => distanceM(tie.at, point.at) < SAME_CROSSING_M),
  )
  const stemMm = Math.round(diameterMm * 10) / 10
  const loopMm = usualLoopMm(hitch, stemMm, data.supports.wireMm)
  const material = findTieMaterial(materialId)!
  const tie = (at: readonly (typeof free)[number][]) =>
    recorder.write(
      t('wood.tieHere', { count: at.length }),
      at.map((point) => ({
        kind: 'tie.made',
        placeId: place.id,
        plantId: stem.plantId,
        at: on,
        body: {
          v: 1,
          tieId: uuidv7(),
          stemId: stem.id,
          at: point.at,
          materialId,
          hitch,
          supportDiameterMm: data.supports.wireMm,
          stemDiameterMm: stemMm,
          loopLengthMm: loopMm,
        },
      })),
    )
  return (
    <section className="flex flex-col gap-2">
      <h2>{t('wood.tie')}</h2>
      {free.length === 0 ? (
        <p className="text-slate">{t('wood.tieNone')}</p>
      ) : (
        <>
          <Pick
            label={t('wood.material')}
            value={materialId}
            options={tieMaterials.map((one) => ({ value: one.id, label: t(`tieMaterial.${one.id}`) }))}
            onChange={setMaterialId}
          />
          <Choice
            label={t('wood.hitch')}
            value={hitch}
            options={hitches.map((value) => ({ value, label: t(`wood.hitches.${value}`) }))}
            onChange={setHitch}
          />
          <p className="text-[13px] text-slate">
            {t('wood.loop', {
              length: units.length(loopMm / 1000, 'fine'),
              stem: units.length(stemMm / 1000, 'fine'),
              total: units.length((loopMm + material.tailMm) / 1000, 'short'),
            })}
          </p>
          <div className="flex flex-wrap gap-1">
            {free.length > 1 &&
              free.slice(0, 12).map((point) => (
                <button key={point.alongM} type="button" className="btn px-2" onClick={() => tie([point])}>
                  {units.length(point.alongM, 'long')}
                </button>
              ))}
          </div>
          <button type="button" className="btn btn-main" onClick={() => tie(free)}>
            {t('wood.tieHere', { count: free.length })}
          </button>
        </>
      )}
    </section>
  )
}

function Cut({ stem, place, on, recorder, diameterMm }: StemPanelProps & { diameterMm: number }) {
  const { t } = useTranslation()
  const lengthM = polylineLengthM(stem.points)
  const [toLengthM, setToLengthM] = useState(Math.round(lengthM * 500) / 1000)
  const [nowMm, setNowMm] = useState(Math.round(diameterMm * 10) / 10)
  const [reason, setReason] = useState('')
  const head = { placeId: place.id, plantId: stem.plantId, at: on }
  return (
    <section className="flex flex-col gap-2">
      <h2>{t('wood.actions')}</h2>
      <Field label={t('wood.reason')}>
        {(ids) => (
          <input
            {...ids}
            className="input"
            value={reason}
            maxLength={200}
            placeholder={t('wood.reasonPlaceholder')}
            onChange={(e) => setReason(e.target.value)}
          />
        )}
      </Field>
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
              { ...head, kind: 'stem.shortened', body: { v: 1, stemId: stem.id, toLengthM, reason } },
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
              { ...head, kind: 'stem.measured', body: { v: 1, stemId: stem.id, diameterMm: nowMm } },
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
            { ...head, kind: 'stem.removed', body: { v: 1, stemId: stem.id, reason } },
          ])
        }
      >
        {t('wood.remove')}
      </button>
    </section>
  )
}
