import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useRecoverMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { Field } from '../../ui/Field.tsx'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'

interface Form {
  email: string
  code: string
  next: string
}

/** A new password by one of the codes that one has on paper. */
export function Recover() {
  const { t } = useTranslation()
  const [recover, { isSuccess }] = useRecoverMutation()
  const [failure, setFailure] = useState<string>()
  const { register, handleSubmit, formState } = useForm<Form>()
  const { errors, isSubmitting } = formState
  const submit = handleSubmit(async (form) => {
    const { error } = await recover(form)
    setFailure(error ? refusalWords(t, error as ApiError) : undefined)
  })
  const text = (name: keyof Form, label: string, rest: object, rules: object = {}, hint?: string) => (
    <Field label={label} error={errors[name]?.message} hint={hint}>
      {(ids) => (
        <input
          {...ids}
          {...register(name, { required: t('account.required'), ...rules })}
          {...rest}
          className="input"
        />
      )}
    </Field>
  )
  return (
    <main className="mx-auto flex max-w-md flex-col gap-4 px-6 py-10">
      <p className="font-display text-[min(2.75rem,14vw)] font-bold leading-none tracking-tight">
        {t('app.name')}
      </p>
      <ScreenTitle>{t('recovery.title')}</ScreenTitle>
      {failure && <Message tone="limit">{failure}</Message>}
      {isSuccess ? (
        <>
          <Message tone="plain">{t('own.newPasswordSet')}</Message>
          <Link className="btn btn-main self-start no-underline" to="/sign-in">
            {t('account.signIn')}
          </Link>
        </>
      ) : (
        <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
          <p>{t('recovery.intro')}</p>
          {text('email', t('account.email'), { type: 'email', autoComplete: 'username' })}
          {text('code', t('recovery.code'), { type: 'text', autoComplete: 'off', spellCheck: false })}
          {text(
            'next',
            t('own.next'),
            { type: 'password', autoComplete: 'new-password' },
            { minLength: { value: 10, message: t('account.shortPassword') } },
            t('account.passwordHint'),
          )}
          <button type="submit" className="btn btn-main self-start" disabled={isSubmitting}>
            {t('own.set')}
          </button>
          <Link to="/sign-in">{t('recovery.back')}</Link>
        </form>
      )}
    </main>
  )
}
