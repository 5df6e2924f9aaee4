import { useTranslation } from '../../i18n/use-translation.tsx'
import { usualUnits } from '../../ui/usual-units.ts'
import { standardCatalogue } from '@klados/core/catalogue'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { Navigate, useNavigate } from 'react-router'
import {
  useSessionQuery,
  useSignInDemoMutation,
  useSignInMutation,
  useSignUpMutation,
} from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { Field } from '../../ui/Field.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { Message } from '../../ui/Message.tsx'
import { drawPlace, layOut } from '../../plan/lay-out.ts'
import { sampleDesign, sampleWall } from '../../sample/sample-wall.ts'

interface Form {
  name: string
  gardenName: string
  email: string
  password: string
}

/** The door: sign in, make an account, or walk through the demo garden where the server has one. */
export function SignIn() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { data: session } = useSessionQuery(undefined)
  const [isNew, setIsNew] = useState(false)
  const [signIn] = useSignInMutation()
  const [signUp] = useSignUpMutation()
  const [signInDemo, demo] = useSignInDemoMutation()
  const [failure, setFailure] = useState<string>()
  const { register, handleSubmit, formState } = useForm<Form>()
  const { errors, isSubmitting } = formState

  if (session?.account && !session.isExpired) return <Navigate replace to="/" />
  const enter = async (sent: Promise<{ error?: unknown }>) => {
    const { error } = await sent
    if (error) setFailure(refusalWords(t, error as ApiError))
    else void navigate('/', { replace: true })
  }
  const submit = handleSubmit((form) => {
    const { email, password } = form
    return enter(
      isNew ? signUp({ ...form, units: usualUnits(navigator.languages) }) : signIn({ email, password }),
    )
  })
  const required = { required: t('account.required') }
  const text = (
    name: keyof Form,
    label: string,
    type: string,
    autoComplete: string,
    rules: object = required,
    hint?: string,
  ) => (
    <Field label={label} error={errors[name]?.message} hint={hint}>
      {(ids) => (
        <input
          {...ids}
          {...register(name, rules)}
          className="input"
          type={type}
          autoComplete={autoComplete}
        />
      )}
    </Field>
  )
  return (
    <main className="mx-auto grid min-h-full max-w-6xl content-start gap-10 px-6 py-10 lg:grid-cols-[minmax(0,1fr)_320px]">
      <section className="flex min-w-0 flex-col gap-4">
        <p className="font-display text-[44px] font-bold leading-none tracking-tight">{t('app.name')}</p>
        <p className="font-display text-xl">{t('app.tagline')}</p>
        <p className="max-w-prose">{t('account.pitch')}</p>
        <SampleDrawing />
      </section>
      <section className="flex flex-col gap-6">
        {session?.hasDemo && (
          <div className="slip flex flex-col gap-3">
            <p>{t('account.demoText')}</p>
            <button
              type="button"
              className="btn btn-main"
              disabled={demo.isLoading}
              onClick={() => void enter(signInDemo(undefined))}
            >
              {t('account.demo')}
            </button>
          </div>
        )}
        <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
          <h1>{t(isNew ? 'account.signUp' : 'account.signIn')}</h1>
          {failure && <Message tone="limit">{failure}</Message>}
          {isNew && text('name', t('account.name'), 'text', 'name')}
          {isNew && text('gardenName', t('account.gardenName'), 'text', 'off')}
          {text('email', t('account.email'), 'email', 'email', {
            ...required,
            pattern: { value: /^\S+@\S+\.\S+$/, message: t('account.badEmail') },
          })}
          {text(
            'password',
            t('account.password'),
            'password',
            isNew ? 'new-password' : 'current-password',
            isNew ? { ...required, minLength: { value: 10, message: t('account.shortPassword') } } : required,
            isNew ? t('account.passwordHint') : undefined,
          )}
          <button type="submit" className="btn btn-main" disabled={isSubmitting}>
            {t(isNew ? 'account.signUp' : 'account.signIn')}
          </button>
          <button
            type="button"
            className="btn btn-plain self-start px-0"
            onClick={() => {
              setIsNew(!isNew)
              setFailure(undefined)
            }}
          >
            {t(isNew ? 'account.have' : 'account.new')}
          </button>
          {!isNew && <p className="text-[13px] text-slate">{t('account.forgot')}</p>}
        </form>
      </section>
    </main>
  )
}

function SampleDrawing() {
  const { t } = useTranslation()
  const frame = layOut(sampleWall, sampleDesign, standardCatalogue)
  return (
    <StillElevation
      label={t('account.pitch')}
      wall={sampleWall}
      surface="brick"
      list={drawPlace(sampleWall, [frame], standardCatalogue)}
      tapeAlong
    />
  )
}
