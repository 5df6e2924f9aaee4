import { useEffect, useRef, useState } from 'react'
import { Link, useLocation, useMatch, useNavigate } from 'react-router'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useOpenDemoMutation, useSessionQuery, usePreferMutation, useSignOutMutation } from '../data/api.ts'
import { usePlaces } from '../data/documents.ts'
import { useAgenda } from '../data/agenda.ts'
import { languages } from '@klados/contract/languages'
import { currentLanguage } from '../i18n/language.ts'
import { Choice } from '../ui/Choice.tsx'
import { areLetterKeysOn, setLetterKeys } from '../ui/letter-keys.ts'
import { chooseTheme, chosenTheme, themes } from './theme.ts'

/** The stages of work hang on one taut line; the one at hand is tied in, figure of eight. */
export function Masthead({ gardenId, gardenName }: { gardenId: string; gardenName: string }) {
  return (
    <header className="no-print flex items-start gap-x-6 px-6 pt-3 max-sm:flex-wrap max-sm:justify-between max-sm:px-3">
      <Link
        to={`/g/${gardenId}/places`}
        className="font-display text-[1.625rem] font-bold tracking-tight no-underline max-sm:text-[1.25rem]"
      >
        Klados
      </Link>
      <Wire gardenId={gardenId} />
      <div className="flex min-w-0 flex-col items-end gap-0.5 pt-1">
        <Menu gardenId={gardenId} gardenName={gardenName} />
        <DueCount gardenId={gardenId} />
      </div>
    </header>
  )
}

/** The knots and the room above them; the names below are as high as letters are. */
const KNOTS_PX = 34
/** How wide a letter of a stage's name is, and the room between two names, in the height of the page's own letters. */
const LETTER_WIDE = 0.46
const NAMES_APART = 0.6

function Wire({ gardenId }: { gardenId: string }) {
  const { t } = useTranslation()
  const { pathname } = useLocation()
  const placeId = useCurrentPlace(gardenId)
  const box = useRef<HTMLElement>(null)
  const [width, setWidth] = useState(600)
  const [lettersPx, setLettersPx] = useState(16)
  useEffect(() => {
    const observer = new ResizeObserver(() => {
      setWidth(box.current?.clientWidth ?? 600)
      setLettersPx(Number.parseFloat(getComputedStyle(document.documentElement).fontSize))
    })
    observer.observe(box.current!)
    return () => observer.disconnect()
  }, [])
  const at = (screen: string) =>
    placeId ? `/g/${gardenId}/places/${placeId}/${screen}` : `/g/${gardenId}/places?for=${screen}`
  const stages = [
    {
      key: 'places',
      to: `/g/${gardenId}/places`,
      isHere: /\/places$|\/measures$|\/g\/[^/]+\/?$/.test(pathname),
    },
    { key: 'frame', to: at('frame'), isHere: /\/(frame|variants)(\/|$)/.test(pathname) },
    { key: 'wood', to: at('wood'), isHere: pathname.endsWith('/wood') },
    { key: 'round', to: `/g/${gardenId}/round`, isHere: pathname.endsWith('/round') },
    { key: 'stores', to: `/g/${gardenId}/stores`, isHere: pathname.endsWith('/stores') },
  ] as const
  // The line sags a little with width, and hangs tighter while a stage is tied in.
  const sag = Math.min(10, width / 110) * (stages.some((stage) => stage.isHere) ? 0.7 : 1)
  // Where letters are large or words long on a small screen, every second name hangs lower.
  const longest = Math.max(...stages.map(({ key }) => t(`stage.${key}`).length))
  const isTight = width / stages.length < (longest * LETTER_WIDE + NAMES_APART) * lettersPx
  const yAt = (share: number) => 17 + 4 * sag * share * (1 - share)
  return (
    <nav
      ref={box}
      aria-label={t('stage.stages')}
      className="relative flex-1 max-sm:order-last max-sm:basis-full"
      style={{ height: `calc(${KNOTS_PX}px + ${isTight ? 3.6 : 2}rem)` }}
    >
      <svg className="absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
        <path
          className="wire-line"
          d={`M0 17 Q ${width / 2} ${17 + 2 * sag} ${width} 17`}
          fill="none"
          stroke="var(--slate)"
          strokeWidth="1.5"
        />
        {stages.map((stage, i) => {
          const share = (i + 0.5) / stages.length
          const x = share * width
          const y = yAt(share)
          return stage.isHere ? (
            <g key={stage.key} fill="none" stroke="var(--verdigris)" strokeWidth="2.6">
              <ellipse cx={x} cy={y - 5} rx={6} ry={5.4} />
              <ellipse cx={x} cy={y + 5.4} rx={6.6} ry={5.8} />
            </g>
          ) : (
            <line key={stage.key} x1={x} x2={x} y1={y - 4} y2={y + 5} stroke="var(--slate)" strokeWidth="2" />
          )
        })}
      </svg>
      {stages.map((stage, i) => {
        const share = (i + 0.5) / stages.length
        return (
          <Link
            key={stage.key}
            to={stage.to}
            className="stage px-3 pb-1 pt-5 max-sm:px-1"
            aria-current={stage.isHere ? 'page' : undefined}
            style={{
              left: `${share * 100}%`,
              top: `calc(${yAt(share) - 8}px + ${isTight && i % 2 === 1 ? 1.5 : 0}rem)`,
            }}
          >
            {t(`stage.${stage.key}`)}
          </Link>
        )
      })}
    </nav>
  )
}

