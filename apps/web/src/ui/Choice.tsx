import { useId } from 'react'

interface ChoiceProps<V extends string> {
  readonly label: string
  readonly value: V
  readonly options: readonly { readonly value: V; readonly label: string }[]
  readonly onChange: (value: V) => void
  readonly disabled?: boolean | undefined
  /** Label and options on one line, where there is little height. */
  readonly isInline?: boolean
}

/** One of a few, all in sight: radio buttons drawn as knots on a short wire. */
export function Choice<V extends string>({
  label,
  value,
  options,
  onChange,
  disabled,
  isInline,
}: ChoiceProps<V>) {
  const name = useId()
  return (
    <fieldset
      className={isInline ? 'flex min-w-0 flex-wrap items-center gap-x-4' : 'min-w-0'}
      disabled={disabled}
    >
      <legend className={`text-[0.8125rem] text-slate ${isInline ? 'float-left' : 'mb-1'}`}>{label}</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {options.map((option) => (
          <label key={option.value} className="flex min-h-7 cursor-pointer items-center gap-1.5">
            <input
              type="radio"
              name={name}
              className="h-4 w-4 accent-[var(--verdigris)]"
              checked={option.value === value}
              onChange={() => onChange(option.value)}
            />
            <span className={option.value === value ? 'font-semibold' : ''}>{option.label}</span>
          </label>
        ))}
      </div>
    </fieldset>
  )
}

interface PickProps {
  readonly label: string
  readonly value: string
  readonly options: readonly { readonly value: string; readonly label: string }[]
  readonly onChange: (value: string) => void
  readonly disabled?: boolean | undefined
  /** Where something leads to it. */
  readonly id?: string
}

/** One of many, by the platform's own list. */
export function Pick({ label, value, options, onChange, disabled, id: given }: PickProps) {
  const own = useId()
  const id = given ?? own
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-0.5 block text-[0.8125rem] text-slate">
        {label}
      </label>
      <select
        id={id}
        className="input"
        value={value}
        disabled={disabled}
        onChange={(e) => onChange(e.target.value)}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  )
}

interface CheckProps {
  readonly label: string
  readonly isOn: boolean
  readonly onChange: (isOn: boolean) => void
}

/** Yes or no. */
export function Check({ label, isOn, onChange }: CheckProps) {
  return (
    <label className="flex min-h-8 items-center gap-1.5">
      <input
        type="checkbox"
        className="h-4 w-4 accent-[var(--verdigris)]"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  )
}
