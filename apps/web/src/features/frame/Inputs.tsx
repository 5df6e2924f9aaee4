import type { FrameBody, PlaceBody } from '@klados/contract'
import type { FrameNode } from '@klados/core/frame'
import type { Point } from '@klados/core/geometry'
import { findWire, fixings, wires } from '@klados/core/materials'
import { nearestGauge } from '@klados/core/units'
import type { GaugeSystem } from '@klados/core/units'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Pick } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { ForceField } from '../../ui/ForceField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import type { Change } from './change.ts'
import { PatternInputs } from './PatternInputs.tsx'

interface InputsProps {
  readonly place: PlaceBody
  readonly design: FrameBody['design']
  readonly name: string
  readonly onName: (name: string) => void
  readonly onChange: Change
  readonly canWrite: boolean
  readonly node: FrameNode | null
  readonly onStep: (by: number) => void
  readonly onMove: (id: string, at: Point) => void
  readonly onPutBack: (id: string) => void
}

/** What one measures and decides, in that order: the pattern, the wire, the fixings, single nodes. */
export function Inputs(props: InputsProps) {
  const { place, design, onChange, canWrite } = props
  return (
    <fieldset disabled={!canWrite} className="grid min-w-0 gap-x-8 gap-y-5 sm:grid-cols-2 xl:grid-cols-3">
      <Group title="pattern">
        <NameField name={props.name} onName={props.onName} />
        <PatternInputs place={place} pattern={design.pattern} onChange={(what, pattern) => onChange(what, { pattern, dragged: {} })} />
      </Group>
      <Group title="wire">
        <WireInputs design={design} onChange={onChange} />
      </Group>
      <Group title="fixing">
        <FixingInputs {...props} />
      </Group>
    </fieldset>
  ) // prettier-ignore
}

function Group({ title, children }: { title: 'pattern' | 'wire' | 'fixing'; children: ReactNode }) {
  const { t } = useTranslation()
  return (
    <section className="flex min-w-0 flex-col gap-2 border-t border-faint pt-2">
      <h2>{t(`frame.group.${title}`)}</h2>
      {children}
    </section>
  )
}

function NameField({ name, onName }: { name: string; onName: (name: string) => void }) {
  const { t } = useTranslation()
  return (
    <Field label={t('frame.frameName')} error={name.trim() === '' ? t('account.required') : undefined}>
      {(ids) => (
        <input
          {...ids}
          className="input"
          value={name}
          maxLength={80}
          onChange={(e) => onName(e.target.value)}
        />
      )}
    </Field>
  )
}

const GAUGE_SYSTEMS: readonly GaugeSystem[] = ['steelWireGauge', 'AWG', 'SWG']
/** Diameters this near to a gauge are called by it. */
const GAUGE_MM = 0.06

