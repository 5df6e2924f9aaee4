import { parseMass } from '@klados/core/units'
import { useTranslation } from '../i18n/use-translation.tsx'
import { QuantityField } from './QuantityField.tsx'
import type { Reading } from './QuantityField.tsx'
import { readingProblem } from './reading-problem.ts'
import { useUnits } from './units.tsx'

interface MassFieldProps {
  readonly label: string
  readonly valueKg: number
  readonly maxKg: number
  readonly onChange: (valueKg: number) => void
}

/** A mass as people write it: 12 kg, 25 lb. */
export function MassField({ label, valueKg, maxKg, onChange }: MassFieldProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const read = (text: string): Reading => {
    const parsed = parseMass(text, units.system === 'metric' ? 'kg' : 'lb')
    if (!parsed.ok) return { problem: readingProblem(t, parsed) }
    if (parsed.value > maxKg) return { problem: t('length.too-large', { max: units.mass(maxKg) }) }
    return { value: parsed.value }
  }
  return (
    <QuantityField
      label={label}
      shown={units.massTyped(valueKg)}
      read={read}
      onValue={(value) => value !== null && onChange(value)}
    />
  )
}
