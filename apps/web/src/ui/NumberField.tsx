import { useTranslation } from '../i18n/use-translation.tsx'
import { QuantityField } from './QuantityField.tsx'
import type { Reading } from './QuantityField.tsx'

interface NumberFieldProps {
  readonly label: string
  readonly value: number
  readonly min: number
  readonly max: number
  /** 1 for whole numbers; otherwise the grain it is shown in. */
  readonly step: number
  readonly hint?: string | undefined
  readonly onChange: (value: number) => void
}

/** A bare number within its limits; a comma reads as a point. */
export function NumberField({ label, value, min, max, step, hint, onChange }: NumberFieldProps) {
  const { t } = useTranslation()
  const read = (text: string): Reading => {
    const number = Number(text.trim().replace(',', '.'))
    if (text.trim() === '' || !Number.isFinite(number)) return { problem: t('length.not-a-length') }
    if (step === 1 && !Number.isInteger(number)) return { problem: t('field.whole') }
    if (number < min) return { problem: t('length.too-small', { min }) }
    if (number > max) return { problem: t('length.too-large', { max }) }
    return { value: number }
  }
  return (
    <QuantityField
      label={label}
      hint={hint}
      shown={String(Math.round(value * 1e4) / 1e4)}
      read={read}
      onValue={(next) => next !== null && onChange(next)}
    />
  )
}
