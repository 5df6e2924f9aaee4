import type { Plant, PlantBody } from '@klados/contract'
import { DateField } from '../../ui/DateField.tsx'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate, todayHere } from '../../data/dates.ts'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Message } from '../../ui/Message.tsx'
import { SlipGroup, SlipRow } from '../../ui/Slip.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { TextField } from '../../ui/TextField.tsx'

interface PlantEndProps {
  readonly gardenId: string
  readonly plant: Plant
  /** The day shown: on which it is taken to have ended where no other is said. */
  readonly on: string
}

/** Says that a plant has died or was taken out, since when and why; or that it stands after all. */
export function PlantEnd({ gardenId, plant, on }: PlantEndProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [since, setSince] = useState(on)
  const [why, setWhy] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const { ended, plantedOn } = plant.body
  const save = async (ended: PlantBody['ended'], isRemoved = false) => {
    const body = { ...plant.body, ended }
    const outcome = await dispatch(
      saveDocument('plants', gardenId, { id: plant.id, basedOn: plant.version, body, isRemoved }),
    )
    setMessage(
      outcome.kind === 'refused'
        ? refusalWords(t, outcome)
        : outcome.kind === 'conflict'
          ? t('wood.detailsConflict')
          : null,
    )
  }
  const isTooEarly = since < plantedOn
  const said = message && <Message tone="due">{message}</Message>
  if (ended)
    return (
      <div className="flex flex-col gap-2">
        {said}
        <button type="button" className="btn self-start" onClick={() => void save(null)}>
          {t('wood.ended.back')}
        </button>
      </div>
    )
  return (
    <details>
      <summary className="font-display text-[0.9375rem] font-semibold">{t('wood.ended.title')}</summary>
      <form
        className="flex flex-col gap-2 pt-1"
        onSubmit={(event) => {
          event.preventDefault()
          if (!isTooEarly) void save({ on: since, why: why.trim() })
        }}
      >
        <p className="text-slate">{t('wood.ended.hint')}</p>
        <DateField
          label={t('wood.ended.on')}
          error={isTooEarly ? t('wood.ended.before', { date: formatDate(plantedOn) }) : undefined}
          min={plantedOn}
          max={todayHere()}
          value={since}
          onChange={setSince}
        />
        <TextField label={t('wood.ended.why')} value={why} longest={200} onChange={setWhy} />
        {said}
        <div className="flex flex-wrap gap-2">
          <button type="submit" className="btn">
            {t('wood.ended.do')}
          </button>
          <button type="button" className="btn btn-plain text-iron" onClick={() => void save(null, true)}>
            {t('wood.removePlant')}
          </button>
        </div>
      </form>
    </details>
  )
}

interface GoneListProps {
  readonly plants: readonly Plant[]
  readonly onPlant: (plantId: string) => void
}

/** Plants that stood here once, the last to go first; each opens what is known of it. */
export function GoneList({ plants, onPlant }: GoneListProps) {
  const { t } = useTranslation()
  if (plants.length === 0) return null
  const since = (plant: Plant) => plant.body.ended?.on ?? ''
  return (
    <SlipGroup title={t('wood.ended.list')}>
      {[...plants]
        .sort((a, b) => (since(a) < since(b) ? 1 : -1))
        .map((plant) => (
          <SlipRow
            key={plant.id}
            label={
              <button
                type="button"
                className="btn btn-plain px-0 text-left"
                onClick={() => onPlant(plant.id)}
              >
                {plant.body.name}
              </button>
            }
          >
            {formatDate(since(plant))}
          </SlipRow>
        ))}
    </SlipGroup>
  )
}

/** Plants that were taken off the drawing as a mistake, and can be brought back if that was one. */
export function RemovedList({ gardenId, plants }: { gardenId: string; plants: readonly Plant[] }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  if (plants.length === 0) return null
  const bringBack = ({ id, version, body }: Plant) =>
    void dispatch(saveDocument('plants', gardenId, { id, basedOn: version, body }))
  return (
    <SlipGroup title={t('wood.removedPlants')}>
      {plants.map((plant) => (
        <SlipRow key={plant.id} label={plant.body.name}>
          <button type="button" className="btn btn-plain px-0" onClick={() => bringBack(plant)}>
            {t('wood.bringBack')}
          </button>
        </SlipRow>
      ))}
    </SlipGroup>
  )
}