function WireInputs({ design, onChange }: { design: FrameBody['design']; onChange: Change }) {
  const { t } = useTranslation()
  const wire = findWire(design.wireId)
  const gauges = GAUGE_SYSTEMS.flatMap((system) => {
    const near = wire ? nearestGauge(system, wire.diameterMm) : null
    return near && Math.abs(near.differenceMm) <= GAUGE_MM
      ? [t('frame.gauge', { gauge: near.gauge, system: t(`frame.gaugeSystem.${system}`) })]
      : []
  })
  const pickWire = (id: string) => {
    const next = findWire(id)!
    onChange('wire', {
      wireId: id,
      tensionN: next.usualTensionN,
      rolls: next.rolls.map((roll) => ({ ...roll })),
    })
  }
  const setRoll = (at: number, part: Partial<FrameBody['design']['rolls'][number]>) =>
    onChange(`roll ${at}`, { rolls: design.rolls.map((roll, i) => (i === at ? { ...roll, ...part } : roll)) })
  return (
    <>
      <Pick label={t('frame.wireKind')} value={design.wireId} options={wires.map((w) => ({ value: w.id, label: t(`frame.wireName.${w.id}`) }))} onChange={pickWire} />
      {gauges.length > 0 && <p className="-mt-1 text-[12.5px] text-slate">{gauges.join(', ')}</p>}
      <div className="grid grid-cols-2 gap-2">
        <ForceField label={t('frame.tension')} valueN={design.tensionN} onChange={(tensionN) => onChange('tension', { tensionN })} />
        <LengthField label={t('frame.endWrap')} style="short" minM={0} maxM={2} valueM={design.endWrapM} onChange={(endWrapM) => onChange('wrap', { endWrapM })} />
      </div>
      <LengthField label={t('frame.handling')} minM={0.3} valueM={design.handlingLengthM} onChange={(handlingLengthM) => onChange('handling', { handlingLengthM })} />
      <fieldset className="flex flex-col gap-1">
        <legend className="text-[13px] text-slate">{t('frame.rolls')}</legend>
        {design.rolls.map((roll, i) => (
          <div key={i} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
            <LengthField label={t('frame.rollLength')} valueM={roll.lengthM} onChange={(lengthM) => setRoll(i, { lengthM })} />
            <Field label={t('frame.rollPrice')}>
              {(ids) => <input {...ids} className="input" type="number" min={0} step="0.01" value={roll.price} onChange={(e) => setRoll(i, { price: Math.max(0, Number(e.target.value)) })} />}
            </Field>
            <button type="button" className="btn" disabled={design.rolls.length === 1} aria-label={t('frame.removeRoll')} onClick={() => onChange('roll away', { rolls: design.rolls.filter((_, other) => other !== i) })}>×</button>
          </div>
        ))}
        {design.rolls.length < 6 && (
          <button type="button" className="btn btn-plain self-start px-0" onClick={() => onChange('roll new', { rolls: [...design.rolls, { lengthM: 100, price: 40 }] })}>{t('frame.addRoll')}</button>
        )}
      </fieldset>
    </>
  ) // prettier-ignore
}

function FixingInputs({ place, design, onChange, node, onStep, onMove, onPutBack }: InputsProps) {
  const { t } = useTranslation()
  const draggedCount = Object.keys(design.dragged).length
  const along = (xM: number) => (place.viewingEnd === 'left' ? xM : place.widthM - xM)
  const highestM = place.firstForkM + place.usableHeightM
  return (
    <>
      <Pick label={t('frame.fixing')} value={design.fixingId} options={fixings.map((f) => ({ value: f.id, label: t(`frame.fixingName.${f.id}`) }))} onChange={(fixingId) => onChange('fixing', { fixingId })} />
      <LengthField label={t('frame.tolerance')} style="short" minM={0} maxM={2} valueM={design.moveToleranceM} onChange={(moveToleranceM) => onChange('tolerance', { moveToleranceM })} />
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <h3 className="mr-auto font-semibold">{node ? t('frame.nodeNumber', { n: node.number }) : t('frame.group.node')}</h3>
        <button type="button" className="btn" onClick={() => onStep(-1)}>{t('frame.previous')}</button>
        <button type="button" className="btn" onClick={() => onStep(1)}>{t('frame.next')}</button>
      </div>
      {node ? (
        <div className="grid grid-cols-2 gap-2">
          <LengthField key={`${node.id} along`} label={t('frame.nodeAlong', { end: t(`place.${place.viewingEnd}`) })} style="short" minM={0} maxM={place.widthM} valueM={along(node.at.xM)} onChange={(m) => onMove(node.id, { xM: along(m), yM: node.at.yM })} />
          <LengthField key={`${node.id} height`} label={t('frame.nodeHeight')} style="short" minM={0} maxM={highestM} valueM={node.at.yM} onChange={(yM) => onMove(node.id, { xM: node.at.xM, yM })} />
          {node.state === 'dragged' && (
            <button type="button" className="btn" onClick={() => onPutBack(node.id)}>{t('frame.putBack')}</button>
          )}
        </div>
      ) : (
        <p className="text-[12.5px] text-slate">{t('frame.chooseNode')}</p>
      )}
      {draggedCount > 0 && (
        <button type="button" className="btn btn-plain self-start px-0" onClick={() => onChange('put all back', { dragged: {} })}>{t('frame.putAllBack', { count: draggedCount })}</button>
      )}
    </>
  ) // prettier-ignore
}
