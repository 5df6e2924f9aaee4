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
import { positionWords, questionWords } from './words.ts'

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
  ...rest
}: ChooseSlipProps) {
  const { gardenId, placeId, canWrite } = rest
  const { t } = useTranslation()
  if (!training) return <p className="text-slate">{t('choose.pickPlant')}</p>
  const { system, plant, view } = training
  const panel = canWrite && <SystemPanel key={plant.id} {...{ gardenId, placeId, training, recorder, on }} />
  const { answered, planned } = training
  const missing = training.positions.filter(({ pieceId }) => pieceId === null)
  const all = training.positions.length
  return (
    <>
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
            question: questionWords(t, answered.question),
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
            <li key={code}>{t(`choose.task.${code}`, { count: count ?? 0 })}</li>
          ))}
        </ul>
      )}
      {missing.length > 0 && (
        <p>
          {t('choose.stands', { have: all - missing.length, of: all })}. {t('choose.position.missing')}:{' '}
          {listPlain(missing.map((one) => positionWords(t, one)))}.
        </p>
      )}
      {system ? (
        <details>
          <summary className="font-display text-[0.9375rem] font-semibold">
            {t('choose.system')}: {t(`system.${system.id}` as 'system.cane-two')}
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
