import { useTranslation } from 'react-i18next'
import type { HeavyResult } from './use-heavy.ts'

/** How far heavy work is, with a way to stop it; or that it was stopped, with a way to go on. */
export function Working({ progress, ended, stop, again }: Omit<HeavyResult<unknown>, 'value' | 'isCurrent'>) {
  const { t } = useTranslation()
  if (progress)
    return (
      <p className="no-print flex items-center gap-3" role="status">
        <label className="flex items-center gap-3">
          {t('heavy.working', { done: progress.done, of: progress.of })}
          <progress value={progress.done} max={progress.of} />
        </label>
        <button type="button" className="btn" onClick={stop}>
          {t('heavy.stop')}
        </button>
      </p>
    )
  if (ended === 'stopped' || ended === 'failed')
    return (
      <p className="no-print flex items-center gap-3" role="status">
        {t(`heavy.${ended}`)}
        <button type="button" className="btn" onClick={again}>
          {t('heavy.again')}
        </button>
      </p>
    )
  return null
}
