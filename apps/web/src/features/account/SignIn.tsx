import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { FIRST_PLACES, rememberBeginning } from '../../data/beginning.ts'
import type { DisplayList } from '@klados/core/drawing'
import { Suspense, lazy, useRef, useState } from 'react'
import { Link, Navigate, useNavigate, useSearchParams } from 'react-router'
import { useSessionQuery, useSignInDemoMutation } from '../../data/api.ts'
import type { ApiError } from '../../data/api.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { countryOf, unitsIn } from '../../ui/countries.ts'
import { DoorForm } from './DoorForm.tsx'
import { homeFromDoor } from './invitation-link.ts'
import { refusalWords } from '../../ui/refusal.ts'
import sample from '../../sample/sample-drawing.json'

/** Seen once by few, so fetched when it is. */
const CodesToKeep = lazy(async () => ({ default: (await import('./RecoveryCodes.tsx')).CodesToKeep }))

/** The door: what it is for, the demo garden where the server has one, making an account, signing in. */
export function SignIn() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { data: session } = useSessionQuery(undefined)
  // A visitor who has been through the demo comes back to keep it.
  const wantsToKeep = useSearchParams()[0].has('keep') && session?.account?.isDemo === true
  const [isAskedFor, setIsNew] = useState(false)
  const isNew = isAskedFor || wantsToKeep
  const [signInDemo, demo] = useSignInDemoMutation()
  const [failure, setFailure] = useState<string>()
  const [isMaking, setIsMaking] = useState(false)
  const [codes, setCodes] = useState<{ list: readonly string[]; email: string } | null>(null)
  const form = useRef<HTMLFormElement>(null)

  if (codes) return <KeepCodes codes={codes.list} email={codes.email} />
  // The codes are on their way: who has just signed up is not taken off before they are seen.
  if (session?.account && !session.isExpired && !isMaking && !wantsToKeep)
    return <Navigate replace to={homeFromDoor()} />
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
          {session?.hasDemo && !wantsToKeep && (
            <button
              type="button"
              className="btn"
              disabled={demo.isLoading}
              onClick={() => void enter(signInDemo({ units: unitsIn(countryOf(navigator.languages)) }))}
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
          keepsDemo={wantsToKeep}
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
