import type { DateRange } from '@klados/core/season'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { formatDate } from '../../data/dates.ts'
import type { WireItem } from '../../data/wire-agenda.ts'

const TONE = { overdue: 'text-iron', due: 'text-ochre', soon: 'text-slate', later: 'text-slate' } as const

/** Wires that have gone slack or will: which frame, when, how that is known; straining is done on its own screen. */
export function WiresDue({ gardenId, items }: { gardenId: string; items: readonly WireItem[] }) {
  const { t } = useTranslation()
  const shown = items.filter(({ urgency }) => urgency !== 'later')
  if (shown.length === 0) return null
  return (
    <section>
      <h2 className="text-[1.0625rem]">{t('round.wires')}</h2>
      <ul>
        {shown.map(({ frame, place, count, due, urgency }) => (
          <li key={frame.id} className="flex flex-col gap-1 border-b border-dotted border-faint py-3">
            <p className="flex flex-wrap gap-x-3">
              <Link
                className="font-semibold"
                to={`/g/${gardenId}/places/${place.id}/frame/${frame.id}/build`}
              >
                {t('round.wiresOf', { frame: frame.body.name, place: place.body.name })}
              </Link>
              <span className={TONE[urgency]}>
                {t(urgency === 'soon' ? 'round.soonOn' : 'round.dueOn', { date: formatDate(due.dueOn) })}
              </span>
            </p>
            <p>
              {t('round.wireCount', { count })}{' '}
              {due.reason === 'slack' && due.range
                ? t(slackKey(due.range), {
                    from: formatDate(due.range.earliestOn),
                    to: due.range.latestOn === null ? '' : formatDate(due.range.latestOn),
                  })
                : t('round.wireYearly')}
            </p>
          </li>
        ))}
      </ul>
    </section>
  )
}

function slackKey({ earliestOn, latestOn }: DateRange) {
  if (latestOn === null) return 'round.slackFrom'
  return latestOn === earliestOn ? 'round.slackOn' : 'round.slackBetween'
}
