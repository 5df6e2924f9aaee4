import { useTranslation } from '../i18n/use-translation.tsx'

/** What is shown instead of a blank page when a screen throws. */
export function Broken() {
  const { t } = useTranslation()
  return (
    <main className="mx-auto flex max-w-md flex-col items-start gap-4 p-8">
      <p>{t('app.failed')}</p>
      <button type="button" className="btn" onClick={() => window.location.reload()}>
        {t('app.reload')}
      </button>
    </main>
  )
}
