import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCreateGardenMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { TextField } from '../../ui/TextField.tsx'

/** A name, and a garden of that name is there and open. */
export function NewGarden() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [create] = useCreateGardenMutation()
  const [name, setName] = useState('')
  const [failure, setFailure] = useState<string>()
  const make = async () => {
    const { data, error } = await create(name.trim())
    if (data) void navigate(`/g/${data.id}/places`)
    else setFailure(refusalWords(t, error as ApiError))
  }
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        void make()
      }}
    >
      <TextField label={t('account.gardenName')} value={name} onChange={setName} />
      <button type="submit" className="btn" disabled={name.trim() === ''}>
        {t('garden.create')}
      </button>
      {failure && (
        <div className="basis-full">
          <Message tone="limit">{failure}</Message>
        </div>
      )}
    </form>
  )
}
