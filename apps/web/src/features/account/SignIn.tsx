import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { FIRST_PLACES, rememberBeginning } from '../../data/beginning.ts'
import { currentLanguage } from '../../i18n/language.ts'
import { countries, countryOf, unitsIn } from '../../ui/countries.ts'
import type { UnitSystem } from '@klados/core/units'
import type { DisplayList } from '@klados/core/drawing'
import { Suspense, lazy, useRef, useState } from 'react'
import type { Ref } from 'react'
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
  country: string
  units: UnitSystem
  currency: string
  /** Codes that let them back in without the password. */
  wantsCodes: boolean
}

const OTHER = ''

/** What is usual in a country, as the form proposes it. */
function usualIn(code: string): Pick<Form, 'country' | 'units' | 'currency'> {
  const country = countries.find((one) => one.code === code)
  return { country: country?.code ?? OTHER, units: unitsIn(code), currency: country?.currency ?? 'EUR' }
}

/** The door: what it is for, the demo garden where the server has one, making an account, signing in. */
export function SignIn() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { data: session } = useSessionQuery(undefined)
  const [isNew, setIsNew] = useState(false)
  const [signInDemo, demo] = useSignInDemoMutation()
  const [failure, setFailure] = useState<string>()
  const [isMaking, setIsMaking] = useState(false)
  const [codes, setCodes] = useState<{ list: readonly string[]; email: string } | null>(null)
  const form = useRef<HTMLFormElement>(null)

  if (codes) return <KeepCodes codes={codes.list} email={codes.email} />
  // The codes are on their way: who has just signed up is not taken off before they are seen.
  if (session?.account && !session.isExpired && !isMaking) return <Navigate replace to={homeFromDoor()} />
  const enter = async (sent: Promise<{ error?: unknown }>) => {
    const { error } = await sent
    if (error) setFailure(refusalWords(t, error as ApiError))
    else void navigate(homeFromDoor(), { replace: true })
  }
  const beNew = (willBe: boolean) => {
    setIsNew(willBe)
    setFailure(undefined)
    // It may lie below what one sees: the hand goes on in its first field.
    requestAnimationFrame(() => form.current?.querySelector('input')?.focus())
  }
  return (
    <main className="mx-auto grid min-h-full max-w-6xl content-start gap-x-10 gap-y-6 px-6 py-10 max-sm:py-5 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_320px]">
      <section className="flex min-w-0 flex-col gap-4">
        <p className="font-display text-[min(2.75rem,14vw)] font-bold leading-none tracking-tight">
          {t('app.name')}
        </p>
        <p className="font-display text-xl">{t('app.tagline')}</p>
        <p className="max-w-prose">{t('account.pitch')}</p>
        <p className="flex flex-wrap gap-2">
          <button type="button" className="btn btn-main" onClick={() => beNew(true)}>
            {t('account.new')}
          </button>
          {session?.hasDemo && (
            <button
              type="button"
              className="btn"
              disabled={demo.isLoading}
              onClick={() => void enter(signInDemo(undefined))}
            >
              {t('account.demo')}
            </button>
          )}
        </p>
        {session?.hasDemo && <p className="max-w-prose text-slate">{t('account.demoText')}</p>}
      </section>
      <section className="lg:row-span-3">
        <DoorForm
          key={String(isNew)}
          ref={form}
          isNew={isNew}
          onNew={beNew}
          failure={failure}
          onFailure={setFailure}
          onMaking={setIsMaking}
          onCodes={setCodes}
        />
      </section>
      <nav aria-label={t('account.beginWith')} className="flex min-w-0 flex-col gap-2">
        <h2>{t('account.beginWith')}</h2>
        <ul className="flex flex-wrap gap-2">
          {FIRST_PLACES.map((kind) => (
            <li key={kind}>
              <button
                type="button"
                className="btn min-h-11"
                onClick={() => {
                  rememberBeginning(kind)
                  beNew(true)
                }}
              >
                {t(`places.have.${kind}`)}
              </button>
            </li>
          ))}
        </ul>
      </nav>
      <SampleDrawing />
    </main>
  )
}

