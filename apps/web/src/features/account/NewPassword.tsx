import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useNewPasswordMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { Field } from '../../ui/Field.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { Message } from '../../ui/Message.tsx'

/** Where a link leads that somebody handed over: a new password, once. */
export function NewPassword() {
  const { t } = useTranslation()
  const [token] = useState(() => window.location.hash.slice(1))
  const [send, { isSuccess }] = useNewPasswordMutation()
  const [failure, setFailure] = useState<string>()
  const { register, handleSubmit, formState } = useForm({ defaultValues: { next: '' } })
  const submit = handleSubmit(async ({ next }) => {
    const { error } = await send({ token, next })
    setFailure(error ? refusalWords(t, error as ApiError) : undefined)
  })
  return (
    <main className="mx-auto flex max-w-md flex-col gap-4 px-6 py-10">
      <p className="font-display text-[min(2.75rem,14vw)] font-bold leading-none tracking-tight">
        {t('app.name')}
      </p>
      <ScreenTitle>{t('own.newPassword')}</ScreenTitle>
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
          <Field
            label={t('own.next')}
            hint={t('account.passwordHint')}
            error={formState.errors.next?.message}
          >
            {(ids) => (
              <input
                {...ids}
                {...register('next', {
                  required: t('account.required'),
                  minLength: { value: 10, message: t('account.shortPassword') },
                })}
                className="input"
                type="password"
                autoComplete="new-password"
              />
            )}
          </Field>
          <button type="submit" className="btn btn-main self-start" disabled={formState.isSubmitting}>
            {t('own.set')}
          </button>
        </form>
      )}
    </main>
  )
}
