import type { Place, Plant } from '@klados/contract'
import { polylineLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { useTranslation } from 'react-i18next'
import { formatDate } from '../../data/dates.ts'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch } from '../../data/store.ts'
import { plantWants } from '../../plan/plant-wants.ts'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import type { WoodBenchData } from './use-bench.ts'

interface FiguresProps {
  readonly gardenId: string
  readonly place: Place
  readonly data: WoodBenchData
  readonly plant: Plant | null
  readonly on: string
  readonly canWrite: boolean
}

/** The plant chosen, or all of the place, in figures of the day shown. */
export function Figures({ gardenId, place, data, plant, on, canWrite }: FiguresProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const dispatch = useAppDispatch()
  const isOurs = (plantId: string) =>
    plant ? plantId === plant.id : data.plants.some((one) => one.id === plantId)
  const stems = data.stems.filter((stem) => stem.removedOn === null && isOurs(stem.plantId))
  const ties = data.ties.filter((tie) => tie.endedOn === null && isOurs(tie.plantId))
  const due = ties.filter((tie) => ['overdue', 'due'].includes(data.urgencies.get(tie.id) ?? '')).length
  const ledM = stems
    .filter((stem) => stem.part === 'arm' || stem.part === 'cane')
    .reduce((sum, stem) => sum + polylineLengthM(stem.points), 0)
  const kind = plant && findKind(plant.body.kindId)
  const wants = data.frames[0] ? plantWants(place, data.frames[0], data.plants) : null
  return (
    <>
      <SlipGroup
        title={t('wood.figures', { name: plant?.body.name ?? place.body.name, date: formatDate(on) })}
      >
        {plant && <SlipRow label={t('wood.figure.planted')}>{formatDate(plant.body.plantedOn)}</SlipRow>}
        <SlipRow label={t('wood.figure.stems')}>{stems.length}</SlipRow>
        <SlipRow label={t('wood.figure.length')} isDeciding>
          {units.length(ledM)}
        </SlipRow>
        <SlipRow label={t('wood.figure.ties')}>{ties.length}</SlipRow>
        <SlipRow label={t('wood.figure.due')} tone={due > 0 ? 'due' : undefined}>
          {due}
        </SlipRow>
        {!plant && wants && (
          <SlipRow label={t('slip.plants')}>
            {t('slip.plantsOf', { have: wants.have, want: wants.want })}
          </SlipRow>
        )}
        {!plant && wants && wants.freeNodes.length > 0 && (
          <SlipRow label={t('wood.startNodes')} tone="due">
            {wants.freeNodes.map((node) => node.number).join(', ')}
          </SlipRow>
        )}
      </SlipGroup>
      {kind && (
        <p className="text-slate">
          <em>{kind.botanical}</em>:{' '}
          {[
            t(`hold.${kind.holds}`),
            t(`light.${kind.light}`),
            t(`prunedAt.${kind.prunedAt}`),
            ...kind.hazards.map((hazard) => t(`hazard.${hazard}`)),
          ].join('; ')}
          .
        </p>
      )}
      {plant && canWrite && (
        <button
          type="button"
          className="btn btn-plain self-start px-0 text-iron"
          onClick={() =>
            void dispatch(
              saveDocument('plants', gardenId, {
                id: plant.id,
                basedOn: plant.version,
                body: plant.body,
                isRemoved: true,
              }),
            )
          }
        >
          {t('wood.removePlant', { name: plant.body.name })}
        </button>
      )}
    </>
  )
}
