import type { Plant } from '@klados/contract'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { saveDocument } from '../../data/saves.ts'
import { useAppDispatch } from '../../data/store.ts'

/** Many plants that one press has just added: one press takes them out again. */
export function JustAdded({ gardenId, plants }: { gardenId: string; plants: readonly Plant[] }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  if (plants.length === 0) return null
  const takeOut = async () => {
    for (const { id, version, body } of plants)
      await dispatch(saveDocument('plants', gardenId, { id, basedOn: version, body, isRemoved: true }))
  }
  return (
    <p role="status" className="flex flex-wrap items-center gap-2 text-verdigris">
      {t('wood.added', { count: plants.length })}
      <button type="button" className="btn" onClick={() => void takeOut()}>
        {t('wood.takeAddedOut')}
      </button>
    </p>
  )
}
