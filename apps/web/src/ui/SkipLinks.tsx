import { useTranslation } from '../i18n/use-translation.tsx'
import { goToPart } from './go-to-part.ts'

interface SkipLinksProps {
  readonly to: readonly { readonly id: string; readonly label: string }[]
}

/** The parts of a long screen, for those who go by keys: seen while one of them has the focus. */
export function SkipLinks({ to }: SkipLinksProps) {
  const { t } = useTranslation()
  return (
    <nav
      aria-label={t('app.parts')}
      className="no-print absolute left-2 top-2 z-20 flex max-w-[calc(100%-1rem)] flex-wrap gap-2 bg-paper p-1 not-focus-within:sr-only"
    >
      {to.map(({ id, label }) => (
        <button key={id} type="button" className="btn" onClick={() => goToPart(id, 'nearest')}>
          {label}
        </button>
      ))}
    </nav>
  )
}
