import type { ReactNode } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'

interface GroupProps {
  readonly title: 'pattern' | 'wire' | 'light' | 'carries' | 'levels' | 'ends' | 'fixing' | 'standing'
  readonly isWide?: boolean
  readonly children: ReactNode
}

/** Inputs that belong together, under their name. */
export function Group({ title, isWide = false, children }: GroupProps) {
  const { t } = useTranslation()
  return (
    <section
      className={`flex min-w-0 flex-col gap-2 border-t border-faint pt-2 ${isWide ? 'sm:col-span-2' : ''}`}
    >
      <h2>{t(`frame.group.${title}`)}</h2>
      {children}
    </section>
  )
}
