import { useId } from 'react'
import type { ReactNode } from 'react'

export interface FieldProps {
  readonly label: string
  readonly hint?: string | undefined
  readonly error?: string | undefined
  readonly children: (ids: {
    id: string
    'aria-describedby': string | undefined
    'aria-invalid': boolean
  }) => ReactNode
}

/** Label, control, and below it what is wrong or what helps; tied together for those who hear the page. */
export function Field({ label, hint, error, children }: FieldProps) {
  const id = useId()
  const text = error ?? hint
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-0.5 block text-[0.8125rem] text-slate">
        {label}
      </label>
      {children({
        id,
        'aria-describedby': text ? `${id}-text` : undefined,
        'aria-invalid': error !== undefined,
      })}
      {text && (
        <p
          id={`${id}-text`}
          className={`mt-1 text-[0.78125rem] leading-snug ${error ? 'text-iron' : 'text-slate'}`}
        >
          {text}
        </p>
      )}
    </div>
  )
}
