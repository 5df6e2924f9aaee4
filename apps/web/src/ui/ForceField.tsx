import { parseForce } from '@klados/core/units'
import { useTranslation } from '../i18n/use-translation.tsx'
import { QuantityField } from './QuantityField.tsx'
import type { Reading } from './QuantityField.tsx'
import { readingProblem } from './reading-problem.ts'
import { useUnits } from './units.tsx'

interface ForceFieldProps {
  readonly label: string
  readonly valueN: number
  /** Less than this is a slip; 0 where nothing is an answer too. */
  readonly minN?: number
  readonly onChange: (valueN: number) => void
}

const LEAST_N = 1
const MOST_N = 20_000

/** A pull as people write it: 150 N, 35 lb, 15 kgf. */
export function ForceField({ label, valueN, minN = LEAST_N, onChange }: ForceFieldProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const read = (text: string): Reading => {
    const parsed = parseForce(text, units.system === 'metric' ? 'N' : 'lbf')
    if (!parsed.ok) return { problem: readingProblem(t, parsed) }
    if (parsed.value < minN) return { problem: t('length.too-small', { min: units.force(minN) }) }
    if (parsed.value > MOST_N) return { problem: t('length.too-large', { max: units.force(MOST_N) }) }
    return { value: parsed.value }
  }
  return (
    <QuantityField
      label={label}
      shown={units.forceTyped(valueN)}
      read={read}
      onValue={(value) => value !== null && onChange(value)}
    />
  )
}
