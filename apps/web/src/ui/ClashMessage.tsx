import { useTranslation } from '../i18n/use-translation.tsx'
import { Message } from './Message.tsx'

interface ClashMessageProps {
  /** Who saved what meanwhile. */
  readonly said: string
  /** Where the other version can be seen beside this one: how it is drawn. */
  readonly drawn: string | null
  readonly onTheirs: () => void
  readonly onMine: () => void
  /** Null where both cannot be kept, or there is nothing here but theirs. */
  readonly onBoth: (() => void) | null
}

/** Two have saved the same: which of them is to hold. */
export function ClashMessage({ said, drawn, onTheirs, onMine, onBoth }: ClashMessageProps) {
  const { t } = useTranslation()
  return (
    <Message tone="limit">
      <p>{said}</p>
      {drawn && <p className="mt-1">{drawn}</p>}
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={onTheirs}>
          {t('frame.takeTheirs')}
        </button>
        <button type="button" className="btn" onClick={onMine}>
          {t('frame.saveOver')}
        </button>
        {onBoth && (
          <button type="button" className="btn" onClick={onBoth}>
            {t('frame.keepBoth')}
          </button>
        )}
      </div>
    </Message>
  )
}
