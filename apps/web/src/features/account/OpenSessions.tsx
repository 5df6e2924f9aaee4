import { useTranslation } from '../../i18n/use-translation.tsx'
import { useEndSessionMutation, useOpenSessionsQuery } from '../../data/api.ts'
import { formatTime } from '../../data/dates.ts'

/** Where one is signed in, to be ended one by one. */
export function OpenSessions() {
  const { t } = useTranslation()
  const { data: sessions = [] } = useOpenSessionsQuery(undefined, { refetchOnMountOrArgChange: true })
  const [end] = useEndSessionMutation()
  const nameOf = ({ browser, system }: { browser: string; system: string }) =>
    browser && system ? t('sessions.device', { browser, system }) : browser || system || t('sessions.unknown')
  return (
    <section className="flex flex-col gap-2" aria-labelledby="sessions">
      <h3 id="sessions" className="font-semibold">
        {t('sessions.title')}
      </h3>
      <ul className="flex flex-col">
        {sessions.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-center gap-x-3 border-b border-dotted border-faint py-1"
          >
            <span className="min-w-0 flex-1">
              <span className="block">{nameOf(one)}</span>
              <span className="block text-[0.8125rem] text-slate">
                {t('sessions.when', {
                  opened: formatTime(Date.parse(one.openedAt)),
                  used: formatTime(Date.parse(one.usedAt)),
                })}
              </span>
            </span>
            {one.isThis ? (
              <span className="text-slate">{t('sessions.this')}</span>
            ) : (
              <button
                type="button"
                className="btn"
                aria-label={t('sessions.endOf', { name: nameOf(one) })}
                onClick={() => void end(one.id)}
              >
                {t('sessions.end')}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
