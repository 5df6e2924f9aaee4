import { useState } from 'react'
import { Field } from './Field.tsx'

/**
 * What a typed text reads as: a value in SI, nothing (emptied, where that is allowed), or a problem in words.
 */
export type Reading = { readonly value: number } | { readonly value: null } | { readonly problem: string }

interface QuantityFieldProps {
  readonly label: string
  /** The value as the person's units write it. */
  readonly shown: string
  readonly read: (text: string) => Reading
  /** Called with every keystroke that reads as a value. */
  readonly onValue: (value: number | null) => void
  readonly error?: string | undefined
  readonly hint?: string | undefined
  readonly disabled?: boolean | undefined
  readonly placeholder?: string | undefined
}

interface Typing {
  readonly text: string
  /** The value shown when the field was left with a problem; `null` while the fingers are in it. */
  readonly leftAt: string | null
}

/**
 * A figure with a unit as people write it. What is typed stays as typed until the field is left; then it is
 * shown in the person's own units, or, where it could not be read, kept with its message until the value
 * changes from elsewhere.
 */
export function QuantityField(props: QuantityFieldProps) {
  const { label, shown, read, onValue, hint, disabled, placeholder } = props
  const [typing, setTyping] = useState<Typing | null>(null)
  const isTyped = typing !== null && (typing.leftAt === null || typing.leftAt === shown)
  const text = isTyped ? typing.text : shown
  const reading = isTyped ? read(text) : null
  const problem = reading && 'problem' in reading ? reading.problem : undefined
  const type = (typed: string) => {
    setTyping({ text: typed, leftAt: null })
    const next = read(typed)
    if ('value' in next) onValue(next.value)
  }
  return (
    <Field label={label} error={problem ?? props.error} hint={hint}>
      {(ids) => (
        <input
          {...ids}
          className="input"
          value={text}
          autoComplete="off"
          spellCheck={false}
          disabled={disabled}
          placeholder={placeholder}
          onChange={(event) => type(event.target.value)}
          onBlur={() => setTyping(problem === undefined ? null : { text, leftAt: shown })}
        />
      )}
    </Field>
  )
}
