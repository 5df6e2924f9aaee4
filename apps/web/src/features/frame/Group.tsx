import { useState } from 'react'
import type { ReactNode } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'

interface GroupProps {
  readonly title: 'pattern' | 'wire' | 'light' | 'carries' | 'levels' | 'ends' | 'fixing' | 'standing'
  readonly isWide?: boolean
  readonly children: ReactNode
}

const FRAME = 'flex min-w-0 flex-col gap-2 border-t border-faint pt-2'

/** Inputs that belong together, under their name. */
export function Group({ title, isWide = false, children }: GroupProps) {
  const { t } = useTranslation()
  return (
    <section className={`${FRAME} ${isWide ? 'sm:col-span-2' : ''}`}>
      <h2>{t(`frame.group.${title}`)}</h2>
      {children}
    </section>
  )
}

interface FoldProps {
  readonly title: string
  /** Everything is asked for at once: it lies open, and is a group like any other. */
  readonly isOpen: boolean
  /** So many of its figures are not the usual ones. */
  readonly unusual: number
  readonly isInner?: boolean
  readonly children: ReactNode
}

/** Inputs with usual values, folded away under what they are about until somebody wants them. */
export function Fold({ title, isOpen, unusual, isInner = false, children }: FoldProps) {
  const { t } = useTranslation()
  const [isShown, setIsShown] = useState(isOpen)
  const [wasOpen, setWasOpen] = useState(isOpen)
  // Opened and shut from outside too; whatever has the focus in it stays where it is.
  if (isOpen !== wasOpen) {
    setWasOpen(isOpen)
    setIsShown(isOpen)
  }
  return (
    <details
      open={isShown}
      onToggle={(event) => setIsShown(event.currentTarget.open)}
      className={`min-w-0 ${isInner ? '' : 'border-t border-faint pt-2'}`}
    >
      <summary className="min-h-7">
        {isInner ? title : <h2 className="inline">{title}</h2>}{' '}
        {!isOpen && (
          <span className={unusual > 0 ? 'text-ochre' : 'text-slate'}>
            {unusual > 0 ? t('frame.unusual', { count: unusual }) : t('frame.asUsual')}
          </span>
        )}
      </summary>
      <div className="flex min-w-0 flex-col gap-2 pt-2">{children}</div>
    </details>
  )
}
