import type { PlaceBody } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import { groundAt } from '@klados/core/frame'
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
  readonly mine: PlaceBody
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
      mine: body,
      takeTheirs: decide((desk) => desk.letGo(clash.key)),
      saveOver: decide((desk) => desk.saveOver(clash.key)),
    }
  }, [clash, dispatch, onDecided])
}

/** One's own measures, dashed over what another has saved: how far the place goes, and what is on it. */
export function MineDashed({ mine, view }: { readonly mine: PlaceBody; readonly view: View }) {
  const list = useMemo(() => drawSite(mine, mine.surface), [mine])
  const heightM = mine.firstForkM + mine.usableHeightM
  const corners = [0, mine.widthM].map((xM) => ({ xM, yM: groundAt(mine, xM) }))
  const outline = [...corners, ...corners.map(({ xM, yM }) => ({ xM, yM: yM + heightM })).reverse()]
  return (
    <g className="draw-theirs" aria-hidden="true" pointerEvents="none">
      <polygon points={outline.map(({ xM, yM }) => `${view.x(xM)},${view.y(yM)}`).join(' ')} />
      <Marks list={list} view={view} movedText={() => ''} />
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
