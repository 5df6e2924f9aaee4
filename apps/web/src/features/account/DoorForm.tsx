import type { UnitSystem } from '@klados/core/units'
import type { Ref } from 'react'
import { useForm } from 'react-hook-form'
import { Link, useNavigate } from 'react-router'
import {
  isSignOutOwed,
  useMakeRecoveryCodesMutation,
  useSignInMutation,
  useSignUpMutation,
} from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { currentLanguage } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { countries, countryOf, unitsIn } from '../../ui/countries.ts'
import { Field } from '../../ui/Field.tsx'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'
import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { homeFromDoor } from './invitation-link.ts'

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
  keepsDemo: boolean
}

const OTHER = ''

/** What is usual in a country, as the form proposes it. */
function usualIn(code: string): Pick<Form, 'country' | 'units' | 'currency'> {
  const country = countries.find((one) => one.code === code)
  return { country: country?.code ?? OTHER, units: unitsIn(code), currency: country?.currency ?? 'EUR' }
}

interface DoorFormProps {
  readonly ref: Ref<HTMLFormElement>
  readonly isNew: boolean
  /** The copy of the demo becomes the garden, unless the person would rather begin with an empty one. */
  readonly keepsDemo: boolean
  readonly onNew: (isNew: boolean) => void
  readonly failure: string | undefined
  readonly onFailure: (words: string | undefined) => void
  /** While an account is made whose codes are to be seen first. */
  readonly onMaking: (isMaking: boolean) => void
  readonly onCodes: (codes: { readonly list: readonly string[]; readonly email: string }) => void
}

/** Signing in, or making an account with what is usual where one is. */
export function DoorForm({
  ref,
  isNew,
  keepsDemo,
  onNew,
  failure,
  onFailure,
  onMaking,
  onCodes,
}: DoorFormProps) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [signIn] = useSignInMutation()
  const [signUp] = useSignUpMutation()
  const [makeCodes] = useMakeRecoveryCodesMutation()
  const { register, handleSubmit, formState, setValue } = useForm<Form>({
    defaultValues: {
      wantsCodes: false,
      keepsDemo,
      gardenName: isNew ? t('account.myGarden') : '',
      ...usualIn(countryOf(navigator.languages) ?? OTHER),
    },
  })
  const { errors, isSubmitting } = formState
  const isOwed = isSignOutOwed()
  const goHome = () => void navigate(homeFromDoor(), { replace: true })
  const signUpWithCodes = async ({ wantsCodes, country, keepsDemo, ...form }: Form) => {
    onMaking(wantsCodes)
    const latitudeDeg = countries.find(({ code }) => code === country)?.latitudeDeg
    const currency = form.currency.trim().toUpperCase()
    const { error } = await signUp({
      ...form,
      currency,
      ...(latitudeDeg === undefined ? {} : { latitudeDeg }),
      ...(keepsDemo ? { keepsDemo } : {}),
      timeZone: new Intl.DateTimeFormat().resolvedOptions().timeZone,
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
      {keepsDemo && (
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-1" {...register('keepsDemo')} />
          <span>{t('demo.keepAtSignUp')}</span>
        </label>
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
