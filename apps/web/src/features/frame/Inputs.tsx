import { MOST_STRAINERS, endingOf, findWire, isString, wireEndings } from '@klados/core/catalogue'
import { startDesign, withPlant } from '@klados/core/design'
import type { WireChoice } from '@klados/core/design'
import type { FrameBody } from '@klados/contract'
import { kindOf } from '@klados/core/frame'
import { plantKinds } from '@klados/core/kinds'
import { nearestGauge } from '@klados/core/units'
import type { GaugeSystem } from '@klados/core/units'
import { useMemo } from 'react'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { useNames } from '../../plan/names.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { ForceField } from '../../ui/ForceField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { OfferRows } from '../../ui/OfferRows.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { UnitsSwitch } from '../../ui/UnitsSwitch.tsx'
import { useUnits } from '../../ui/units.tsx'
import { TemperatureField } from '../../ui/TemperatureField.tsx'
import { FixingInputs } from './FixingInputs.tsx'
import { Fold, Group } from './Group.tsx'
import type { PatternOf } from './change.ts'
import type { InputsProps, UnusualIn } from './inputs-props.ts'
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
        className="grid min-w-0 gap-x-8 gap-y-5 sm:grid-cols-2 xl:grid-cols-3 [&_:is(input,select,button)]:scroll-mt-[50vh] lg:[&_:is(input,select,button)]:scroll-mt-[56vh]"
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

const GAUGE_SYSTEMS: readonly GaugeSystem[] = ['steelWireGauge', 'AWG', 'SWG']
/** Diameters this near to a gauge are called by it. */
const GAUGE_MM = 0.06
const MAX_ROLLS = 6

interface WireInputsProps {
  readonly gardenId: string
  readonly choice: WireChoice
  readonly onChange: (
    what: string,
    choice: { wireId?: string; tensionN?: number; rolls?: FrameBody['design']['rolls'] },
  ) => void
}

function WireInputs({ gardenId, choice, onChange }: WireInputsProps) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  const wire = findWire(catalogue, choice.wireId)
  const rolls = choice.rolls.map((roll) => ({ lengthM: roll.lengthM, price: roll.price ?? 0 }))
  const gauges = GAUGE_SYSTEMS.flatMap((system) => {
    const near = wire && !isString(wire) ? nearestGauge(system, wire.diameterMm) : null
    return near && Math.abs(near.differenceMm) <= GAUGE_MM
      ? [t('frame.gauge', { gauge: near.gauge, system: t(`frame.gaugeSystem.${system}`) })]
      : []
  })
  const pickWire = (id: string) => {
    const next = findWire(catalogue, id)!
    onChange('wire', {
      wireId: id,
      tensionN: next.usualTensionN,
      rolls: next.rolls.map((roll) => ({ ...roll })),
    })
  }
  return (
    <>
      <Pick
        label={t('frame.wireKind')}
        value={choice.wireId}
        options={catalogue.wires.map((w) => ({ value: w.id, label: names.wire(w) }))}
        onChange={pickWire}
      />
      {gauges.length > 0 && <p className="-mt-1 text-[0.78125rem] text-slate">{listPlain(gauges)}</p>}
      {wire && !isString(wire) && (
        <ForceField
          label={t('frame.tension')}
          valueN={choice.tensionN}
          onChange={(tensionN) => onChange('tension', { tensionN })}
        />
      )}
      <OfferRows
        title={t('frame.rolls')}
        offers={rolls}
        most={MAX_ROLLS}
        next={{ lengthM: 100, price: 40 }}
        onChange={(what, next) => onChange(what, { rolls: [...next] })}
      />
    </>
  )
}

function WorkingLengths({ gardenId, design, onChange }: InputsProps) {
  const { t } = useTranslation()
  const wire = findWire(useCatalogue(gardenId), design.wireId)
  return (
    <div className="grid grid-cols-2 items-end gap-2">
      <LengthField
        label={t('frame.handling')}
        minM={0.3}
        valueM={design.handlingLengthM}
        onChange={(handlingLengthM) => onChange('handling', { handlingLengthM })}
      />
      <LengthField
        label={t('frame.endWrap')}
        style="short"
        minM={0}
        maxM={2}
        valueM={design.endWrapM}
        onChange={(endWrapM) => onChange('wrap', { endWrapM })}
      />
      {wire && !isString(wire) && (
        <div className="col-span-2">
          <Pick
            label={t('frame.wireEnding')}
            value={design.wireEnding ?? 'usual'}
            options={[
              {
                value: 'usual',
                label: t('wireEnding.usual', { ending: t(`wireEnding.${endingOf(wire, null)}`) }),
              },
              ...wireEndings.map((value) => ({ value, label: t(`wireEnding.${value}`) })),
            ]}
            onChange={(value) =>
              onChange('wire ending', {
                wireEnding: wireEndings.find((one) => one === value) ?? null,
              })
            }
          />
        </div>
      )}
      {wire && !isString(wire) && (
        <TemperatureField
          label={t('frame.setC')}
          valueC={design.setC}
          onChange={(setC) => onChange('setC', { setC })}
        />
      )}
      {wire && !isString(wire) && (
        <NumberField
          label={t('frame.strainers')}
          value={design.strainers}
          min={1}
          max={MOST_STRAINERS}
          step={1}
          onChange={(strainers) => onChange('strainers', { strainers })}
        />
      )}
      <div className="col-span-2">
        <Choice
          label={t('frame.endsAt')}
          value={design.endsAt}
          options={(['any', 'edge'] as const).map((value) => ({
            value,
            label: t(`frame.endsAtOf.${value}`),
          }))}
          onChange={(endsAt) => onChange('ends at', { endsAt })}
        />
      </div>
    </div>
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
