import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { usualUnits } from '../../ui/usual-units.ts'
import type { DisplayList } from '@klados/core/drawing'
import { Suspense, lazy, useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link, Navigate, useNavigate } from 'react-router'
import {
  isSignOutOwed,
  useMakeRecoveryCodesMutation,
  useSessionQuery,
  useSignInDemoMutation,
  useSignInMutation,
  useSignUpMutation,
} from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { Field } from '../../ui/Field.tsx'
import { homeFromDoor } from './invitation-link.ts'
import { refusalWords } from '../../ui/refusal.ts'
import { Message } from '../../ui/Message.tsx'
import sample from '../../sample/sample-drawing.json'

/** Seen once by few, so fetched when it is. */
const CodesToKeep = lazy(async () => ({ default: (await import('./RecoveryCodes.tsx')).CodesToKeep }))

interface Form {
  name: string
  gardenName: string
  email: string
  password: string
  /** Codes that let them back in without the password. */
  wantsCodes: boolean
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
  const [makeCodes] = useMakeRecoveryCodesMutation()
  const [isMaking, setIsMaking] = useState(false)
  const [codes, setCodes] = useState<{ list: readonly string[]; email: string } | null>(null)
  const { register, handleSubmit, formState } = useForm<Form>({ defaultValues: { wantsCodes: false } })
  const { errors, isSubmitting } = formState
  const isOwed = isSignOutOwed()

  if (codes) return <KeepCodes codes={codes.list} email={codes.email} />
  // The codes are on their way: who has just signed up is not taken off before they are seen.
  if (session?.account && !session.isExpired && !isMaking) return <Navigate replace to={homeFromDoor()} />
  const enter = async (sent: Promise<{ error?: unknown }>) => {
    const { error } = await sent
    if (error) setFailure(refusalWords(t, error as ApiError))
    else void navigate(homeFromDoor(), { replace: true })
  }
  const signUpWithCodes = async ({ wantsCodes, ...form }: Form) => {
    setIsMaking(wantsCodes)
    const { error } = await signUp({ ...form, units: usualUnits(navigator.languages) })
    const { data } = error || !wantsCodes ? {} : await makeCodes({ password: form.password })
    if (data) setCodes({ list: data.codes, email: form.email })
    setIsMaking(false)
    if (error) setFailure(refusalWords(t, error as ApiError))
    else if (!data) void navigate(homeFromDoor(), { replace: true })
  }
  const submit = handleSubmit((form) => {
    const { email, password } = form
    return isNew ? signUpWithCodes(form) : enter(signIn({ email, password }))
  })
  const required = { required: t('account.required') }
  const text = (
    name: Exclude<keyof Form, 'wantsCodes'>,
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
    <main className="mx-auto grid min-h-full max-w-6xl content-start gap-10 px-6 py-10 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_320px]">
      <section className="flex min-w-0 flex-col gap-4">
        <p className="font-display text-[min(2.75rem,14vw)] font-bold leading-none tracking-tight">
          {t('app.name')}
        </p>
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
          <ScreenTitle>{t(isNew ? 'account.signUp' : 'account.signIn')}</ScreenTitle>
          {isOwed && <Message tone="plain">{t('away.signedOut')}</Message>}
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
          {isNew && (
            <label className="flex items-start gap-2">
              <input type="checkbox" className="mt-1" {...register('wantsCodes')} />
              <span>{t('recovery.atSignUp')}</span>
            </label>
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
          {!isNew && (
            <p className="text-[0.8125rem] text-slate">
              {t('account.forgot')} <Link to="/recover">{t('recovery.haveCode')}</Link>
            </p>
          )}
        </form>
      </section>
    </main>
  )
}

function KeepCodes({ codes, email }: { codes: readonly string[]; email: string }) {
  const { t } = useTranslation()
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 px-6 py-10">
      <ScreenTitle>{t('recovery.codes')}</ScreenTitle>
      <Suspense>
        <CodesToKeep codes={codes} email={email} />
      </Suspense>
      <Link className="btn btn-main no-print self-start no-underline" to={homeFromDoor()} replace>
        {t('recovery.kept')}
      </Link>
    </main>
  )
}

function SampleDrawing() {
  const { t } = useTranslation()
  return (
    <StillElevation
      label={t('account.pitch')}
      wall={{ ...sample.wall, viewingEnd: 'left' }}
      surface="brick"
      // What was drawn beforehand, as JSON has it.
      list={sample.list as unknown as DisplayList}
      tapeAlong
    />
  )
}
