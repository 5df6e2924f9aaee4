import { Suspense, lazy, useEffect, useState, useSyncExternalStore } from 'react'
import { Link, Navigate, Outlet, useLocation, useParams } from 'react-router'
import { useTranslation } from '../i18n/use-translation.tsx'
import { setTimeZone } from '../data/dates.ts'
import { api, useGardenQuery, useSessionQuery } from '../data/api.ts'
import { useNewerDocuments } from '../data/documents.ts'
import { openCopy } from '../data/copy/copy.ts'
import { openJournal } from '../data/read-journal.ts'
import { useAppDispatch, useAppSelector } from '../data/store.ts'
import { isInTray } from '../data/sync/items.ts'
import { selectItems, selectOfOthers } from '../data/sync/slice.ts'
import { canWorkAway, isReleaseWaiting, onRelease, takeRelease } from '../offline/register.ts'
import { Loading, Message } from '../ui/Message.tsx'
import { AwayDoor } from './AwayDoor.tsx'
import { LAST_GARDEN_KEY } from './last-garden.ts'
import { AccountNews } from './AccountNews.tsx'
import { Masthead } from './Masthead.tsx'
import { Waiting } from './Waiting.tsx'

/** Seldom needed, so fetched when they are. */
const DemoPanel = lazy(async () => ({ default: (await import('../features/walks/DemoPanel.tsx')).DemoPanel }))
const WalkStrip = lazy(async () => ({ default: (await import('../features/walks/WalkStrip.tsx')).WalkStrip }))
const Tray = lazy(async () => ({ default: (await import('./Tray.tsx')).Tray }))

/** Everything inside one garden: who is signed in, its journal kept up to date, the wire of stages above. */
export function GardenRoom() {
  const { gardenId } = useParams() as { gardenId: string }
  const { t } = useTranslation()
  const { pathname, search } = useLocation()
  const dispatch = useAppDispatch()
  const [openId, setOpenId] = useState<string | null>(null)
  const session = useSessionQuery(undefined)
  const membership = session.data?.memberships.find((m) => m.gardenId === gardenId)
  const garden = useGardenQuery(gardenId, { skip: openId !== gardenId })
  const isMember = membership !== undefined
  // Before anything below asks which day it is; what has been drawn on another day is drawn anew.
  const [calendar, setCalendar] = useState(0)
  if (garden.data && setTimeZone(garden.data.timeZone)) setCalendar(calendar + 1)
  useEffect(() => {
    if (!isMember) return
    localStorage.setItem(LAST_GARDEN_KEY, gardenId)
    void dispatch(openJournal(gardenId))
    // What this device has is there before the first screen asks for it.
    void dispatch(openCopy(gardenId)).then(() => setOpenId(gardenId))
  }, [dispatch, gardenId, isMember])
  // What others wrote meanwhile is read when the person comes back to this window.
  useEffect(() => {
    const lookAgain = () => {
      if (document.visibilityState !== 'visible' || !isMember) return
      void dispatch(openJournal(gardenId))
      dispatch(api.util.invalidateTags(['Place', 'Frame', 'Plant', 'Stores']))
    }
    document.addEventListener('visibilitychange', lookAgain)
    return () => document.removeEventListener('visibilitychange', lookAgain)
  }, [dispatch, gardenId, isMember])
  // A new screen begins at its heading for those who hear the page.
  useEffect(() => document.getElementById('work')?.focus({ preventScroll: true }), [pathname])

  if (session.isLoading) return <Loading>{t('app.loading')}</Loading>
  if (session.error && !session.data) return <AwayDoor onAgain={() => void session.refetch()} />
  if (session.data && !membership)
    return session.isFetching ? <Loading>{t('app.loading')}</Loading> : <Navigate replace to="/" />
  if (openId !== gardenId) return <Loading>{t('app.loading')}</Loading>
  return (
    <div className="flex min-h-full flex-col">
      <a
        href="#work"
        className="btn btn-main no-print absolute left-2 top-2 z-10 -translate-y-20 focus:translate-y-0"
      >
        {t('app.skip')}
      </a>
      <Masthead gardenId={gardenId} gardenName={membership?.gardenName ?? ''} />
      <Notices gardenId={gardenId} isViewer={garden.data?.role === 'viewer'} />
      <main
        id="work"
        tabIndex={-1}
        className="flex min-h-0 flex-1 flex-col px-6 pb-8 outline-none max-sm:px-3"
      >
        {membership?.goesAt && pathname.endsWith('/places') && (
          <Suspense>
            <DemoPanel
              {...membership}
              goesAt={membership.goesAt}
              showsAll={new URLSearchParams(search).has('walks')}
            />
          </Suspense>
        )}
        <Suspense fallback={<Loading>{t('app.loading')}</Loading>}>
          <Outlet key={calendar} />
        </Suspense>
      </main>
      {membership?.goesAt && (
        <Suspense>
          <WalkStrip gardenId={gardenId} />
        </Suspense>
      )}
    </div>
  )
}

