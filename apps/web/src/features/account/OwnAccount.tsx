import { listWords } from '../../i18n/language.ts'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import {
  useChangePasswordMutation,
  useDeleteAccountMutation,
  useSessionQuery,
  useSignOutEverywhereMutation,
} from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { useAppSelector } from '../../data/store.ts'
import { selectItems } from '../../data/sync/slice.ts'
import { Field } from '../../ui/Field.tsx'
import { OpenSessions } from './OpenSessions.tsx'
import { RecoveryCodes } from './RecoveryCodes.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { Message } from '../../ui/Message.tsx'

/** One's own password, sessions and account; a visitor of the demo has none of them. */
export function OwnAccount() {
  const { t } = useTranslation()
  const { data: session } = useSessionQuery(undefined)
  const account = session?.account
  if (!account) return null
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-[1.25rem]">{t('own.title')}</h2>
      <p className="truncate text-slate">
        {account.isDemo ? account.name : `${account.name}, ${account.email}`}
      </p>
      {account.isDemo ? (
        <p className="text-slate">{t('refusal.account/demo')}</p>
      ) : (
        <>
          <ChangePassword email={account.email} />
          <RecoveryCodes email={account.email} left={account.recoveryCodes ?? 0} />
          <OpenSessions />
          <SignOutEverywhere />
          <DeleteAccount />
        </>
      )}
    </section>
  )
}

function ChangePassword({ email }: { email: string }) {
  const { t } = useTranslation()
  const [change] = useChangePasswordMutation()
  const [outcome, setOutcome] = useState<{ tone: 'plain' | 'limit'; text: string } | null>(null)
  const { register, handleSubmit, reset, formState } = useForm({ defaultValues: { current: '', next: '' } })
  const submit = handleSubmit(async (form) => {
    const { error } = await change(form)
    setOutcome(
      error
        ? { tone: 'limit', text: refusalWords(t, error as ApiError) }
        : { tone: 'plain', text: t('own.passwordChanged') },
    )
    if (!error) reset()
  })
  const text = (name: 'current' | 'next', autoComplete: string, least: number, hint?: string) => (
    <Field label={t(`own.${name}`)} hint={hint} error={formState.errors[name]?.message}>
      {(ids) => (
        <input
          {...ids}
          {...register(name, {
            required: t('account.required'),
            minLength: { value: least, message: t('account.shortPassword') },
          })}
          className="input"
          type="password"
          autoComplete={autoComplete}
        />
      )}
    </Field>
  )
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
      <input type="email" autoComplete="username" value={email} readOnly hidden />
      {text('current', 'current-password', 1)}
      {text('next', 'new-password', 10, t('account.passwordHint'))}
      <button type="submit" className="btn self-start" disabled={formState.isSubmitting}>
        {t('own.change')}
      </button>
      {outcome && <Message tone={outcome.tone}>{outcome.text}</Message>}
    </form>
  )
}

function SignOutEverywhere() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [signOut] = useSignOutEverywhereMutation()
  return (
    <div>
      <p className="mb-1 text-slate">{t('own.everywhereText')}</p>
      <button
        type="button"
        className="btn"
        onClick={() => void signOut(undefined).then(() => navigate('/sign-in', { replace: true }))}
      >
        {t('own.everywhere')}
      </button>
    </div>
  )
}

function DeleteAccount() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [remove] = useDeleteAccountMutation()
  const [failure, setFailure] = useState<string>()
  const [password, setPassword] = useState('')
  const unsent = useAppSelector(selectItems).length
  const submit = async () => {
    const { error } = await remove({ password })
    if (error) {
      const refused = error as ApiError
      setFailure(
        refused.gardens
          ? t('own.soleOwner', { gardens: listWords(refused.gardens) })
          : refusalWords(t, refused),
      )
    } else void navigate('/sign-in', { replace: true })
  }
  return (
    <Danger title={t('own.delete')}>
      <p>
        {t('own.deleteText')} {unsent > 0 && <strong>{t('own.unsent', { count: unsent })}</strong>}
      </p>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <Field label={t('account.password')}>
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
        <button type="submit" className="btn text-iron" disabled={password === ''}>
          {t('own.deleteDo')}
        </button>
      </form>
      {failure && <Message tone="limit">{failure}</Message>}
    </Danger>
  )
}

/** Closed until it is asked for, so that nothing that cannot be taken back lies under the finger. */
export function Danger({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details className="border-l-4 border-iron pl-3">
      <summary className="cursor-pointer text-iron">{title}</summary>
      <div className="mt-2 flex flex-col gap-3">{children}</div>
    </details>
  )
}
