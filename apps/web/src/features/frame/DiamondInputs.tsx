import type { PlaceBody } from '@klados/contract'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Check, Choice } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useUnits } from '../../ui/units.tsx'
import { frameKinds } from '@klados/core/frame'
import type { PatternOf } from './change.ts'

const { fields } = frameKinds.diamonds

interface DiamondInputsProps {
  readonly place: PlaceBody
  readonly pattern: PatternOf<'diamonds'>
  readonly onChange: (what: string, pattern: PatternOf<'diamonds'>) => void
}

export function DiamondInputs({ place, pattern, onChange }: DiamondInputsProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const { cell } = pattern
  const set = (what: string, part: Partial<PatternOf<'diamonds'>>) => onChange(what, { ...pattern, ...part })
  const switchCell = (by: 'width' | 'count') => {
    if (by === cell.by) return
    const count =
      cell.by === 'width' ? Math.max(1, Math.floor(place.widthM / cell.widthM + 1e-6)) : cell.count
    const widthM =
      cell.by === 'count' ? place.widthM / (cell.count + (cell.halfAtEnd ? 0.5 : 0)) : cell.widthM
    set('by', {
      cell:
        by === 'width' ? { by, widthM: Math.floor(widthM * 1000) / 1000 } : { by, count, halfAtEnd: false },
    })
  }
  return (
    <>
      <Choice
        label={t('frame.cellBy')}
        value={cell.by}
        options={[
          { value: 'width', label: t('frame.byWidth') },
          { value: 'count', label: t('frame.byCount') },
        ]}
        onChange={switchCell}
      />
      {cell.by === 'width' ? (
        <LengthField
          label={t('frame.cellWidth')}
          minM={fields.cell.of.width.widthM.minM}
          valueM={cell.widthM}
          onChange={(widthM) => set('width', { cell: { by: 'width', widthM } })}
        />
      ) : (
        <div className="grid grid-cols-2 items-end gap-2">
          <NumberField
            label={t('frame.cellCount')}
            value={cell.count}
            min={fields.cell.of.count.count.min}
            max={fields.cell.of.count.count.max}
            step={1}
            onChange={(count) => set('count', { cell: { ...cell, count } })}
          />
          <Check
            label={t('frame.halfAtEnd')}
            isOn={cell.halfAtEnd}
            onChange={(halfAtEnd) => set('half', { cell: { ...cell, halfAtEnd } })}
          />
        </div>
      )}
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={t('frame.rows')}
          value={pattern.rows}
          min={fields.rows.min}
          max={fields.rows.max}
          step={1}
          onChange={(rows) => set('rows', { rows })}
        />
        <LengthField
          label={t('frame.cellHeight')}
          hint={pattern.cellHeightM === null ? t('frame.cellHeightFill') : undefined}
          placeholder={units.length(place.usableHeightM / pattern.rows)}
          minM={fields.cellHeightM.minM}
          valueM={pattern.cellHeightM}
          onChange={(cellHeightM) => set('cell height', { cellHeightM })}
          onClear={() => set('cell height', { cellHeightM: null })}
        />
      </div>
      <Check
        label={t('frame.closeCut')}
        isOn={pattern.closeCutEnd}
        onChange={(closeCutEnd) => set('close', { closeCutEnd })}
      />
    </>
  )
}