interface DoorFormProps {
  readonly ref: Ref<HTMLFormElement>
  readonly isNew: boolean
  readonly onNew: (isNew: boolean) => void
  readonly failure: string | undefined
  readonly onFailure: (words: string | undefined) => void
  /** While an account is made whose codes are to be seen first. */
  readonly onMaking: (isMaking: boolean) => void
  readonly onCodes: (codes: { readonly list: readonly string[]; readonly email: string }) => void
}

function DoorForm({ ref, isNew, onNew, failure, onFailure, onMaking, onCodes }: DoorFormProps) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [signIn] = useSignInMutation()
  const [signUp] = useSignUpMutation()
  const [makeCodes] = useMakeRecoveryCodesMutation()
  const { register, handleSubmit, formState, setValue } = useForm<Form>({
    defaultValues: { wantsCodes: false, ...usualIn(countryOf(navigator.languages) ?? OTHER) },
  })
  const { errors, isSubmitting } = formState
  const isOwed = isSignOutOwed()
  const goHome = () => void navigate(homeFromDoor(), { replace: true })
  const signUpWithCodes = async ({ wantsCodes, country, ...form }: Form) => {
    onMaking(wantsCodes)
    const latitudeDeg = countries.find(({ code }) => code === country)?.latitudeDeg
    const currency = form.currency.trim().toUpperCase()
    const { error } = await signUp({
      ...form,
      currency,
      ...(latitudeDeg === undefined ? {} : { latitudeDeg }),
    })
    const { data } = error || !wantsCodes ? {} : await makeCodes({ password: form.password })
    if (data) onCodes({ list: data.codes, email: form.email })
    onMaking(false)
    if (error) onFailure(refusalWords(t, error as ApiError))
  }
  const submit = handleSubmit(async (form) => {
    if (isNew) return signUpWithCodes(form)
    const { error } = await signIn({ email: form.email, password: form.password })
    if (error) onFailure(refusalWords(t, error as ApiError))
    else goHome()
  })
  const required = { required: t('account.required') }
  const text = (
    name: 'name' | 'gardenName' | 'email' | 'password' | 'currency',
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
    <form ref={ref} className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
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
        <Field label={t('account.country')}>
          {(ids) => (
            <select
              {...ids}
              {...register('country', {
                onChange: ({ target }: { target: HTMLSelectElement }) => {
                  const { units, currency } = usualIn(target.value)
                  setValue('units', units)
                  setValue('currency', currency)
                },
              })}
              className="input"
            >
              <option value={OTHER}>{t('account.otherCountry')}</option>
              {countriesByName().map(({ code, name }) => (
                <option key={code} value={code}>
                  {name}
                </option>
              ))}
            </select>
          )}
        </Field>
      )}
      {isNew && (
        <fieldset>
          <legend className="mb-1 text-[0.8125rem] text-slate">{t('menu.units')}</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {(['metric', 'imperial'] as const).map((system) => (
              <label key={system} className="flex min-h-7 cursor-pointer items-center gap-1.5">
                <input
                  type="radio"
                  value={system}
                  className="h-4 w-4 accent-[var(--verdigris)]"
                  {...register('units')}
                />
                <span>{t(`menu.${system}`)}</span>
              </label>
            ))}
          </div>
        </fieldset>
      )}
      {isNew &&
        text('currency', t('account.currency'), 'text', 'off', {
          ...required,
          pattern: { value: /^\s*[A-Za-z]{3}\s*$/, message: t('account.badCurrency') },
        })}
      {isNew && (
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-1" {...register('wantsCodes')} />
          <span>{t('recovery.atSignUp')}</span>
        </label>
      )}
      <button type="submit" className="btn btn-main" disabled={isSubmitting}>
        {t(isNew ? 'account.signUp' : 'account.signIn')}
      </button>
      {isNew && (
        <button type="button" className="btn btn-plain self-start px-0" onClick={() => onNew(false)}>
          {t('account.have')}
        </button>
      )}
      {!isNew && (
        <p className="text-[0.8125rem] text-slate">
          {t('account.forgot')} <Link to="/recover">{t('recovery.haveCode')}</Link>
        </p>
      )}
    </form>
  )
}

/** In the language of the page, by name. */
function countriesByName(): readonly { readonly code: string; readonly name: string }[] {
  const names = new Intl.DisplayNames([currentLanguage()], { type: 'region' })
  return countries
    .map(({ code }) => ({ code, name: names.of(code) ?? code }))
    .sort((a, b) => a.name.localeCompare(b.name, currentLanguage()))
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
