import type { Place } from '@klados/contract'
import { useState } from 'react'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useFrames, usePlants } from '../../data/documents.ts'
import { standingAt } from '../../data/standing.ts'
import { Message } from '../../ui/Message.tsx'

interface RemovePlaceProps {
  readonly gardenId: string
  readonly stored: Place
  readonly onRemove: (isRemoved: boolean) => void
}

/** Taking a place out of the garden: what stands there is said first, and only a second press does it. */
export function RemovePlace({ gardenId, stored, onRemove }: RemovePlaceProps) {
  const { t } = useTranslation()
  const [isAsking, setIsAsking] = useState(false)
  const frames = (useFrames(gardenId) ?? []).filter((one) => !one.isRemoved && one.body.placeId === stored.id)
  const plants = standingAt(usePlants(gardenId), stored.id)
  const there = [
    ...(frames.length > 0 ? [t('place.framesHere', { count: frames.length })] : []),
    ...(plants.length > 0 ? [t('place.plantsHere', { count: plants.length })] : []),
  ]
  const set = (isRemoved: boolean) => {
    setIsAsking(false)
    onRemove(isRemoved)
  }
  if (stored.isRemoved)
    return (
      <button type="button" className="btn btn-plain px-0" onClick={() => set(false)}>
        {t('place.restore')}
      </button>
    )
  return (
    <>
      <button
        type="button"
        className="btn btn-plain px-0 text-iron"
        aria-expanded={isAsking}
        onClick={() => (there.length > 0 ? setIsAsking(true) : set(true))}
      >
        {t('place.remove')}
      </button>
      {isAsking && (
        <div className="basis-full">
          <Message tone="limit">
            <p>{t('place.removeAsks', { there: listPlain(there) })}</p>
            <p className="mt-1 flex flex-wrap gap-2">
              <button type="button" className="btn" onClick={() => setIsAsking(false)}>
                {t('place.keep')}
              </button>
              <button type="button" className="btn text-iron" onClick={() => set(true)}>
                {t('place.removeAll')}
              </button>
            </p>
          </Message>
        </div>
      )}
    </>
  )
}
