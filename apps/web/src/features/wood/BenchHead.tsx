import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import type { Place } from '@klados/contract'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import type { Recorder } from '../../data/use-recorder.ts'
import { Choice } from '../../ui/Choice.tsx'
import type { Training } from './choose/training.ts'
import { woodTools } from './bench-state.ts'
import type { WoodTools } from './use-wood-tools.ts'
import { systemWords } from '../../i18n/craft-words.ts'

interface BenchTitleProps {
  readonly place: Place
  readonly training: Training | null
  readonly on: string
  readonly today: string
}

/** Where one is: the place, the plant with its system, the stage of its year; or the day looked back at. */
export function BenchTitle({ place, training, on, today }: BenchTitleProps) {
  const { t } = useTranslation()
  const said = training
    ? [
        training.plant.body.name,
        ...(training.system ? [systemWords(t, training.system.id)] : []),
        t(`choose.stage.${training.view.stage}`),
      ]
    : []
  return (
    <div className="flex flex-wrap items-baseline gap-x-3">
      <ScreenTitle tab={t('app.tabOf', { screen: t('stage.wood'), of: place.body.name })}>
        {place.body.name}
      </ScreenTitle>
      <p className="text-slate">{listPlain(said)}</p>
      {on !== today && (
        <p className="font-semibold text-verdigris">{t('wood.on', { date: formatDate(on, 'long') })}</p>
      )}
    </div>
  )
}

interface ToolBarProps {
  readonly tools: WoodTools
  readonly recorder: Recorder
  readonly canDraw: boolean
  readonly isLooking: boolean
}

/** What is in the hand, and the last step to take back. */
export function ToolBar({ tools, recorder, canDraw, isLooking }: ToolBarProps) {
  const { t } = useTranslation()
  return (
    <>
      {isLooking && (
        <Choice
          isInline
          label={t('wood.tool.label')}
          value={tools.tool}
          options={woodTools
            .filter((one) => one !== 'draw' || canDraw)
            .map((value) => ({ value, label: t(`wood.tool.${value}`) }))}
          onChange={tools.pick}
        />
      )}
      <button
        type="button"
        className="btn max-w-60"
        disabled={!recorder.last}
        onClick={recorder.undo}
        title={recorder.last?.what}
      >
        <span className="truncate">
          {recorder.last ? t('wood.undo', { what: recorder.last.what }) : t('wood.undoNone')}
        </span>
      </button>
    </>
  )
}
