import type { RefObject } from 'react'
import { Field } from './Field.tsx'

interface LineFieldProps {
  readonly label: string
  readonly hint: string
  readonly error?: string | undefined
  readonly input: RefObject<HTMLInputElement | null>
  readonly value: string
  readonly onChange: (text: string) => void
}

/** One line of figures and words as they are called out; nothing finishes or capitalises it for one. */
export function LineField({ label, hint, error, input, value, onChange }: LineFieldProps) {
  return (
    <Field label={label} hint={hint} error={error}>
      {(ids) => (
        <input
          {...ids}
          ref={input}
          className="input"
          inputMode="text"
          autoComplete="off"
          autoCapitalize="off"
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  )
}
