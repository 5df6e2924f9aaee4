import { useState } from 'react'
import { useTranslation } from '../i18n/use-translation.tsx'
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

/** A line of words. One that is longer than it may be stays as it was typed, says so, and is not taken. */
export function TextField({
  label,
  value,
  longest = NAME_LENGTH,
  placeholder,
  error,
  hint,
  onChange,
}: TextFieldProps) {
  const { t } = useTranslation()
  const [tooLong, setTooLong] = useState<string | null>(null)
  const refusal =
    tooLong === null ? undefined : t('field.tooLong', { most: longest, over: tooLong.length - longest })
  return (
    <Field label={label} hint={hint} error={refusal ?? error}>
      {(ids) => (
        <input
          {...ids}
          className="input"
          value={tooLong ?? value}
          placeholder={placeholder}
          onChange={({ target }) => {
            setTooLong(target.value.length > longest ? target.value : null)
            if (target.value.length <= longest) onChange(target.value)
          }}
        />
      )}
    </Field>
  )
}
