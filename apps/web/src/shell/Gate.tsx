import { Navigate } from 'react-router'
import { useState } from 'react'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useSessionQuery } from '../data/api.ts'
import { Loading } from '../ui/Message.tsx'
import { rememberedBeginning } from '../data/beginning.ts'
import { AwayDoor } from './AwayDoor.tsx'
import { LAST_GARDEN_KEY } from './last-garden.ts'

/** The front door: to the garden last worked in, or to signing in. */
export function Gate() {
  const { t } = useTranslation()
  const { data, error, refetch } = useSessionQuery(undefined)
  // Who was here last is let in without the server: what they had seen lies on this device.
  if (error && !data) return <AwayDoor onAgain={() => void refetch()} />
  if (!data) return <Loading>{t('app.loading')}</Loading>
  const last = localStorage.getItem(LAST_GARDEN_KEY)
  const garden = data.memberships.find((m) => m.gardenId === last) ?? data.memberships[0]
  if (garden) return <Begin gardenId={garden.gardenId} />
  return <Navigate replace to={data.account ? '/no-garden' : '/sign-in'} />
}

/** At the places, or with the first of them, where one said at the door what one has. */
function Begin({ gardenId }: { gardenId: string }) {
  const [kind] = useState(rememberedBeginning)
  const places = `/g/${gardenId}/places`
  return <Navigate replace to={kind === null ? places : `${places}/new/measures?kind=${kind}`} />
}
