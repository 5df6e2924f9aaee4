import { useTranslation } from 'react-i18next'
import { Navigate } from 'react-router'
import { useSessionQuery } from '../data/api.ts'
import { Loading, Message } from '../ui/Message.tsx'
import { LAST_GARDEN_KEY } from './last-garden.ts'

/** The front door: to the garden last worked in, or to signing in. */
export function Gate() {
  const { t } = useTranslation()
  const { data, error, refetch } = useSessionQuery(undefined)
  if (error) {
    return (
      <main className="mx-auto flex max-w-md flex-col items-start gap-4 p-8">
        <Message tone="due">{t('away.away')}</Message>
        <button type="button" className="btn" onClick={() => void refetch()}>
          {t('app.reload')}
        </button>
      </main>
    )
  }
  if (!data) return <Loading>{t('app.loading')}</Loading>
  const last = localStorage.getItem(LAST_GARDEN_KEY)
  const garden = data.memberships.find((m) => m.gardenId === last) ?? data.memberships[0]
  if (garden) return <Navigate replace to={`/g/${garden.gardenId}/places`} />
  return <Navigate replace to={data.account ? '/no-garden' : '/sign-in'} />
}
