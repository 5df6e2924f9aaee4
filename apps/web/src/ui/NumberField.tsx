import { parseNumber } from '@klados/core/units'
import { withMark } from '../i18n/language.ts'
import { useTranslation } from '../i18n/use-translation.tsx'
import { QuantityField } from './QuantityField.tsx'
import type { Reading } from './QuantityField.tsx'
import { readingProblem } from './reading-problem.ts'

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

/** A bare number within its limits. */
export function NumberField({ label, value, min, max, step, hint, onChange }: NumberFieldProps) {
  const { t } = useTranslation()
  const read = (text: string): Reading => {
    const parsed = parseNumber(text)
    if (!parsed.ok)
      return {
        problem: parsed.reason === 'ambiguous' ? readingProblem(t, parsed) : t('field.notANumber'),
      }
    const number = parsed.value
    if (step === 1 && !Number.isInteger(number)) return { problem: t('field.whole') }
    if (number < min) return { problem: t('length.too-small', { min }) }
    if (number > max) return { problem: t('length.too-large', { max }) }
    return { value: number }
  }
  return (
    <QuantityField
      label={label}
      hint={hint}
      shown={withMark(String(Math.round(value * 1e4) / 1e4))}
      read={read}
      onValue={(next) => next !== null && onChange(next)}
    />
  )
}
