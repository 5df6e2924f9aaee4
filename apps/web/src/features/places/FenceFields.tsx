import { useEffect, useRef } from 'react'
import { useLocation } from 'react-router'
import { fenceFields, fenceUnknown } from '@klados/core/design'
import type { FenceMade } from '@klados/core/design'
import type { Rhythm } from '@klados/core/frame'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { QuantityField } from '../../ui/QuantityField.tsx'

interface FenceFieldsProps {
  readonly fence: FenceMade | null
  readonly levels: Rhythm | null
  readonly onChange: (part: { fence?: FenceMade; levels?: Rhythm | null }) => void
}

const USUAL_FIRST_RAIL_M = 0.25
const USUAL_RAIL_STEP_M = 0.6
const keys = Object.keys(fenceFields) as (keyof FenceMade)[]
const METRES = { mm: 1000, m: 1 } as const

/** How the fence is made. What is left empty nobody knows, and what goes by it cannot be told. */
export function FenceFields({ fence, levels, onChange }: FenceFieldsProps) {
  const { t } = useTranslation()
  const now = fence ?? fenceUnknown
  const { hash } = useLocation()
  const part = useRef<HTMLFieldSetElement>(null)
  useEffect(() => {
    if (hash !== '#fence') return
    // After the screen itself has taken the focus.
    const first = requestAnimationFrame(() => {
      part.current?.scrollIntoView({ block: 'start' })
      part.current?.querySelector('input')?.focus({ preventScroll: true })
    })
    return () => cancelAnimationFrame(first)
  }, [hash])
  return (
    <fieldset ref={part} className="grid grid-cols-2 items-end gap-3">
      <legend className="font-semibold">{t('fence.title')}</legend>
      <p className="col-span-2 text-[0.8125rem] text-slate">{t('fence.intro')}</p>
      {keys.map((key) => {
        const { is, min, max } = fenceFields[key]
        const set = (value: number | null) => onChange({ fence: { ...now, [key]: value } })
        const value = now[key]
        if (is === 'count')
          return (
            <CountField
              key={key}
              label={t(`fence.${key}`)}
              value={value}
              min={min}
              max={max}
              onChange={set}
            />
          )
        const per = METRES[is]
        return (
          <LengthField
            key={key}
            label={t(`fence.${key}`)}
            style={is === 'mm' ? 'fine' : 'short'}
            minM={min / per}
            maxM={max / per}
            placeholder={t('fence.unknown')}
            valueM={value === null ? null : value / per}
            onChange={(m) => set(Math.round(m * per * 1e6) / 1e6)}
            onClear={() => set(null)}
          />
        )
      })}
      <LengthField
        label={t('fence.firstRail')}
        style="short"
        minM={0}
        maxM={5}
        placeholder={t('fence.unknown')}
        valueM={levels?.firstM ?? null}
        onChange={(firstM) => onChange({ levels: { stepM: USUAL_RAIL_STEP_M, ...levels, firstM } })}
        onClear={() => onChange({ levels: null })}
      />
      <LengthField
        label={t('fence.railStep')}
        style="short"
        minM={0.05}
        maxM={5}
        placeholder={t('fence.unknown')}
        valueM={levels?.stepM ?? null}
        onChange={(stepM) => onChange({ levels: { firstM: USUAL_FIRST_RAIL_M, ...levels, stepM } })}
        onClear={() => onChange({ levels: null })}
      />
    </fieldset>
  )
}

interface CountFieldProps {
  readonly label: string
  readonly value: number | null
  readonly min: number
  readonly max: number
  readonly onChange: (value: number | null) => void
}

function CountField({ label, value, min, max, onChange }: CountFieldProps) {
  const { t } = useTranslation()
  return (
    <QuantityField
      label={label}
      placeholder={t('fence.unknown')}
      shown={value === null ? '' : String(value)}
      read={(text) => {
        if (text.trim() === '') return { value: null }
        const count = Number(text.trim())
        if (!Number.isInteger(count)) return { problem: t('field.whole') }
        if (count < min) return { problem: t('length.too-small', { min }) }
        return count > max ? { problem: t('length.too-large', { max }) } : { value: count }
      }}
      onValue={onChange}
    />
  )
}
