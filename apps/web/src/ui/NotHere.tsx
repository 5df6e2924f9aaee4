import { Navigate } from 'react-router'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useFramesQuery, usePlacesQuery } from '../data/api.ts'
import { Loading } from './Message.tsx'

interface NotHereProps {
  readonly gardenId: string
  readonly to?: string
}

/**
 * What the address names is not among what this device knows: the server may know it and is still asked; where it does
 * not, or does not answer, one is led on.
 */
export function NotHere({ gardenId, to = `/g/${gardenId}/places` }: NotHereProps) {
  const { t } = useTranslation()
  const places = usePlacesQuery(gardenId)
  const frames = useFramesQuery(gardenId)
  if (places.isFetching || frames.isFetching) return <Loading>{t('app.loading')}</Loading>
  return <Navigate replace to={to} />
}