interface NoticesProps {
  readonly gardenId: string
  readonly isViewer: boolean
}

function Notices({ gardenId, isViewer }: NoticesProps) {
  const { t } = useTranslation()
  const { isAway, isBusy, isOld } = useAppSelector((state) => state.connection)
  const { data: session } = useSessionQuery(undefined)
  const newer = useNewerDocuments(gardenId)
  const isReleased = useSyncExternalStore(onRelease, isReleaseWaiting)
  const { isKept, unkept, skewMs } = useAppSelector((state) => state.sync)
  const items = useAppSelector(selectItems)
  const ofOthers = useAppSelector(selectOfOthers)
  const waiting = items.filter((item) => item.state.is === 'waiting')
  const inTray = items.filter(isInTray).length
  return (
    <div className="no-print flex flex-col gap-2 px-6 pb-2 has-[>:only-child:empty]:hidden max-sm:px-3">
      {session?.other !== undefined ? (
        <Message tone="due">
          {t('away.other', { name: session.other, own: session.account?.name ?? '' })}{' '}
          <button type="button" className="btn" onClick={() => window.location.assign('/')}>
            {t('away.goOnAs', { name: session.other })}
          </button>
        </Message>
      ) : (
        isAway && <Message tone="due">{t('away.away')}</Message>
      )}
      {isBusy && <Message tone="due">{t('away.busy')}</Message>}
      {waiting.length > 0 && (
        // Not fetched when it is wanted: that is when nothing can be fetched.
        <Waiting gardenId={gardenId} items={waiting} />
      )}
      <AccountNews />
      {isOld && !isReleased && <Message tone="due">{t('away.old')}</Message>}
      {newer > 0 && <Message tone="due">{t('newer.documents', { count: newer })}</Message>}
      {isReleased && (
        <Message tone="plain">
          {t('away.release')}{' '}
          <button type="button" className="btn" onClick={takeRelease}>
            {t('away.takeRelease')}
          </button>
        </Message>
      )}
      {session?.isExpired && (
        <Message tone="due">
          {t('away.expired')} <Link to="/sign-in">{t('account.signIn')}</Link>
        </Message>
      )}
      {!isKept && (
        <Message tone="limit">
          {t('away.notKept')} {unkept > 0 && <strong>{t('away.unkept', { count: unkept })}</strong>}
        </Message>
      )}
      {skewMs !== 0 && (
        <Message tone="due">
          {t(skewMs > 0 ? 'away.clockAhead' : 'away.clockBehind', {
            minutes: Math.round(Math.abs(skewMs) / 60_000),
          })}
        </Message>
      )}
      {ofOthers.length > 0 && (
        <Message tone="plain">
          {t('away.ofOthers', { count: ofOthers.length, name: ofOthers[0]!.accountName || '–' })}
        </Message>
      )}
      <p role="status" className="sr-only">
        {inTray > 0 && t('tray.inTray', { count: inTray })}
      </p>
      {inTray > 0 && (
        <Suspense>
          <Tray gardenId={gardenId} />
        </Suspense>
      )}
      {!canWorkAway() && <p className="text-[0.8125rem] text-slate">{t('away.notSecure')}</p>}
      {isViewer && <Message tone="plain">{t('role.readOnly')}</Message>}
    </div>
  )
}
