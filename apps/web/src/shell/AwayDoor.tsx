import { useTranslation } from '../i18n/use-translation.tsx'
import { Message } from '../ui/Message.tsx'

/** The server does not answer, and nothing of anybody's lies on this device. */
export function AwayDoor({ onAgain }: { onAgain: () => void }) {
  const { t } = useTranslation()
  return (
    <main className="mx-auto flex max-w-md flex-col items-start gap-4 p-8">
      <Message tone="due">{t('away.door')}</Message>
      <button type="button" className="btn" onClick={onAgain}>
        {t('app.reload')}
      </button>
    </main>
  )
}
