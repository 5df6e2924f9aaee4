import { Field } from './Field.tsx'

interface TextFieldProps {
  readonly label: string
  readonly value: string
  readonly longest?: number
  readonly placeholder?: string
  readonly error?: string | undefined
  readonly hint?: string | undefined
  readonly onChange: (value: string) => void
}

/** The longest name of anything. */
const NAME_LENGTH = 80

/** A line of words. */
export function TextField({ label, value, longest = NAME_LENGTH, onChange, ...rest }: TextFieldProps) {
  const { placeholder, ...said } = rest
  return (
    <Field label={label} {...said}>
      {(ids) => (
        <input
          {...ids}
          className="input"
          value={value}
          maxLength={longest}
          placeholder={placeholder}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  )
}
