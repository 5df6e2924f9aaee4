import { MOST_STRAINERS, endingOf, findWire, isString, wireEndings } from '@klados/core/catalogue'
import type { WireChoice } from '@klados/core/design'
import type { FrameBody } from '@klados/contract'
import { nearestGauge } from '@klados/core/units'
import type { GaugeSystem } from '@klados/core/units'
import { listPlain } from '../../i18n/language.ts'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import { useNames } from '../../plan/names.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { ForceField } from '../../ui/ForceField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { OfferRows } from '../../ui/OfferRows.tsx'
import { TemperatureField } from '../../ui/TemperatureField.tsx'
import type { InputsProps } from './inputs-props.ts'

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

/** The wire, what it is set to, and the rolls that it comes from. */
export function WireInputs({ gardenId, choice, onChange }: WireInputsProps) {
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

/** How wire is handled, ended, strained and on what day. */
export function WorkingLengths({ gardenId, design, onChange }: InputsProps) {
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