/** The place being worked on: the one in the address, else the last one; none where no place was chosen yet. */
function useCurrentPlace(gardenId: string): string | null {
  const match = useMatch('/g/:gardenId/places/:placeId/*')
  const data = usePlaces(gardenId)
  const [last, setLast] = useState<string | null>(null)
  const here = match?.params.placeId
  if (here && here !== 'new' && here !== last) setLast(here)
  const alive = data?.filter((place) => !place.isRemoved) ?? []
  // Where there is but one, it is the one that is meant.
  const only = alive.length === 1 ? alive[0]!.id : null
  return alive.find((place) => place.id === last)?.id ?? only
}

function DueCount({ gardenId }: { gardenId: string }) {
  const { t } = useTranslation()
  const { items, nextOn } = useAgenda(gardenId)
  const count = items.filter((item) => item.urgency === 'overdue' || item.urgency === 'due').length
  if (nextOn === null) return null
  return (
    <Link
      to={`/g/${gardenId}/round`}
      className={`inline-block min-h-6 py-0.5 text-[0.8125rem] no-underline hover:underline ${count > 0 ? 'font-semibold text-ochre' : 'text-slate'}`}
    >
      {count > 0 ? t('due.count', { count }) : t('due.none')}
    </Link>
  )
}

/** A language as it calls itself. */
const ownName = (language: string) =>
  new Intl.DisplayNames([language], { type: 'language' }).of(language) ?? language

function Menu({ gardenId, gardenName }: { gardenId: string; gardenName: string }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { data: session } = useSessionQuery(undefined)
  const [prefer] = usePreferMutation()
  const [signOut] = useSignOutMutation()
  const [theme, setTheme] = useState(chosenTheme)
  const [hasLetterKeys, setHasLetterKeys] = useState(areLetterKeysOn)
  const [openDemo] = useOpenDemoMutation()
  const details = useRef<HTMLDetailsElement>(null)
  const toWalks = async () => {
    const { data } = await openDemo(undefined)
    if (data) void navigate(`/g/${data.id}/places?walks`)
  }
  const { pathname } = useLocation()
  const shut = () => {
    if (details.current) details.current.open = false
  }
  useEffect(shut, [pathname])
  useEffect(() => {
    const close = (event: Event) => {
      const isOutside =
        event instanceof KeyboardEvent
          ? event.key === 'Escape'
          : !details.current?.contains(event.target as Node)
      if (details.current?.open && isOutside) details.current.open = false
    }
    document.addEventListener('pointerdown', close)
    document.addEventListener('keydown', close)
    return () => {
      document.removeEventListener('pointerdown', close)
      document.removeEventListener('keydown', close)
    }
  }, [])
  return (
    <details ref={details} className="relative max-w-full">
      <summary className="max-w-56 list-none truncate underline decoration-faint underline-offset-4 min-h-6">
        {gardenName}
        <span className="sr-only">: {t('menu.open')}</span>
      </summary>
      <div
        className="absolute right-0 z-20 mt-1 flex w-64 max-w-[calc(100vw-1.5rem)] flex-col gap-3 border border-faint bg-paper p-4 text-left shadow-md"
        onClick={({ detail, target }) => {
          // A press chooses and is done; arrow keys go on through the choices.
          if (detail > 0 && (target as Element).closest('label')) shut()
        }}
      >
        {session?.account && <p className="truncate text-slate">{session.account.name}</p>}
        <Choice
          label={t('menu.units')}
          value={session?.account?.units ?? 'metric'}
          options={(['metric', 'imperial'] as const).map((value) => ({ value, label: t(`menu.${value}`) }))}
          onChange={(units) => void prefer({ units })}
        />
        <Choice
          label={t('menu.language')}
          value={languages.find((one) => one === currentLanguage()) ?? languages[0]}
          options={languages.map((value) => ({ value, label: ownName(value) }))}
          onChange={(language) => void prefer({ language })}
        />
        <Choice
          label={t('menu.theme')}
          value={theme}
          options={themes.map((value) => ({ value, label: t(`menu.${value}`) }))}
          onChange={(value) => {
            chooseTheme(value)
            setTheme(value)
          }}
        />
        <Choice
          label={t('menu.letterKeys')}
          value={hasLetterKeys ? 'on' : 'off'}
          options={(['on', 'off'] as const).map((value) => ({ value, label: t(`menu.keys.${value}`) }))}
          onChange={(value) => {
            setLetterKeys(value === 'on')
            setHasLetterKeys(value === 'on')
          }}
        />
        {(session?.memberships.length ?? 0) > 1 && (
          <div>
            <p className="mb-1 text-[0.8125rem] text-slate">{t('menu.gardens')}</p>
            {session!.memberships.map((m) => (
              <Link key={m.gardenId} className="block py-0.5" to={`/g/${m.gardenId}/places`}>
                {m.gardenName}
              </Link>
            ))}
          </div>
        )}
        <Link to={`/g/${gardenId}/people`}>{t('menu.garden')}</Link>
        {session?.hasDemo && (
          <button
            type="button"
            className="self-start text-left underline underline-offset-[3px] min-h-6"
            onClick={() => void toWalks()}
          >
            {t('menu.walks')}
          </button>
        )}
        {session?.account?.isDemo && <Link to="/sign-in?keep">{t('demo.keepBySigningUp')}</Link>}
        <button
          type="button"
          className="btn self-start"
          onClick={() => void signOut(undefined).then(() => navigate('/sign-in', { replace: true }))}
        >
          {t('menu.signOut')}
        </button>
      </div>
    </details>
  )
}
