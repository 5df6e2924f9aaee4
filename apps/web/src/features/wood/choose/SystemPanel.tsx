import { levelWires } from '@klados/core/training'
import { budFormulas } from '@klados/core/budget'
import type { PlantBody } from '@klados/contract'
import { useState } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { saveDocument } from '../../../data/saves.ts'
import { useAppDispatch } from '../../../data/store.ts'
import type { Recorder } from '../../../data/use-recorder.ts'
import { Choice, Pick } from '../../../ui/Choice.tsx'
import { MassField } from '../../../ui/MassField.tsx'
import { Message } from '../../../ui/Message.tsx'
import { NumberField } from '../../../ui/NumberField.tsx'
import { refusalWords } from '../../../ui/refusal.ts'
import { around } from './goal.ts'
import type { Training } from './training.ts'
import { systemAbout, systemWords } from '../../../i18n/craft-words.ts'

interface SystemPanelProps {
  readonly gardenId: string
  readonly placeId: string
  readonly training: Training
  readonly recorder: Recorder
  readonly on: string
}

const NONE = 'none'
const LIMITS = { min: 12, max: 90 } as const

/** How the plant is trained, and how many buds it is to keep. */
export function SystemPanel({ gardenId, placeId, training, recorder, on }: SystemPanelProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [trouble, setTrouble] = useState<string | null>(null)
  const { plant, system, systems, view } = training
  const save = async (part: Partial<PlantBody>) => {
    const body = { ...plant.body, ...part }
    const outcome = await dispatch(
      saveDocument('plants', gardenId, { id: plant.id, basedOn: plant.version, body }),
    )
    setTrouble(
      outcome.kind === 'refused'
        ? refusalWords(t, outcome)
        : outcome.kind === 'conflict'
          ? t('wood.detailsConflict')
          : null,
    )
  }
  if (systems.length === 0) return <p className="text-slate">{t('choose.noSystems')}</p>
  return (
    <section className="mb-3 flex flex-col gap-2">
      {!system && <p className="text-slate">{t('choose.noSystem', { name: plant.body.name })}</p>}
      <Pick
        label={t('choose.systemFor', { name: plant.body.name })}
        value={system?.id ?? NONE}
        options={[
          { value: NONE, label: t('choose.systemNone') },
          ...systems.map(({ id }) => ({ value: id, label: systemWords(t, id) })),
        ]}
        onChange={(id) => void save({ system: id === NONE ? null : id })}
      />
      {system && <p className="text-[0.8125rem] text-slate">{systemAbout(t, system.id)}</p>}
      {system?.needsWires && levelWires(view).length === 0 && (
        <Message tone="due">{t('choose.needsWires')}</Message>
      )}
      {trouble && <Message tone="limit">{trouble}</Message>}
      {system?.hasBudGoal && (
        <Goal
          training={training}
          placeId={placeId}
          on={on}
          recorder={recorder}
          onSave={(budGoal) => void save({ budGoal })}
        />
      )}
    </section>
  )
}

interface GoalProps {
  readonly training: Training
  readonly placeId: string
  readonly on: string
  readonly recorder: Recorder
  readonly onSave: (goal: PlantBody['budGoal']) => void
}

function Goal({ training, placeId, on, recorder, onSave }: GoalProps) {
  const { t } = useTranslation()
  const { plant, view } = training
  const goal = plant.body.budGoal
  const by = goal?.by ?? 'default'
  const usual = view.settings.goal
  const plain = usual.by === 'plain' ? usual.aim : 30
  return (
    <>
      <Choice
        label={t('choose.goal')}
        value={by}
        options={(['default', 'plain', 'balanced'] as const).map((value) => ({
          value,
          label: t(`choose.goalBy.${value}`),
        }))}
        onChange={(value) =>
          onSave(
            value === 'default'
              ? null
              : value === 'plain'
                ? around(plain)
                : { by: 'balanced', formula: '30+10', ...LIMITS, plain },
          )
        }
      />
      {goal?.by === 'plain' && <Aim goal={goal} onSave={onSave} />}
      {goal?.by === 'balanced' && (
        <>
          <Pick
            label={t('choose.formula')}
            value={goal.formula}
            options={budFormulas.map(({ id }) => ({
              value: id,
              label: t('choose.formulaOf', { formula: id }),
            }))}
            onChange={(formula) => onSave({ ...goal, formula: formula as typeof goal.formula })}
          />
          <Prunings
            weighedKg={view.input.pruningsKg}
            onWeighed={(value) =>
              recorder.write(t('choose.prunings'), [
                {
                  kind: 'reading.taken',
                  placeId,
                  plantId: plant.id,
                  at: on,
                  body: { v: 1, what: 'prunings', value, pieceId: null, alongM: null },
                },
              ])
            }
          />
        </>
      )}
    </>
  )
}

type PlainGoal = Extract<NonNullable<PlantBody['budGoal']>, { readonly by: 'plain' }>

const MOST_BUDS = 400

interface AimProps {
  readonly goal: PlainGoal
  readonly onSave: (goal: PlainGoal) => void
}

/** The number wanted, and from where to where is near enough: that follows the number until it is told apart. */
function Aim({ goal, onSave }: AimProps) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState(goal)
  const isSame = typed.aim === goal.aim && typed.min === goal.min && typed.max === goal.max
  const isFit = typed.min <= typed.aim && typed.aim <= typed.max
  const field = (label: string, value: number, onChange: (value: number) => void) => (
    <NumberField label={label} value={value} min={1} max={MOST_BUDS} step={1} onChange={onChange} />
  )
  return (
    <div className="grid grid-cols-3 items-end gap-2">
      {field(t('choose.goalAim'), typed.aim, (aim) => setTyped(around(aim)))}
      {field(t('choose.goalLeast'), typed.min, (min) => setTyped({ ...typed, min }))}
      {field(t('choose.goalMost'), typed.max, (max) => setTyped({ ...typed, max }))}
      {!isFit && <p className="col-span-3 text-iron">{t('choose.goalApart')}</p>}
      <button
        type="button"
        className="btn justify-self-start"
        disabled={isSame || !isFit}
        onClick={() => onSave(typed)}
      >
        {t('choose.goalSave')}
      </button>
    </div>
  )
}

interface PruningsProps {
  readonly weighedKg: number | null
  readonly onWeighed: (kg: number) => void
}

const MOST_KG = 50

function Prunings({ weighedKg, onWeighed }: PruningsProps) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState(weighedKg ?? 0)
  return (
    <div className="flex items-end gap-2">
      <MassField label={t('choose.prunings')} valueKg={typed} maxKg={MOST_KG} onChange={setTyped} />
      <button
        type="button"
        className="btn"
        disabled={typed === (weighedKg ?? 0)}
        onClick={() => onWeighed(typed)}
      >
        {t('choose.weigh')}
      </button>
    </div>
  )
}
