import type { FrameBody, PlaceBody } from '@klados/contract'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Check, Choice, Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useUnits } from '../../ui/units.tsx'
import { useNames } from '../../plan/names.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { DiamondInputs } from './DiamondInputs.tsx'
import { FreeInputs } from './FreeInputs.tsx'
import { PotInputs } from './PotInputs.tsx'
import { TierInputs } from './TierInputs.tsx'
import { kindsFor, startPattern } from '@klados/core/design'
import { kindOf } from '@klados/core/frame'
import type { Field, FrameNode, LengthWriting, NodeId } from '@klados/core/frame'
import { Fold } from './Group.tsx'
import type { UnusualIn } from './inputs-props.ts'
import { EDITED_APART } from './edited-apart.ts'
import { fieldWords, optionWords } from '../../ui/id-words.ts'

type Pattern = FrameBody['design']['pattern']

interface PatternInputsProps {
  readonly gardenId: string
  readonly place: PlaceBody
  readonly pattern: Pattern
  readonly onChange: (what: string, pattern: Pattern) => void
  readonly nodeId: string | null
  readonly onNode: (id: NodeId | null) => void
  readonly laid: readonly FrameNode[]
  readonly isAll: boolean
  readonly unusualIn: UnusualIn
}

/**
 * What is measured of a pattern: its own fields in order, and editors of its own where a list is measured.
 */
export function PatternInputs(props: PatternInputsProps) {
  const { gardenId, place, pattern, onChange, nodeId, onNode, laid, isAll, unusualIn } = props
  const { t } = useTranslation()
  const units = useUnits()
  const catalogue = useCatalogue(gardenId)
  const kinds = kindsFor(place)
  const offered = kinds.includes(pattern.kind) ? kinds : [pattern.kind, ...kinds]
  const all = fieldsOf(pattern)
  const later = new Set<string>(kindOf(pattern).later ?? [])
  const asked = all.filter(([key]) => later.has(key))
  const fieldGrid = (fields: typeof all) => (
    <div className="grid grid-cols-2 items-end gap-2">
      {fields.map(([key, field]) => (
        <PatternField
          key={key}
          gardenId={gardenId}
          name={key}
          field={field}
          isAll={isAll}
          value={pattern[key as keyof Pattern]}
          onValue={(value) => onChange(key, { ...pattern, [key]: value } as Pattern)}
        />
      ))}
    </div>
  )
  return (
    <>
      <Pick
        label={t('frame.kind')}
        value={pattern.kind}
        options={offered.map((value) => ({ value, label: t(`frame.${value}`) }))}
        onChange={(kind) =>
          onChange('kind', startPattern(place, kind as Pattern['kind'], units.system, catalogue))
        }
      />
      {fieldGrid(all.filter(([key]) => !later.has(key)))}
      {pattern.kind === 'tiers' && <TierInputs place={place} pattern={pattern} onChange={onChange} />}
      {pattern.kind === 'diamonds' && <DiamondInputs place={place} pattern={pattern} onChange={onChange} />}
      {pattern.kind === 'free' && (
        <FreeInputs
          place={place}
          pattern={pattern}
          onChange={onChange}
          nodeId={nodeId}
          onNode={onNode}
          laid={laid}
        />
      )}
      {asked.length > 0 && (
        <Fold
          title={t('frame.moreMeasures')}
          isOpen={isAll}
          isInner
          unusual={unusualIn(
            asked.map(([key]) => key),
            'pattern',
          )}
        >
          {fieldGrid(asked)}
        </Fold>
      )}
    </>
  )
}

/**
 * What is asked of this pattern, in the order of its record; what has an editor of its own is asked for
 * there.
 */
function fieldsOf(pattern: Pattern): readonly (readonly [string, Field])[] {
  const { fields, hidden } = kindOf(pattern)
  const passedOver = new Set<string>([...(hidden?.(pattern) ?? []), ...(EDITED_APART[pattern.kind] ?? [])])
  return Object.entries(fields as Readonly<Record<string, Field>>).filter(([key]) => !passedOver.has(key))
}

interface PatternFieldProps {
  readonly gardenId: string
  readonly name: string
  readonly field: Field
  readonly isAll: boolean
  readonly value: unknown
  readonly onValue: (value: unknown) => void
}

/** One parameter, asked for as its record says. Labels are `field.<key>`, options `option.<key>.<value>`. */
function PatternField({ gardenId, name, field, isAll, value, onValue }: PatternFieldProps) {
  const { t } = useTranslation()
  const label = fieldWords(t, name)
  switch (field.ask) {
    case 'length':
    case 'length-or-none':
      return (
        <LengthField
          label={label}
          style={field.writing satisfies LengthWriting}
          minM={field.minM}
          maxM={field.maxM}
          valueM={value as number | null}
          onChange={onValue}
          {...(field.ask === 'length' ? {} : { onClear: () => onValue(null), placeholder: t('field.none') })}
        />
      )
    case 'whole':
    case 'number':
      return (
        <NumberField
          label={label}
          value={value as number}
          min={field.min}
          max={field.max}
          step={field.ask === 'whole' ? 1 : field.step}
          onChange={onValue}
        />
      )
    case 'flag':
      return <Check label={label} isOn={value as boolean} onChange={onValue} />
    case 'choice':
      return (
        <div className="col-span-2">
          <Choice
            label={label}
            value={String(value)}
            options={field.options.map((option) => ({
              value: String(option),
              label: optionWords(t, name, option),
            }))}
            onChange={(chosen) => onValue(field.options.find((option) => String(option) === chosen))}
          />
        </div>
      )
    case 'pot':
      return (
        <div className="col-span-2 flex flex-col gap-2">
          <PotInputs
            pot={value as Parameters<typeof PotInputs>[0]['pot']}
            canBeNone={field.canBeNone}
            isAll={isAll}
            onChange={(pot) => (pot || field.canBeNone) && onValue(pot)}
          />
        </div>
      )
    case 'stock':
    case 'screw':
      return (
        <div className="col-span-2">
          <GoodsPick
            gardenId={gardenId}
            label={label}
            field={field}
            value={value as string}
            onValue={onValue}
          />
        </div>
      )
    case 'id':
    case 'link':
    case 'list':
    case 'one-of':
      return null
  }
}

interface GoodsPickProps {
  readonly gardenId: string
  readonly label: string
  readonly field: Extract<Field, { ask: 'stock' | 'screw' }>
  readonly value: string
  readonly onValue: (value: string) => void
}

/**
 * Posts, canes, bars or screws out of the garden's own catalogue; what the frame has now is offered whatever
 * its use.
 */
function GoodsPick({ gardenId, label, field, value, onValue }: GoodsPickProps) {
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  const options =
    field.ask === 'stock'
      ? catalogue.stock
          .filter((one) => field.uses.includes(one.use) || one.id === value)
          .map((one) => ({ value: one.id, label: names.stock(one) }))
      : catalogue.screws
          .filter((one) => one.head === field.head)
          .map((one) => ({ value: one.id, label: names.screw(one) }))
  return <Pick label={label} value={value} options={options} onChange={onValue} />
}
