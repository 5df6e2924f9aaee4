import { parseLength } from '@klados/core/units'
import type { LengthStyle } from '@klados/core/units'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Field } from './Field.tsx'
import { useUnits } from './units.tsx'

interface LengthFieldProps {
  readonly label: string
  readonly valueM: number | null
  /** Called with every keystroke that reads as a length in range; text that does not stays in the field with a message. */
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
  readonly autoFocus?: boolean
}

/** A length as people write it, in any unit; shown in the person's own once they leave the field. */
export function LengthField(props: LengthFieldProps) {
  const { label, valueM, onChange, onClear, style = 'long', minM = 0.001, maxM = 1000, disabled } = props
  const { t } = useTranslation()
  const units = useUnits()
  const shown = valueM === null ? '' : units.length(valueM, style)
  const [text, setText] = useState(shown)
  const [problem, setProblem] = useState<string>()
  const isTyping = useRef(false)
  // A value that changes from elsewhere (undo, a drag, the other unit system) is shown, but never under the fingers.
  useEffect(() => {
    if (!isTyping.current) {
      setText(shown)
      setProblem(undefined)
    }
  }, [shown])

  const type = (typed: string) => {
    isTyping.current = true
    setText(typed)
    const parsed = parseLength(typed, units.bare(style))
    if (!parsed.ok) {
      if (parsed.reason === 'empty' && onClear) {
        setProblem(undefined)
        onClear()
      } else setProblem(t(`length.${parsed.reason}`))
    } else if (parsed.value < minM - 1e-9 || parsed.value > maxM + 1e-9) {
      const range = { min: units.length(minM, style), max: units.length(maxM, style) }
      setProblem(t(parsed.value < minM ? 'length.too-small' : 'length.too-large', range))
    } else {
      setProblem(undefined)
      onChange(parsed.value)
    }
  }
  const leave = () => {
    isTyping.current = false
    if (problem === undefined) setText(shown)
  }
  return (
    <Field label={label} error={problem ?? props.error} hint={props.hint}>
      {(ids) => (
        <input
          {...ids}
          className="input"
          value={text}
          inputMode="text"
          autoComplete="off"
          spellCheck={false}
          disabled={disabled}
          placeholder={props.placeholder}
          autoFocus={props.autoFocus}
          onChange={(event) => type(event.target.value)}
          onBlur={leave}
        />
      )}
    </Field>
  )
}
