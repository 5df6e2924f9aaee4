import { useTranslation } from '../i18n/use-translation.tsx'

interface ScreenTitleProps {
  /** What the heading says. */
  readonly children: string
  /** What the browser's tab and its history say, where the heading by itself does not tell one screen from another. */
  readonly tab?: string
}

/** What a screen is: its heading, and the title by which it is told among open tabs and read out when it opens. */
export function ScreenTitle({ children, tab }: ScreenTitleProps) {
  const { t } = useTranslation()
  return (
    <>
      <title>{t('app.tab', { page: tab ?? children })}</title>
      <h1>{children}</h1>
    </>
  )
}
