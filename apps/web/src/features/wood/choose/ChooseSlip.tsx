import { listPlain } from '../../../i18n/language.ts'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { formatDate } from '../../../data/dates.ts'
import type { Recorder } from '../../../data/use-recorder.ts'
import { QuestionSlip } from './QuestionSlip.tsx'
import type { WoodBenchData } from '../use-bench.ts'
import { TiesBySystem } from './TiesBySystem.tsx'
import { SystemPanel } from './SystemPanel.tsx'
import type { Training } from './training.ts'
import type { Answer } from './use-answer.ts'
import type { Choosing } from './use-choosing.ts'
import { positionWords, speech } from './words.ts'
import { questionWords, systemWords } from '../../../i18n/craft-words.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { windowDays } from '@klados/core/season'
import type { PlantView, TrainingSystem } from '@klados/core/training'
import { SlipGroup, SlipRow } from '../../../ui/Slip.tsx'
import { useUnits } from '../../../ui/units.tsx'

interface ChooseSlipProps {
  readonly gardenId: string
  readonly placeId: string
  readonly data: WoodBenchData
  readonly training: Training | null
  readonly choosing: Choosing | null
  readonly answer: Answer | null
  readonly recorder: Recorder
  readonly on: string
  readonly canWrite: boolean
  readonly onCommit: (as: 'plan' | 'done') => void
  readonly onAskAgain: () => void
  /** Of several questions that stand open, this one. */
  readonly onAsk: (code: string) => void
}

/** What a plant asks now; where it asks nothing, why not and what its year brings. */
export function ChooseSlip({
  data,
  training,
  choosing,
  answer,
  recorder,
  on,
  onCommit,
  onAskAgain,
  onAsk,
  ...rest
}: ChooseSlipProps) {
  const { gardenId, placeId, canWrite } = rest
  const { t } = useTranslation()
  const units = useUnits()
  if (!training) return <p className="text-slate">{t('choose.pickPlant')}</p>
  const { system, plant, view } = training
  const panel = canWrite && <SystemPanel key={plant.id} {...{ gardenId, placeId, training, recorder, on }} />
  const { answered, planned } = training
  const say = speech(t, units, system?.id ?? null, view)
  const missing = training.positions.filter(({ pieceId }) => pieceId === null)
  const all = training.positions.length
  return (
    <>
      {system && training.questions.length > 1 && (
        <Choice
          label={t('choose.open')}
          value={training.question!.code}
          options={training.questions.map(({ code }) => ({
            value: code,
            label: questionWords(t, system.id, code),
          }))}
          onChange={onAsk}
        />
      )}
      {choosing && answer ? (
        <>
          {planned && (
            <p className="text-ochre">{t('choose.isPlanned', { date: formatDate(planned.madeOn) })}</p>
          )}
          <QuestionSlip
            {...rest}
            training={training}
            choosing={choosing}
            answer={answer}
            onCommit={onCommit}
          />
        </>
      ) : answered ? (
        <p className="flex flex-wrap items-center gap-2">
          {t('choose.answered', {
            question: questionWords(t, answered.system, answered.question),
            date: formatDate(answered.doneOn ?? answered.madeOn),
          })}
          <button type="button" className="btn" onClick={onAskAgain}>
            {t('choose.askAgain')}
          </button>
        </p>
      ) : (
        system && (
          <p>{t(view.stems.length === 0 ? 'choose.noWood' : 'choose.nothing', { name: plant.body.name })}</p>
        )
      )}
      {system && (
        <ul className="flex flex-col gap-1">
          {system.tasks(view).map(({ code, count }) => (
            <li key={code}>{say.craft('task', code, { count: count ?? 0 })}</li>
          ))}
        </ul>
      )}
      {system && <YearAhead system={system} view={view} />}
      {missing.length > 0 && (
        <p>
          {t('choose.stands', { have: all - missing.length, of: all })}. {t('choose.position.missing')}:{' '}
          {listPlain(missing.map((one) => positionWords(say.craft, one)))}.
        </p>
      )}
      {system ? (
        <details>
          <summary className="font-display text-[0.9375rem] font-semibold">
            {t('choose.system')}: {systemWords(t, system.id)}
          </summary>
          {panel}
          <TiesBySystem data={data} training={training} />
        </details>
      ) : (
        panel
      )}
      <details className="max-sm:hidden">
        <summary className="text-[0.8125rem] text-slate">{t('choose.keys.title')}</summary>
        <p className="text-[0.8125rem] text-slate">{t('choose.keys.text')}</p>
      </details>
    </>
  )
}

/** What the system asks in the plant's year, and about when: by the stages of the year where it stands. */
function YearAhead({ system, view }: { readonly system: TrainingSystem; readonly view: PlantView }) {
  const { t } = useTranslation()
  const { on, latitudeDeg, hemisphere } = view.input
  const asks = system.year(view).flatMap(({ code, window }) => {
    const days = view.kind.growsAllYear ? null : windowDays(window, on, latitudeDeg, hemisphere)
    return days ? [{ code, days }] : []
  })
  if (asks.length === 0) return null
  return (
    <SlipGroup title={t('choose.year.title')}>
      {asks.map(({ code, days }) => (
        <SlipRow key={code} label={questionWords(t, system.id, code)}>
          {t('choose.year.row', { from: formatDate(days.from), to: formatDate(days.to) })}
        </SlipRow>
      ))}
    </SlipGroup>
  )
}
