import { useState } from 'react'
import { useTranslation } from '../i18n/use-translation.tsx'
import { useAppDispatch, useAppSelector } from '../data/store.ts'
import { daysAhead, setBack } from '../data/sync/clock-ahead.ts'
import { deskOf } from '../data/sync/desk-thunk.ts'
import type { EntryItem, Item } from '../data/sync/items.ts'

/** All that was refused since this device's clock was ahead, set right in one step. */
export function ClockAhead({ items }: { items: readonly Item[] }) {
  const { t } = useTranslation()
  const dispatch = useAppDispatch()
  const [openedAt] = useState(Date.now)
  const skewMs = useAppSelector((state) => state.sync.skewMs)
  const late = items.filter(
    (item): item is EntryItem =>
      item.kind === 'entry' && item.state.is === 'refused' && item.state.code === 'journal/too-late',
  )
  const aheadMs = daysAhead(late, skewMs, openedAt)
  if (late.length < 2 || aheadMs === null) return null
  return (
    <p className="my-2 flex flex-wrap items-center gap-x-4 gap-y-1">
      <span>{t('tray.clockAhead', { count: late.length, days: Math.round(aheadMs / 86_400_000) })}</span>
      <button
        type="button"
        className="btn"
        onClick={() =>
          void dispatch(
            deskOf((desk) =>
              desk.mend(
                late.map(({ key }) => key),
                (entry) => setBack(entry, aheadMs),
              ),
            ),
          )
        }
      >
        {t('tray.setBack', { count: late.length })}
      </button>
    </p>
  )
}
