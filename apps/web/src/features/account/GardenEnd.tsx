import type { Garden } from '@klados/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useDeleteGardenMutation, useLeaveGardenMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { Field } from '../../ui/Field.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { Message } from '../../ui/Message.tsx'
import { NewGarden } from './NewGarden.tsx'
import { Danger } from './OwnAccount.tsx'

/** Another garden; out of this one; and, for its owners, the end of it. */
export function GardenEnd({ garden }: { garden: Garden }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [leave] = useLeaveGardenMutation()
  const [remove] = useDeleteGardenMutation()
  const [failure, setFailure] = useState<string>()
  const [typed, setTyped] = useState('')
  const go = async (sent: Promise<{ error?: unknown }>) => {
    const { error } = await sent
    if (error) setFailure(refusalWords(t, error as ApiError))
    else void navigate('/', { replace: true })
  }
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-[1.25rem]">{t('garden.newGarden')}</h2>
      {failure && <Message tone="limit">{failure}</Message>}
      <NewGarden />
      <Danger title={t('garden.leave', { name: garden.name })}>
        <p>{t('garden.leaveText')}</p>
        <button type="button" className="btn self-start text-iron" onClick={() => void go(leave(garden.id))}>
          {t('garden.leaveDo')}
        </button>
      </Danger>
      {garden.role === 'owner' && (
        <Danger title={t('garden.delete', { name: garden.name })}>
          <p>{t('garden.deleteText')}</p>
          <form
            className="flex flex-wrap items-end gap-3"
            onSubmit={(event) => {
              event.preventDefault()
              void go(remove({ gardenId: garden.id, name: typed }))
            }}
          >
            <Field label={t('garden.typeName')}>
              {(ids) => (
                <input
                  {...ids}
                  className="input"
                  autoComplete="off"
                  value={typed}
                  onChange={(event) => setTyped(event.target.value)}
                />
              )}
            </Field>
            <button type="submit" className="btn text-iron" disabled={typed !== garden.name}>
              {t('garden.deleteDo')}
            </button>
          </form>
        </Danger>
      )}
    </section>
  )
}
