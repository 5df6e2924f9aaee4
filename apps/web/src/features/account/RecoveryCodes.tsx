import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useMakeRecoveryCodesMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { Field } from '../../ui/Field.tsx'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'

/** The codes, once: to be printed or written down. */
export function CodesToKeep({ codes, email }: { codes: readonly string[]; email: string }) {
  const { t } = useTranslation()
  return (
    <div className="flex flex-col gap-3">
      <p>{t('recovery.keep', { email })}</p>
      <ol className="grid list-inside list-decimal gap-x-6 gap-y-1 sm:grid-cols-2">
        {codes.map((code) => (
          <li key={code} className="font-mono tabular-nums">
            {code}
          </li>
        ))}
      </ol>
      <button type="button" className="btn no-print self-start" onClick={() => window.print()}>
        {t('recovery.print')}
      </button>
    </div>
  )
}

/** How many codes are left, and new ones in their place. */
export function RecoveryCodes({ email, left }: { email: string; left: number }) {
  const { t } = useTranslation()
  const [make] = useMakeRecoveryCodesMutation()
  const [password, setPassword] = useState('')
  const [codes, setCodes] = useState<readonly string[] | null>(null)
  const [failure, setFailure] = useState<string>()
  const submit = async () => {
    const { data, error } = await make({ password })
    setFailure(error ? refusalWords(t, error as ApiError) : undefined)
    if (!data) return
    setCodes(data.codes)
    setPassword('')
  }
  return (
    <section className="flex flex-col gap-3" aria-labelledby="recovery">
      <h3 id="recovery" className="font-semibold">
        {t('recovery.codes')}
      </h3>
      {codes ? (
        <CodesToKeep codes={codes} email={email} />
      ) : (
        <>
          <p className="text-slate">
            {t('recovery.what')} {t('recovery.left', { count: left })}
          </p>
          <form
            className="flex flex-wrap items-end gap-3"
            onSubmit={(event) => {
              event.preventDefault()
              void submit()
            }}
          >
            <Field label={t('recovery.password')}>
              {(ids) => (
                <input
                  {...ids}
                  className="input"
                  type="password"
                  autoComplete="current-password"
                  value={password}
                  onChange={(event) => setPassword(event.target.value)}
                />
              )}
            </Field>
            <button type="submit" className="btn" disabled={password === ''}>
              {t(left > 0 ? 'recovery.makeNew' : 'recovery.make')}
            </button>
          </form>
          {failure && <Message tone="limit">{failure}</Message>}
        </>
      )}
    </section>
  )
}
