import type { Place, Plant } from '@klados/contract'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { saveDocument } from '../../data/saves.ts'
import { standingAt } from '../../data/standing.ts'
import { useAppDispatch } from '../../data/store.ts'
import { Message } from '../../ui/Message.tsx'
import { refusalWords } from '../../ui/refusal.ts'

interface RemovedPlacesProps {
  readonly gardenId: string
  readonly removed: readonly Place[]
  readonly plants: readonly Plant[]
  readonly canWrite: boolean
}

/** Places that were taken out of the garden, each with what stands on it; all of it comes back with its place. */
export function RemovedPlaces({ gardenId, removed, plants, canWrite }: RemovedPlacesProps) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [refusal, setRefusal] = useState<string | null>(null)
  if (removed.length === 0) return null
  const bringBack = async ({ id, version, body }: Place) => {
    setRefusal(null)
    const outcome = await dispatch(
      saveDocument('places', gardenId, { id, basedOn: version, body, isRemoved: false }),
    )
    if (outcome.kind === 'refused') setRefusal(refusalWords(t, outcome))
    if (outcome.kind === 'conflict') setRefusal(t('place.changedSince'))
  }
  return (
    <details className="mt-6">
      <summary>{t('places.removed', { count: removed.length })}</summary>
      {refusal && <Message tone="limit">{refusal}</Message>}
      <ul className="flex flex-col">
        {removed.map((place) => {
          const count = standingAt(plants, place.id).length
          return (
            <li
              key={place.id}
              className="flex flex-wrap items-baseline gap-x-4 border-b border-dotted border-faint py-1"
            >
              <strong>{place.body.name}</strong>
              <span className="flex-1 text-slate">
                {count > 0 ? t('places.plants', { count }) : t('places.noPlants')}
              </span>
              {canWrite && (
                <button
                  type="button"
                  className="btn"
                  aria-label={t('places.bringBackOf', { name: place.body.name })}
                  onClick={() => void bringBack(place)}
                >
                  {t('places.bringBack')}
                </button>
              )}
            </li>
          )
        })}
      </ul>
    </details>
  )
}
