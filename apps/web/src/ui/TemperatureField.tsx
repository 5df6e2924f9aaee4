import { formatTemperature, parseTemperature } from '@klados/core/units'
import { useTranslation } from '../i18n/use-translation.tsx'
import { QuantityField } from './QuantityField.tsx'
import type { Reading } from './QuantityField.tsx'
import { readingProblem } from './reading-problem.ts'
import { useUnits } from './units.tsx'

interface TemperatureFieldProps {
  readonly label: string
  readonly valueC: number
  readonly hint?: string | undefined
  readonly onChange: (valueC: number) => void
}

const LEAST_C = -60
const MOST_C = 80

/** A temperature as people write it: 16 °C, 60 °F; a bare number takes the person's own degrees. */
export function TemperatureField({ label, valueC, hint, onChange }: TemperatureFieldProps) {
  const { t } = useTranslation()
  const { system, temperatureTyped } = useUnits()
  const read = (text: string): Reading => {
    const parsed = parseTemperature(text, system === 'metric' ? 'C' : 'F')
    if (!parsed.ok) return { problem: readingProblem(t, parsed) }
    if (parsed.value < LEAST_C)
      return { problem: t('length.too-small', { min: formatTemperature(LEAST_C, system) }) }
    if (parsed.value > MOST_C)
      return { problem: t('length.too-large', { max: formatTemperature(MOST_C, system) }) }
    return { value: parsed.value }
  }
  return (
    <QuantityField
      label={label}
      hint={hint}
      shown={temperatureTyped(valueC)}
      read={read}
      onValue={(next) => next !== null && onChange(next)}
    />
  )
}
