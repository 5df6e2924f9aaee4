import type { Place } from '@klados/contract'
import { distance3M, pathLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { stageOn } from '@klados/core/season'
import { findTieMaterial, tieMaterials, tieWarnings, usualLoopMm, usualTie } from '@klados/core/ties'
import type { TieMaterialId } from '@klados/core/ties'
import {
  baseDiameterMm,
  bends,
  faults,
  healths,
  hitches,
  lights,
  pieceRoles,
  pieceAge,
  tiePoints,
} from '@klados/core/wood'
import type { Hitch, Piece, TiePoint } from '@klados/core/wood'
import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { ageWords } from '../../ui/piece-words.ts'
import { Grown } from './Grown.tsx'
import { woodWords } from './wood-words.ts'
import { useUnits } from '../../ui/units.tsx'
import type { Position } from '@klados/core/training'
import { aboutWords, positionWords } from './choose/words.ts'
import { craftOf } from '../../i18n/craft-words.ts'
import type { WoodBenchData } from './use-bench.ts'
import type { Recorder } from '../../data/use-recorder.ts'
import { TextField } from '../../ui/TextField.tsx'

interface PiecePanelProps {
  readonly piece: Piece
  /** What it is in its plant's system. */
  readonly position: Position | null
  readonly place: Place
  readonly data: WoodBenchData
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
}

/** Ties nearer than this are at the same crossing. */
const SAME_CROSSING_M = 0.03
/** A cane tied this near to its end does not whip. */
const END_TIED_M = 0.15

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
          <Seen {...props} />
          <Cut {...props} diameterMm={diameterMm} />
        </>
      )}
    </>
  )
}

function TieIt({ piece, place, data, on, recorder, diameterMm }: PiecePanelProps & { diameterMm: number }) {
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

const NOT_SEEN = 'not-seen'

/** What the hand and the eye tell of it, which no figure does: each is written down as it is picked. */
function Seen({ piece, place, on, recorder }: PiecePanelProps) {
  const { t } = useTranslation()
  const head = { placeId: place.id, plantId: piece.plantId, at: on }
  const none = { value: NOT_SEEN, label: t('enter.notSeen') }
  const nothing = { v: 1 as const, pieceId: piece.id, bends: null, light: null, fault: null }
  const see = (part: Partial<Pick<typeof piece, 'bends' | 'light' | 'fault'>>) =>
    recorder.write(t('enter.seen'), [{ ...head, kind: 'piece.seen', body: { ...nothing, ...part } }])
  const known = <V extends string>(options: readonly V[], value: string): V | null =>
    options.find((one) => one === value) ?? null
  return (
    <details>
      <summary className="font-display text-[0.9375rem] font-semibold">{t('enter.seen')}</summary>
      <div className="grid grid-cols-2 gap-2 pt-1">
        <Pick
          label={t('enter.called')}
          value={piece.calledRole ?? NOT_SEEN}
          options={[
            { value: NOT_SEEN, label: t('enter.calledBy') },
            ...pieceRoles.map((value) => ({ value, label: t(`wood.parts.${value}`) })),
          ]}
          onChange={(value) =>
            recorder.write(t('enter.called'), [
              {
                ...head,
                kind: 'piece.called',
                body: { v: 1, pieceId: piece.id, role: known(pieceRoles, value) },
              },
            ])
          }
        />
        <Pick
          label={t('enter.bends')}
          value={piece.bends ?? NOT_SEEN}
          options={[none, ...bends.map((value) => ({ value, label: t(`enter.bendsOf.${value}`) }))]}
          onChange={(value) => see({ bends: known(bends, value) })}
        />
        <Pick
          label={t('enter.light')}
          value={piece.light ?? NOT_SEEN}
          options={[none, ...lights.map((value) => ({ value, label: t(`enter.lightOf.${value}`) }))]}
          onChange={(value) => see({ light: known(lights, value) })}
        />
        <Pick
          label={t('enter.fault')}
          value={piece.fault ?? NOT_SEEN}
          options={[none, ...faults.map((value) => ({ value, label: t(`enter.faultOf.${value}`) }))]}
          onChange={(value) => see({ fault: known(faults, value) })}
        />
        <Pick
          label={t('enter.health')}
          value={piece.health ?? NOT_SEEN}
          options={[none, ...healths.map((value) => ({ value, label: t(`wood.health.${value}`) }))]}
          onChange={(value) => {
            const health = known(healths, value)
            if (health)
              recorder.write(t('enter.health'), [
                { ...head, kind: 'piece.judged', body: { v: 1, pieceId: piece.id, health, reason: '' } },
              ])
          }}
        />
      </div>
    </details>
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
