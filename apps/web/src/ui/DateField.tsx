import type { CalendarDate } from '@klados/core/season'
import { useEffect, useRef, useState } from 'react'
import { formatDate, readDate } from '../data/dates.ts'
import { useTranslation } from '../i18n/use-translation.tsx'
import { Field } from './Field.tsx'

interface DateFieldProps {
  readonly label: string
  readonly value: CalendarDate
  readonly min?: CalendarDate
  readonly max?: CalendarDate
  readonly error?: string | undefined
  readonly onChange: (day: CalendarDate) => void
}

/**
 * A day, written and typed as the reader's language has it; the browser's own field writes it in the browser's. Its
 * calendar is the browser's.
 */
export function DateField({ label, value, min, max, error, onChange }: DateFieldProps) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState<string | null>(null)
  const field = useRef<HTMLInputElement>(null)
  const calendar = useRef<HTMLInputElement>(null)
  const read = typed === null ? value : readDate(typed)
  const trouble =
    read === null
      ? t('date.unreadable', { example: formatDate(value) })
      : max !== undefined && read > max
        ? t('date.tooLate', { date: formatDate(max) })
        : min !== undefined && read < min
          ? t('date.tooEarly', { date: formatDate(min) })
          : undefined
  // The form is not sent with it, as with any field that the browser looks at.
  useEffect(() => field.current!.setCustomValidity(trouble ?? ''), [trouble])
  return (
    <Field label={label} error={error ?? trouble}>
      {(ids) => (
        <div className="flex items-stretch gap-1">
          <input
            {...ids}
            ref={field}
            className="input min-w-0 flex-1"
            value={typed ?? formatDate(value)}
            onChange={({ target }) => {
              setTyped(target.value)
              const day = readDate(target.value)
              if (day !== null) onChange(day)
            }}
            onBlur={() => read !== null && setTyped(null)}
          />
          <button
            type="button"
            className="btn btn-plain px-2"
            aria-label={t('date.calendar')}
            onClick={() => calendar.current!.showPicker()}
          >
            <svg width={16} height={16} viewBox="0 0 16 16" fill="none" stroke="currentColor" aria-hidden>
              <path d="M2.5 3.5h11v10h-11zM2.5 6.5h11M5.5 2v3M10.5 2v3" />
            </svg>
          </button>
          <input
            ref={calendar}
            className="pointer-events-none w-0 opacity-0"
            type="date"
            tabIndex={-1}
            aria-hidden
            min={min}
            max={max}
            value={value}
            onChange={({ target }) => {
              if (target.value === '') return
              setTyped(null)
              onChange(target.value)
            }}
          />
        </div>
      )}
    </Field>
  )
}
