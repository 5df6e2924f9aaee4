import { startDesign, withPlant } from '@klados/core/design'
import type { FrameBody } from '@klados/contract'
import { kindOf } from '@klados/core/frame'
import { plantKinds } from '@klados/core/kinds'
import { useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { Pick } from '../../ui/Choice.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { UnitsSwitch } from '../../ui/UnitsSwitch.tsx'
import { useUnits } from '../../ui/units.tsx'
import { FixingInputs } from './FixingInputs.tsx'
import { Fold, Group } from './Group.tsx'
import type { PatternOf } from './change.ts'
import type { InputsProps, UnusualIn } from './inputs-props.ts'
import { WireInputs, WorkingLengths } from './WireInputs.tsx'
import { useAllFigures } from './use-all-figures.ts'
import { JUMPS } from './jumps.ts'
import { PatternInputs } from './PatternInputs.tsx'
import { RowEnds, RowWires } from './RowInputs.tsx'
import { StandingInputs } from './StandingInputs.tsx'

/**
 * What one measures and decides, in that order: the pattern, the wire, the fixings and single nodes, what it
 * will carry.
 */
export function Inputs(props: InputsProps) {
  const { gardenId, place, design, onChange, canWrite } = props
  const { t } = useTranslation()
  const [isAll, setIsAll] = useAllFigures()
  const unusualIn = useUnusual(props)
  const wires = kindOf(design.pattern).wires(design.pattern)
  const isRow = design.pattern.kind === 'row'
  return (
    <>
      <p className="flex flex-wrap justify-end gap-x-4">
        <UnitsSwitch />
        <button
          type="button"
          className="btn btn-plain px-0"
          aria-pressed={isAll}
          onClick={() => setIsAll(!isAll)}
        >
          {t('frame.allFigures')}
        </button>
      </p>
      <fieldset
        disabled={!canWrite}
        data-walk="figures"
        id={JUMPS.figures}
        tabIndex={-1}
        className="grid min-w-0 gap-x-8 gap-y-5 outline-none sm:grid-cols-2 xl:grid-cols-3 [&_:is(input,select,button)]:scroll-mt-[50vh] lg:[&_:is(input,select,button)]:scroll-mt-[56vh]"
      >
        <div className="flex min-w-0 flex-col gap-5">
          <Group title="carries">
            <LoadInputs {...props} />
          </Group>
          <Group title="pattern">
            <NameField name={props.name} onName={props.onName} />
            <PatternInputs
              gardenId={gardenId}
              place={place}
              pattern={design.pattern}
              nodeId={props.nodeId}
              onNode={props.onNode}
              laid={props.laid}
              isAll={isAll}
              unusualIn={unusualIn}
              onChange={(what, pattern) =>
                onChange(what, pattern.kind === design.pattern.kind ? { pattern } : { pattern, dragged: {} })
              }
            />
          </Group>
        </div>
        <div className="flex min-w-0 flex-col gap-5">
          {isRow && (
            <Group title="ends">
              <RowEnds
                gardenId={gardenId}
                pattern={design.pattern as PatternOf<'row'>}
                isAll={isAll}
                onChange={(what, pattern) => onChange(what, { pattern })}
              />
            </Group>
          )}
          <StandingInputs {...props} isAll={isAll} />
        </div>
        <div className="flex min-w-0 flex-col gap-5">
          {wires.includes('main') && (
            <Fold title={t('frame.group.wire')} isOpen={isAll} unusual={unusualIn(WIRE_KEYS)}>
              <WireInputs
                gardenId={gardenId}
                choice={design}
                onChange={(what, choice) => onChange(what, choice)}
              />
              <WorkingLengths {...props} />
            </Fold>
          )}
          {wires.includes('light') && design.light && (
            <Fold title={t('frame.group.light')} isOpen={isAll} unusual={unusualIn(['light'])}>
              <WireInputs
                gardenId={gardenId}
                choice={design.light}
                onChange={(what, choice) =>
                  onChange(`light ${what}`, { light: { ...design.light!, ...choice } })
                }
              />
            </Fold>
          )}
          {/* Whoever has chosen a node or post wants its figures. */}
          <FixingInputs {...props} isOpen={isAll || props.nodeId !== null} unusual={unusualIn(FIXING_KEYS)} />
        </div>
        {isRow && (
          <Group title="levels" isWide>
            <RowWires
              pattern={design.pattern as PatternOf<'row'>}
              onChange={(what, pattern) => onChange(what, { pattern })}
            />
          </Group>
        )}
      </fieldset>
    </>
  )
}

const WIRE_KEYS = [
  ...(['wireId', 'tensionN', 'rolls', 'handlingLengthM', 'endWrapM', 'wireEnding', 'strainers'] as const),
  ...(['endsAt', 'setC'] as const),
] as const
const FIXING_KEYS = ['fixingId', 'standOffM', 'plantOffM', 'moveToleranceM', 'snap', 'dragged'] as const

/** Counts what of a design is not as a frame of its kind begins here. */
function useUnusual({ gardenId, place, design }: InputsProps): UnusualIn {
  const catalogue = useCatalogue(gardenId)
  const { system } = useUnits()
  const { kind } = design.pattern
  const usual = useMemo(() => startDesign(place, kind, catalogue, system), [place, kind, catalogue, system])
  const isUnusual = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b)
  return (keys, of = 'design') => {
    const [now, begun] = of === 'design' ? [design, usual] : [design.pattern, usual.pattern]
    const values = (from: object) => from as Readonly<Record<string, unknown>>
    return keys.filter((key) => isUnusual(values(now)[key], values(begun)[key])).length
  }
}

function NameField({ name, onName }: { name: string; onName: (name: string) => void }) {
  const { t } = useTranslation()
  return (
    <TextField
      label={t('frame.frameName')}
      value={name}
      error={name.trim() === '' ? t('account.required') : undefined}
      onChange={onName}
    />
  )
}

/** What will hang on it, and how many are built. */
function LoadInputs({ design, onChange }: InputsProps) {
  const { t } = useTranslation()
  const { system } = useUnits()
  return (
    <div className="grid grid-cols-2 items-end gap-2">
      <div className="col-span-2">
        <Pick
          id={JUMPS.plant}
          label={t('frame.plantKind')}
          value={design.plantKindId ?? ''}
          options={[
            { value: '', label: t('frame.noPlant') },
            ...plantKinds.map((kind) => ({ value: kind.id, label: t(`kind.${kind.id}`) })),
          ]}
          onChange={(id) => onChange('plant', withPlant(design, id || null, system) as FrameBody['design'])}
        />
      </div>
      <NumberField
        label={t('frame.repeat')}
        value={design.repeat}
        min={1}
        max={1000}
        step={1}
        onChange={(repeat) => onChange('repeat', { repeat })}
      />
    </div>
  )
}
