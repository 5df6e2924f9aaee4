import { clauses } from '../../i18n/clauses.ts'
import type { Place, Plant } from '@klados/contract'
import { pathLengthM } from '@klados/core/geometry'
import { findKind } from '@klados/core/kinds'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { usePlants } from '../../data/documents.ts'
import { plantWants } from '../../plan/plant-wants.ts'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { pieceRole } from '../../ui/piece-words.ts'
import { useUnits } from '../../ui/units.tsx'
import { tieFailures } from '@klados/core/wood'
import type { Piece, PieceRole } from '@klados/core/wood'
import { GoneList, PlantEnd, RemovedList } from './PlantEnd.tsx'
import { PlantDetails } from './PlantDetails.tsx'
import type { WoodBenchData } from './use-bench.ts'

interface FiguresProps {
  readonly gardenId: string
  readonly place: Place
  readonly data: WoodBenchData
  readonly plant: Plant | null
  /** Whether the plant is dead or was taken out by that day. */
  readonly isGone: boolean
  readonly on: string
  readonly canWrite: boolean
  readonly onPlant: (plantId: string) => void
}

/** Wood that was drawn before it was known what it is led by, and is led along a frame by what it is. */
const LAID: ReadonlySet<PieceRole> = new Set(['arm', 'cane', 'rib', 'leader', 'bine'])

/** How much of a piece lies along a part of a frame, metres. */
function laidOf({ path, led }: Piece, role: PieceRole): number {
  if (path.some(({ zM }) => zM !== undefined))
    return led.reduce((sum, { startM, endM }) => sum + endM - startM, 0)
  return LAID.has(role) ? pathLengthM(path) : 0
}

/** The plant chosen, or all of the place, in figures of the day shown. */
export function Figures({ gardenId, place, data, plant, isGone, on, canWrite, onPlant }: FiguresProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const gardenPlants = usePlants(gardenId) ?? []
  const isOurs = (plantId: string) =>
    plant ? plantId === plant.id : data.plants.some((one) => one.id === plantId)
  const pieces = data.pieces.filter((piece) => piece.removedOn === null && isOurs(piece.plantId))
  const ties = data.ties.filter((tie) => tie.endedOn === null && isOurs(tie.plantId))
  const due = ties.filter((tie) => ['overdue', 'due'].includes(data.urgencies.get(tie.id) ?? '')).length
  const failed = tieFailures.flatMap((why) => {
    const count = data.ties.filter((tie) => tie.endedWhy === why && isOurs(tie.plantId)).length
    return count > 0 ? [t('tie.failedSo', { count, how: t(`tie.ended.${why}`).toLowerCase() })] : []
  })
  const laidM = pieces.reduce((sum, piece) => sum + laidOf(piece, pieceRole(piece, data, on)), 0)
  const kind = plant && findKind(plant.body.kindId)
  const isWhole = !plant || data.plants.length === 1
  const wants = isWhole && data.frames[0] ? plantWants(place, data.frames[0], data.plants) : null
  return (
    <>
      <SlipGroup
        title={t('wood.figures', { name: plant?.body.name ?? place.body.name, date: formatDate(on) })}
      >
        {plant && <Origin plant={plant} mothers={gardenPlants} />}
        {!isGone && (
          <>
            <SlipRow label={t('wood.figure.stems')}>{pieces.length}</SlipRow>
            <SlipRow label={t('wood.figure.length')} isDeciding>
              {units.length(laidM)}
            </SlipRow>
            <SlipRow label={t('wood.figure.ties')}>{ties.length}</SlipRow>
            <SlipRow label={t('wood.figure.due')} tone={due > 0 ? 'due' : undefined}>
              {due}
            </SlipRow>
          </>
        )}
        {failed.length > 0 && <SlipRow label={t('tie.failed')}>{listPlain(failed)}</SlipRow>}
        {wants && (
          <SlipRow label={t('slip.plants')}>
            {t('slip.plantsOf', { have: wants.have, want: wants.want })}
          </SlipRow>
        )}
        {wants && wants.freeNodes.length > 0 && (
          <SlipRow label={t('wood.startNodes')} tone="due">
            {listPlain(wants.freeNodes.map((node) => String(node.number)))}
          </SlipRow>
        )}
      </SlipGroup>
      {kind && (
        <p className="text-slate">
          <em>{kind.botanical}</em>:{' '}
          {clauses(t, [
            t(`hold.${kind.holds}`),
            t(`light.${kind.light}`),
            t(`prunedAt.${kind.prunedAt}`),
            ...kind.hazards.map((hazard) => t(`hazard.${hazard}`)),
          ])}
          .
        </p>
      )}
      {!plant && (
        <>
          <GoneList plants={data.gone} onPlant={onPlant} />
          {canWrite && <RemovedList gardenId={gardenId} plants={data.removed} />}
        </>
      )}
      {plant && canWrite && (
        <PlantDetails
          key={plant.id}
          gardenId={gardenId}
          plant={plant}
          mothers={gardenPlants.filter((one) => one.id !== plant.id && !one.isRemoved)}
        />
      )}
      {plant && canWrite && <PlantEnd key={`${plant.id} ${on}`} {...{ gardenId, plant, on }} />}
    </>
  )
}

/** Since when it stands here and where it comes from, as far as somebody has said. */
function Origin({ plant, mothers }: { plant: Plant; mothers: readonly Plant[] }) {
  const { t } = useTranslation()
  const units = useUnits()
  const { plantedOn, formPlanted, rootstock, graftHeightM, motherId, ended } = plant.body
  const mother = motherId === null ? undefined : mothers.find((one) => one.id === motherId)
  return (
    <>
      <SlipRow label={t('wood.figure.planted')}>{formatDate(plantedOn)}</SlipRow>
      {formPlanted && <SlipRow label={t('wood.formPlanted')}>{t(`formPlanted.${formPlanted}`)}</SlipRow>}
      {rootstock && <SlipRow label={t('wood.rootstock')}>{rootstock}</SlipRow>}
      {graftHeightM !== null && (
        <SlipRow label={t('wood.graftHeight')}>{units.length(graftHeightM, 'short')}</SlipRow>
      )}
      {mother && <SlipRow label={t('wood.mother')}>{mother.body.name}</SlipRow>}
      {ended && (
        <SlipRow label={t('wood.ended.since')} tone="due">
          {formatDate(ended.on)}
        </SlipRow>
      )}
      {ended?.why && <SlipRow label={t('wood.ended.whyRow')}>{ended.why}</SlipRow>}
    </>
  )
}
