import { useTranslation } from '../i18n/use-translation.tsx'
import type { BackgroundResult } from './use-background.ts'

/** How far background work is, with a way to stop it; or that it was stopped, with a way to go on. */
export function Working({
  progress,
  ended,
  stop,
  again,
}: Omit<BackgroundResult<unknown>, 'value' | 'isCurrent'>) {
  const { t } = useTranslation()
  if (progress)
    return (
      <p className="no-print flex items-center gap-3" role="status">
        <label className="flex items-center gap-3">
          {t('background.working', { done: progress.done, of: progress.of })}
          <progress value={progress.done} max={progress.of} />
        </label>
        <button type="button" className="btn" onClick={stop}>
          {t('background.stop')}
        </button>
      </p>
    )
  if (ended === 'stopped' || ended === 'failed')
    return (
      <p className="no-print flex items-center gap-3" role="status">
        {t(`background.${ended}`)}
        <button type="button" className="btn" onClick={again}>
          {t('background.again')}
        </button>
      </p>
    )
  return null
}
