import type { ComponentProps } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { DateField } from '../../ui/DateField.tsx'
import { Rings } from './Rings.tsx'

/** The day that the bench shows: on its rings, or on a phone, which has no room for them, by its date. */
export function DayShown(props: ComponentProps<typeof Rings>) {
  const { t } = useTranslation()
  const { on, today, onDay } = props
  return (
    <>
      <div className="max-sm:hidden">
        <Rings {...props} />
      </div>
      <details className="sm:hidden">
        <summary className="min-h-6">{t('wood.otherDay')}</summary>
        <DateField label={t('wood.ringsLabel')} value={on} max={today} onChange={onDay} />
      </details>
    </>
  )
}
