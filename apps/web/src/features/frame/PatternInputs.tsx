import type { FrameBody, PlaceBody } from '@klados/contract'
import { useTranslation } from 'react-i18next'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useNames } from '../../plan/names.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { DiamondInputs } from './DiamondInputs.tsx'
import { FreeInputs } from './FreeInputs.tsx'
import { PotInputs } from './PotInputs.tsx'
import { TierInputs } from './TierInputs.tsx'
import { kindsFor, startPattern } from './start-design.ts'
import { fieldsFor } from './pattern-fields.ts'
import type { FieldSpec } from './pattern-fields.ts'

type Pattern = FrameBody['design']['pattern']

interface PatternInputsProps {
  readonly gardenId: string
  readonly place: PlaceBody
  readonly pattern: Pattern
  readonly onChange: (what: string, pattern: Pattern) => void
  readonly nodeId: string | null
  readonly onNode: (id: string | null) => void
}

/**
 * What is measured of a pattern: its own fields in order, and editors of its own where a list is measured.
 */
export function PatternInputs(props: PatternInputsProps) {
  const { gardenId, place, pattern, onChange, nodeId, onNode } = props
  const { t } = useTranslation()
  const kinds = kindsFor(place)
  const offered = kinds.includes(pattern.kind) ? kinds : [pattern.kind, ...kinds]
  return (
    <>
      <Pick
        label={t('frame.kind')}
        value={pattern.kind}
        options={offered.map((value) => ({ value, label: t(`frame.${value}`) }))}
        onChange={(kind) => onChange('kind', startPattern(place, kind as Pattern['kind']))}
      />
      <div className="grid grid-cols-2 items-end gap-2">
        {fieldsFor(pattern).map((spec) => (
          <PatternField
            key={spec.key}
            gardenId={gardenId}
            spec={spec}
            value={pattern[spec.key as keyof Pattern]}
            onValue={(value) => onChange(spec.key, { ...pattern, [spec.key]: value } as Pattern)}
          />
        ))}
      </div>
      {pattern.kind === 'tiers' && <TierInputs pattern={pattern} onChange={onChange} />}
      {pattern.kind === 'diamonds' && <DiamondInputs place={place} pattern={pattern} onChange={onChange} />}
      {pattern.kind === 'free' && (
        <FreeInputs place={place} pattern={pattern} onChange={onChange} nodeId={nodeId} onNode={onNode} />
      )}
      {'pot' in pattern && (
        <PotInputs
          pot={pattern.pot}
          canBeNone={place.kind !== 'tub'}
          onChange={(pot) => onChange('pot', { ...pattern, pot })}
        />
      )}
      {pattern.kind === 'column' && (
        <PotInputs
          pot={pattern.tub}
          canBeNone={false}
          onChange={(tub) => tub && onChange('tub', { ...pattern, tub })}
        />
      )}
    </>
  )
}

interface PatternFieldProps {
  readonly gardenId: string
  readonly spec: FieldSpec
  readonly value: unknown
  readonly onValue: (value: unknown) => void
}

function PatternField({ gardenId, spec, value, onValue }: PatternFieldProps) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  const label = t(`field.${spec.key}`)
  switch (spec.ask) {
    case 'length':
      return (
        <LengthField
          label={label}
          style={spec.style ?? 'long'}
          minM={spec.minM ?? 0.001}
          maxM={spec.maxM ?? 1000}
          valueM={value as number | null}
          onChange={onValue}
          {...(spec.orNone === undefined
            ? {}
            : { onClear: () => onValue(null), placeholder: t('field.none') })}
        />
      )
    case 'whole':
      return (
        <NumberField
          label={label}
          value={value as number}
          min={spec.min}
          max={spec.max}
          step={1}
          onChange={onValue}
        />
      )
    case 'number':
      return (
        <NumberField
          label={label}
          value={value as number}
          min={spec.min}
          max={spec.max}
          step={spec.step}
          onChange={onValue}
        />
      )
    case 'choice':
      return (
        <div className="col-span-2">
          <Choice
            label={label}
            value={String(value)}
            options={spec.options.map((option) => ({
              value: String(option),
              label: t(`option.${spec.key}.${option}`),
            }))}
            onChange={(chosen) => onValue(spec.options.find((option) => String(option) === chosen))}
          />
        </div>
      )
    case 'stock':
      return (
        <div className="col-span-2">
          <Pick
            label={label}
            value={value as string}
            options={catalogue.stock
              .filter((one) => spec.uses.includes(one.use) || one.id === value)
              .map((one) => ({ value: one.id, label: names.stock(one) }))}
            onChange={onValue}
          />
        </div>
      )
    case 'screw':
      return (
        <div className="col-span-2">
          <Pick
            label={label}
            value={value as string}
            options={catalogue.screws
              .filter((one) => one.head === spec.head)
              .map((one) => ({ value: one.id, label: names.screw(one) }))}
            onChange={onValue}
          />
        </div>
      )
  }
}
