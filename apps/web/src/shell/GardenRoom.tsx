import { Suspense, useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { Navigate, Outlet, useLocation, useParams } from 'react-router'
import { api, useGardenQuery, useSessionQuery } from '../data/api.ts'
import { openJournal, refusalSeen } from '../data/journal.ts'
import { useAppDispatch, useAppSelector } from '../data/store.ts'
import { refusalWords } from '../ui/refusal.ts'
import { Loading, Message } from '../ui/Message.tsx'
import { LAST_GARDEN_KEY } from './last-garden.ts'
import { Masthead } from './Masthead.tsx'

/** Everything inside one garden: who is signed in, its journal kept up to date, the wire of stages above. */
export function GardenRoom() {
  const { gardenId } = useParams() as { gardenId: string }
  const { t } = useTranslation()
  const { pathname } = useLocation()
  const dispatch = useAppDispatch()
  const session = useSessionQuery(undefined)
  const membership = session.data?.memberships.find((m) => m.gardenId === gardenId)
  const garden = useGardenQuery(gardenId, { skip: !membership })
  const isMember = membership !== undefined
  useEffect(() => {
    if (!isMember) return
    localStorage.setItem(LAST_GARDEN_KEY, gardenId)
    void dispatch(openJournal(gardenId))
  }, [dispatch, gardenId, isMember])
  // What others wrote meanwhile is read when the person comes back to this window.
  useEffect(() => {
    const lookAgain = () => {
      if (document.visibilityState !== 'visible' || !isMember) return
      void dispatch(openJournal(gardenId))
      dispatch(api.util.invalidateTags(['Place', 'Frame', 'Plant']))
    }
    document.addEventListener('visibilitychange', lookAgain)
    return () => document.removeEventListener('visibilitychange', lookAgain)
  }, [dispatch, gardenId, isMember])
  // A new screen begins at its heading for those who hear the page.
  useEffect(() => document.getElementById('work')?.focus({ preventScroll: true }), [pathname])

  if (session.isLoading) return <Loading>{t('app.loading')}</Loading>
  if (session.data && !membership) return <Navigate replace to="/" />
  return (
    <div className="flex min-h-full flex-col">
      <a
        href="#work"
        className="btn btn-main no-print absolute left-2 top-2 z-10 -translate-y-20 focus:translate-y-0"
      >
        {t('app.skip')}
      </a>
      <Masthead gardenId={gardenId} gardenName={membership?.gardenName ?? ''} />
      <Notices isViewer={garden.data?.role === 'viewer'} />
      <main
        id="work"
        tabIndex={-1}
        className="flex min-h-0 flex-1 flex-col px-6 pb-8 outline-none max-sm:px-3"
      >
        <Suspense fallback={<Loading>{t('app.loading')}</Loading>}>
          <Outlet />
        </Suspense>
      </main>
    </div>
  )
}

function Notices({ isViewer }: { isViewer: boolean }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const isAway = useAppSelector((state) => state.connection.isAway)
  const waiting = useAppSelector(
    (state) => state.journal.outbox.length + Object.keys(state.saves.waiting).length,
  )
  const refused = useAppSelector((state) => state.journal.refused)
  if (!isAway && !refused && !isViewer) return null
  return (
    <div className="no-print flex flex-col gap-2 px-6 pb-2 max-sm:px-3">
      {isAway && (
        <Message tone="due">
          {t('away.away')} {waiting > 0 && <strong>{t('away.waiting', { count: waiting })}.</strong>}
        </Message>
      )}
      {refused && (
        <Message tone="limit">
          {t('away.refused', { message: refusalWords(t, refused) })}{' '}
          <button type="button" className="btn btn-plain" onClick={() => dispatch(refusalSeen())}>
            {t('away.seen')}
          </button>
        </Message>
      )}
      {isViewer && <Message tone="plain">{t('role.readOnly')}</Message>}
    </div>
  )
}
