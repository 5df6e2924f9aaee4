import type { PlaceBody } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import type { DisplayList } from '@klados/core/drawing'
import { useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { deskOf } from '../../data/sync/desk-thunk.ts'
import type { SyncDesk } from '../../data/sync/desk.ts'
import { lastSave } from '../../data/sync/items.ts'
import { selectClash } from '../../data/sync/slice.ts'
import { Marks } from '../../elevation/marks.tsx'
import type { View } from '../../elevation/view.ts'
import { ClashMessage } from '../../ui/ClashMessage.tsx'

export interface PlaceClash {
  readonly savedBy: string
  readonly version: number
  /** One's own measures, to be drawn over theirs. */
  readonly mine: DisplayList
  readonly takeTheirs: () => void
  readonly saveOver: () => void
}

/** One's own save of a place that met another's; `null` where none did. */
export function usePlaceClash(placeId: string, onDecided: () => void): PlaceClash | null {
  const dispatch = useAppDispatch()
  const clash = useAppSelector((state) => selectClash(state, placeId))
  return useMemo(() => {
    if (!clash) return null
    const { body } = lastSave(clash) as { body: PlaceBody }
    const decide = (what: (desk: SyncDesk) => Promise<unknown>) => () => {
      onDecided()
      void dispatch(deskOf(what))
    }
    const { savedBy, version } = clash.state
    return {
      savedBy,
      version,
      mine: drawSite(body, body.surface),
      takeTheirs: decide((desk) => desk.letGo(clash.key)),
      saveOver: decide((desk) => desk.saveOver(clash.key)),
    }
  }, [clash, dispatch, onDecided])
}

/** One's own measures, dashed over what another has saved. */
export function MineDashed({ clash, view }: { readonly clash: PlaceClash; readonly view: View }) {
  return (
    <g className="draw-theirs" aria-hidden="true" pointerEvents="none">
      <Marks list={clash.mine} view={view} movedText={() => ''} />
    </g>
  )
}

export function PlaceClashMessage({ clash }: { readonly clash: PlaceClash }) {
  const { t } = useTranslation()
  return (
    <ClashMessage
      said={t('place.conflict', { by: clash.savedBy, version: clash.version })}
      drawn={t('place.mineDrawn')}
      onTheirs={clash.takeTheirs}
      onMine={clash.saveOver}
      onBoth={null}
    />
  )
}
