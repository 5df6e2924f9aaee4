import type { PiecePanelProps } from './piece-props.ts'
import { distance3M, pathLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { findTieMaterial, tieMaterials, tieWarnings, usualLoopMm, usualTie } from '@klados/core/ties'
import type { TieMaterialId } from '@klados/core/ties'
import { hitches, pieceAge, tiePoints } from '@klados/core/wood'
import type { Hitch, TiePoint } from '@klados/core/wood'
import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { useUnits } from '../../ui/units.tsx'

/** Ties nearer than this are at the same crossing. */
const SAME_CROSSING_M = 0.03
/** A cane tied this near to its end does not whip. */
const END_TIED_M = 0.15

/** Ties of a piece at every place where it meets something, with what and how long each. */
export function TieIt({
  piece,
  place,
  data,
  on,
  recorder,
  diameterMm,
}: PiecePanelProps & { diameterMm: number }) {
  const { t } = useTranslation()
  const units = useUnits()
  const age = pieceAge(piece, on, data.hemisphere)
  const usual = usualTie({ ageSeasons: age, baseMm: diameterMm, isPermanent: piece.calledRole === 'arm' })
  const [materialId, setMaterialId] = useState(usual.materialId)
  const [hitch, setHitch] = useState<Hitch>(usual.hitch)
  const taken = data.ties.filter((tie) => tie.pieceId === piece.id && tie.endedOn === null)
  const free = tiePoints(piece.path, data.supports).filter(
    (point) => !taken.some((tie) => distance3M(tie.at, point.at) < SAME_CROSSING_M),
  )
  const stemMm = units.onGauge(diameterMm)
  const loopOf = (point: TiePoint) => usualLoopMm(hitch, stemMm, point.supportDiameterMm)
  const longestMm = Math.max(0, ...free.map(loopOf))
  const material = findTieMaterial(materialId)!
  const kind = findKind(data.plants.find((one) => one.id === piece.plantId)?.body.kindId ?? '')
  const stemLengthM = pathLengthM(piece.path)
  const last = Math.max(0, ...[...taken, ...free].map(({ alongM }) => alongM))
  const warnings = kind
    ? [
        ...new Set(
          free.flatMap((point) =>
            tieWarnings({
              materialId,
              hitch,
              loopMm: loopOf(point),
              stemMm,
              supportMm: point.supportDiameterMm,
              alongM: point.alongM,
              stemLengthM,
              ageSeasons: age,
              isEndTied: stemLengthM - last < END_TIED_M,
              isWoven: piece.fault === 'woven',
              isAgainstTwining: false,
              kind,
            }),
          ),
        ),
      ]
    : []
  const tie = (at: readonly TiePoint[]) =>
    recorder.write(
      t('wood.tieHere', { count: at.length }),
      at.map((point) => ({
        kind: 'tie.made',
        placeId: place.id,
        plantId: piece.plantId,
        at: on,
        body: {
          v: 2,
          tieId: uuidv7(),
          pieceId: piece.id,
          alongM: point.alongM,
          support: point.support,
          materialId,
          hitch,
          supportDiameterMm: point.supportDiameterMm,
          stemDiameterMm: stemMm,
          loopLengthMm: loopOf(point),
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
            onChange={(id) => setMaterialId(id as TieMaterialId)}
          />
          <Choice
            label={t('wood.hitch')}
            value={hitch}
            options={hitches.map((value) => ({ value, label: t(`wood.hitches.${value}`) }))}
            onChange={setHitch}
          />
          <p className="text-[0.8125rem] text-slate">
            {t('wood.loop', {
              length: units.length(longestMm / 1000, 'fine'),
              stem: units.length(stemMm / 1000, 'fine'),
              total: units.length((longestMm + material.tailMm) / 1000, 'short'),
            })}
          </p>
          {warnings.map((code) => (
            <p key={code} className="text-ochre">
              {t(`tieWarning.${code}`)}
            </p>
          ))}
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
