import { parseLength } from '@klados/core/units'
import type { LengthStyle } from '@klados/core/units'
import { useTranslation } from '../i18n/use-translation.tsx'
import { QuantityField } from './QuantityField.tsx'
import type { Reading } from './QuantityField.tsx'
import { readingProblem } from './reading-problem.ts'
import { useUnits } from './units.tsx'

interface LengthFieldProps {
  readonly label: string
  readonly valueM: number | null
  readonly onChange: (valueM: number) => void
  /** Called when the field is emptied, where that means something. */
  readonly onClear?: () => void
  readonly style?: LengthStyle
  readonly minM?: number
  readonly maxM?: number
  /** Something wrong that only the whole knows. */
  readonly error?: string | undefined
  readonly hint?: string | undefined
  readonly disabled?: boolean
  readonly placeholder?: string
}

/** Room for what the display rounds away, so that a limit shown as text can be typed back. */
const ROUNDING_M = 1e-4

/** A length in any unit; a bare number takes the field's own. */
export function LengthField(props: LengthFieldProps) {
  const { label, valueM, onChange, onClear, style = 'long', minM = 0.001, maxM = 1000, ...rest } = props
  const { t } = useTranslation()
  const units = useUnits()
  const read = (text: string): Reading => {
    const parsed = parseLength(text, units.bare(style), maxM)
    if (!parsed.ok)
      return parsed.reason === 'empty' && onClear ? { value: null } : { problem: readingProblem(t, parsed) }
    if (parsed.value < minM - ROUNDING_M)
      return { problem: t('length.too-small', { min: units.length(minM, style) }) }
    if (parsed.value > maxM + ROUNDING_M)
      return { problem: t('length.too-large', { max: units.length(maxM, style) }) }
    return { value: Math.min(maxM, Math.max(minM, parsed.value)) }
  }
  return (
    <QuantityField
      {...rest}
      label={label}
      shown={valueM === null ? '' : units.lengthTyped(valueM, style)}
      read={read}
      onValue={(value) => (value === null ? onClear?.() : onChange(value))}
    />
  )
}
