import { isNewer } from '@klados/core/journal'
import type { JournalEntry, WoodState } from '@klados/core/journal'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import { Message } from '../../ui/Message.tsx'
import { entryWords } from '../../ui/entry-words.ts'
import { useUnits } from '../../ui/units.tsx'

interface MisfitsProps {
  readonly misfits: WoodState['misfits']
  readonly entries: readonly JournalEntry[]
}

/** So many are told one by one, the last first. */
const TOLD = 5

/** What a later release wrote, and what was written and does not fit what it met: each with its day and why, for somebody to go and look. */
export function Misfits({ misfits, entries }: MisfitsProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const newer = entries.filter(isNewer).length
  if (misfits.length === 0 && newer === 0) return null
  const byId = new Map(entries.map((entry) => [entry.id, entry]))
  const told = misfits.flatMap(({ entryId, why }) => {
    const entry = byId.get(entryId)
    return entry ? [{ entry, why }] : []
  })
  return (
    <Message tone="due">
      {newer > 0 && <p>{t('newer.entries', { count: newer })}</p>}
      {misfits.length > 0 && <p>{t('wood.misfits', { count: misfits.length })}</p>}
      <ul>
        {told
          .slice(-TOLD)
          .reverse()
          .map(({ entry, why }) => (
            <li key={entry.id}>
              {formatDate(entry.at)}, {entryWords(t, units, entry)}: {t(`wood.misfitWhy.${why}`)}
            </li>
          ))}
      </ul>
    </Message>
  )
}
