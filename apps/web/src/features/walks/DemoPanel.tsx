import { useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useKeepDemoMutation, useSessionQuery } from '../../data/api.ts'
import { formatTime } from '../../data/dates.ts'
import { endedWalks, isEnded, onWalking, setWalking, walkIds } from './walks.ts'

interface DemoPanelProps {
  readonly gardenId: string
  readonly gardenName: string
  readonly goesAt: string
  /** Asked for by name: those that were ended are there again. */
  readonly showsAll: boolean
}

/** Above the places of a copy of the demo: whose it is and until when, three short walks, and how to keep it. */
export function DemoPanel({ gardenId, gardenName, goesAt, showsAll }: DemoPanelProps) {
  const { t } = useTranslation()
  const { data: session } = useSessionQuery(undefined)
  const [keep, keeping] = useKeepDemoMutation()
  const ended = useSyncExternalStore(onWalking, endedWalks)
  const left = walkIds.filter((id) => showsAll || !isEnded(id, ended))
  return (
    <section
      aria-label={t('demo.label')}
      className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2 border-l-2 border-verdigris pl-3"
    >
      <p className="min-w-[min(18rem,100%)] flex-1">
        {t('demo.own', { at: formatTime(Date.parse(goesAt)) })}{' '}
        {session?.account?.isDemo ? (
          <Link to="/sign-in?keep">{t('demo.keepBySigningUp')}</Link>
        ) : (
          <button
            type="button"
            className="underline underline-offset-[3px] min-h-6"
            disabled={keeping.isLoading}
            onClick={() => void keep({ gardenId, name: gardenName })}
          >
            {t('demo.keep')}
          </button>
        )}
      </p>
      {left.length > 0 && (
        <nav aria-label={t('demo.walks')} className="flex flex-wrap items-center gap-2">
          <span className="text-slate">{t('demo.walks')}</span>
          {left.map((id) => (
            <button key={id} type="button" className="btn" onClick={() => setWalking({ id, step: 0 })}>
              {t(`walk.${id}.title`)}
            </button>
          ))}
        </nav>
      )}
    </section>
  )
}
