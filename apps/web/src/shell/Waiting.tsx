import { useEffect, useState } from 'react'
import type { TFunction } from '../i18n/texts.ts'
import { useTranslation } from '../i18n/use-translation.tsx'
import { formatTime } from '../data/dates.ts'
import { useSessionQuery } from '../data/api.ts'
import { useAppSelector } from '../data/store.ts'
import type { Item } from '../data/sync/items.ts'
import { waitsFor, writtenAt } from '../data/sync/waits.ts'
import type { WaitsFor } from '../data/sync/waits.ts'
import { useWhat } from './use-what.ts'

/** What is sent within so long is not worth a word. */
const SOON_MS = 3000
const LOOK_EACH_MS = 1000
const SHOWN = 8

/** What waits to be sent, for what, and since when. */
export function Waiting({ gardenId, items }: { gardenId: string; items: readonly Item[] }) {
  const { t } = useTranslation()
  const what = useWhat(gardenId)
  const session = useSessionQuery(undefined).data
  const { isAway, isBusy } = useAppSelector((state) => state.connection)
  const lanes = useAppSelector((state) => state.sync.lanes)
  const [openedAt] = useState(Date.now)
  const [isOpen, setIsOpen] = useState(false)
  const [now, setNow] = useState(openedAt)
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), LOOK_EACH_MS)
    return () => clearInterval(timer)
  }, [])
  // A clock that was ahead when it was written says nothing of how long it has waited.
  const since = (item: Item) => Math.min(writtenAt(item) ?? openedAt, now)
  const oldest = Math.min(...items.map(since))
  if (!isAway && now - Math.max(oldest, openedAt) < SOON_MS) return null
  const canSend = session?.isExpired !== true && session?.other === undefined
  return (
    <details
      className="border-l-4 border-ochre bg-paper px-3 py-2"
      onToggle={(event) => setIsOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer" role="status">
        <strong>{t('away.waiting', { count: items.length })}.</strong>{' '}
        {t('waits.since', { time: formatTime(oldest) })}
      </summary>
      <ul className="mt-1">
        {isOpen &&
          items.slice(0, SHOWN).map((item) => (
            <li key={item.key} className="border-b border-dotted border-faint py-1 last:border-b-0">
              {what(item)}: {reason(t, waitsFor(item, items, { canSend, isAway, isBusy, lanes }))}{' '}
              <span className="text-slate">{t('waits.since', { time: formatTime(since(item)) })}</span>
            </li>
          ))}
      </ul>
      {isOpen && items.length > SHOWN && (
        <p className="text-slate">{t('tray.more', { count: items.length - SHOWN })}</p>
      )}
    </details>
  )
}

const kilobytes = (bytes: number) => Math.ceil(bytes / 1024)

function reason(t: TFunction, waits: WaitsFor): string {
  if (waits.is === 'again') return t('waits.again', { time: formatTime(waits.at) })
  if (waits.is === 'sending')
    return t('waits.sending', { sent: kilobytes(waits.sentBytes), of: kilobytes(waits.ofBytes) })
  return t(`waits.${waits.is}`)
}
