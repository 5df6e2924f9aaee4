import type { Place } from '@klados/contract'
import { woodYear } from '@klados/core/season'
import { useState } from 'react'
import { formatDate } from '../../../data/dates.ts'
import type { Recorder } from '../../../data/use-recorder.ts'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { LengthField } from '../../../ui/LengthField.tsx'
import { NumberField } from '../../../ui/NumberField.tsx'
import { useUnits } from '../../../ui/units.tsx'
import type { Training } from '../choose/training.ts'
import { remarkWords, speech } from '../choose/words.ts'

interface CaneCountProps {
  readonly place: Place
  readonly training: Training
  readonly on: string
  readonly canWrite: boolean
  readonly recorder: Recorder
}

const MOST = 100_000
const nothing = () => ''

/** Canes by age, for whom it is too many to draw: counted over a length of row, and what follows from it. */
export function CaneCount({ place, training, on, canWrite, recorder }: CaneCountProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { view, plant, system, record } = training
  if (!system?.ofCount) return null
  const seasonOf = (day: string) => woodYear(day, view.input.hemisphere)
  const last = record?.caneCounts.filter((one) => seasonOf(one.on) === seasonOf(on)).at(-1)
  const say = speech(t, units, system.id, view)
  return (
    <section className="flex flex-col gap-2">
      <h2>{t('wood.canes.title')}</h2>
      {last && (
        <div>
          <p className="text-slate">{t('wood.canes.on', { date: formatDate(last.on) })}</p>
          <ul>
            {system.ofCount(view, last).map((one) => (
              <li key={one.code} className={one.isLack ? 'text-ochre' : ''}>
                {remarkWords(say, one, nothing, nothing)}
              </li>
            ))}
          </ul>
        </div>
      )}
      {canWrite && (
        <Count
          widthM={view.share.toM - view.share.fromM}
          onCount={(count) =>
            recorder.write(t('wood.canes.done'), [
              { placeId: place.id, plantId: plant.id, at: on, kind: 'plant.canes', body: { v: 1, ...count } },
            ])
          }
        />
      )}
    </section>
  )
}

interface CountProps {
  readonly widthM: number
  readonly onCount: (count: {
    readonly fresh: number
    readonly fruited: number
    readonly cutOut: number
    readonly overM: number
  }) => void
}

function Count({ widthM, onCount }: CountProps) {
  const { t } = useTranslation()
  const [overM, setOverM] = useState(Math.max(0.1, Math.round(widthM * 100) / 100))
  const [fresh, setFresh] = useState(0)
  const [fruited, setFruited] = useState(0)
  const [cutOut, setCutOut] = useState(0)
  const isTooMany = cutOut > fruited
  const fields = [
    ['fresh', fresh, setFresh],
    ['fruited', fruited, setFruited],
    ['cutOut', cutOut, setCutOut],
  ] as const
  return (
    <>
      <p className="text-[0.8125rem] text-slate">{t('wood.canes.hint')}</p>
      <div className="grid grid-cols-2 items-end gap-2">
        {fields.map(([name, value, set]) => (
          <NumberField
            key={name}
            label={t(`wood.canes.${name}`)}
            value={value}
            min={0}
            max={MOST}
            step={1}
            onChange={(next) => set(Math.round(next))}
          />
        ))}
        <LengthField label={t('wood.canes.over')} minM={0.1} maxM={1000} valueM={overM} onChange={setOverM} />
      </div>
      {isTooMany && (
        <p role="alert" className="text-iron">
          {t('wood.canes.tooMany')}
        </p>
      )}
      <button
        type="button"
        className="btn self-start"
        disabled={isTooMany || fresh + fruited === 0}
        onClick={() => onCount({ fresh, fruited, cutOut, overM })}
      >
        {t('wood.canes.do')}
      </button>
    </>
  )
}
