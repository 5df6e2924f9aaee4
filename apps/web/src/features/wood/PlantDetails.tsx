import { formsPlanted } from '@klados/core/kinds'
import type { Plant, PlantBody } from '@klados/contract'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { TextField } from '../../ui/TextField.tsx'

type Detail = 'name' | 'formPlanted' | 'rootstock' | 'graftHeightM' | 'motherId'
type Details = { readonly [D in Detail]?: PlantBody[D] }

interface PlantDetailsProps {
  readonly gardenId: string
  readonly plant: Plant
  /** Plants that it may have been taken from. */
  readonly mothers: readonly Plant[]
}

const UNTOLD = 'untold'

/** What is known of where a plant comes from: as what it came, what it is grafted on, what it was taken from. */
export function PlantDetails({ gardenId, plant, mothers }: PlantDetailsProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [typed, setTyped] = useState<Details>({})
  const [message, setMessage] = useState<{ tone: 'plain' | 'due' | 'limit'; text: string } | null>(null)
  const body = { ...plant.body, ...typed }
  const change = (part: Details) => {
    setMessage(null)
    setTyped((old) => ({ ...old, ...part }))
  }
  const save = async () => {
    const named = { ...body, name: body.name.trim() || plant.body.name, rootstock: body.rootstock.trim() }
    const document = { id: plant.id, basedOn: plant.version, body: named }
    const outcome = await dispatch(saveDocument('plants', gardenId, document))
    // What was refused stays as it was typed; what met another's version lies in the tray.
    if (outcome.kind === 'refused') return setMessage({ tone: 'limit', text: refusalWords(t, outcome) })
    setTyped({})
    const words = {
      saved: 'place.saved',
      waiting: 'frame.waiting',
      conflict: 'wood.detailsConflict',
    } as const
    setMessage({ tone: outcome.kind === 'saved' ? 'plain' : 'due', text: t(words[outcome.kind]) })
  }
  const pick = <V extends string>(value: string) => (value === UNTOLD ? null : (value as V))
  const untold = { value: UNTOLD, label: t('wood.untold') }
  return (
    <details>
      <summary className="font-display text-[0.9375rem] font-semibold">{t('wood.details')}</summary>
      <form
        className="flex flex-col gap-2 pt-1"
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <TextField label={t('wood.plantName')} value={body.name} onChange={(name) => change({ name })} />
        <Pick
          label={t('wood.formPlanted')}
          value={body.formPlanted ?? UNTOLD}
          options={[untold, ...formsPlanted.map((value) => ({ value, label: t(`formPlanted.${value}`) }))]}
          onChange={(value) => change({ formPlanted: pick(value) })}
        />
        <TextField
          label={t('wood.rootstock')}
          value={body.rootstock}
          onChange={(rootstock) => change({ rootstock })}
        />
        <LengthField
          label={t('wood.graftHeight')}
          hint={t('wood.graftHint')}
          style="short"
          valueM={body.graftHeightM}
          minM={0}
          maxM={5}
          onChange={(graftHeightM) => change({ graftHeightM })}
          onClear={() => change({ graftHeightM: null })}
        />
        {mothers.length > 0 && (
          <Pick
            label={t('wood.mother')}
            value={body.motherId ?? UNTOLD}
            options={[untold, ...mothers.map((one) => ({ value: one.id, label: one.body.name }))]}
            onChange={(value) => change({ motherId: pick(value) })}
          />
        )}
        {message && <Message tone={message.tone}>{message.text}</Message>}
        <button type="submit" className="btn self-start" disabled={Object.keys(typed).length === 0}>
          {t('wood.saveDetails')}
        </button>
      </form>
    </details>
  )
}
