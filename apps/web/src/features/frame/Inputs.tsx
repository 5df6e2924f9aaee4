import { findWire, isString } from '@klados/core/catalogue'
import type { WireChoice } from '@klados/core/design'
import type { FrameBody, PlaceBody } from '@klados/contract'
import { kindOf } from '@klados/core/frame'
import type { FrameNode, NodeId } from '@klados/core/frame'
import type { Point } from '@klados/core/geometry'
import { plantKinds } from '@klados/core/kinds'
import { nearestGauge } from '@klados/core/units'
import type { GaugeSystem } from '@klados/core/units'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useCatalogue } from '../../data/catalogue.ts'
import { useNames } from '../../plan/names.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { ForceField } from '../../ui/ForceField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { OfferRows } from '../../ui/OfferRows.tsx'
import { TemperatureField } from '../../ui/TemperatureField.tsx'
import type { Change } from './change.ts'
import { PatternInputs } from './PatternInputs.tsx'
import { RowEnds, RowWires } from './RowInputs.tsx'

interface InputsProps {
  readonly gardenId: string
  readonly place: PlaceBody
  readonly design: FrameBody['design']
  readonly name: string
  readonly onName: (name: string) => void
  readonly onChange: Change
  readonly canWrite: boolean
  readonly node: FrameNode | null
  readonly nodeId: string | null
  readonly onNode: (id: NodeId | null) => void
  readonly laid: readonly FrameNode[]
  readonly onStep: (by: number) => void
  readonly onMove: (id: string, at: Point) => void
  readonly onPutBack: (id: string) => void
}

/**
 * What one measures and decides, in that order: the pattern, the wire, the fixings and single nodes, what it
 * will carry.
 */
export function Inputs(props: InputsProps) {
  const { gardenId, place, design, onChange, canWrite } = props
  const wires = kindOf(design.pattern).wires(design.pattern)
  return (
    <fieldset
      disabled={!canWrite}
      className="grid min-w-0 gap-x-8 gap-y-5 sm:grid-cols-2 xl:grid-cols-3 lg:[&_:is(input,select,button)]:scroll-mt-[56vh]"
    >
      <Group title="pattern">
        <NameField name={props.name} onName={props.onName} />
        <PatternInputs
          gardenId={gardenId}
          place={place}
          pattern={design.pattern}
          nodeId={props.nodeId}
          onNode={props.onNode}
          laid={props.laid}
          onChange={(what, pattern) =>
            onChange(what, pattern.kind === design.pattern.kind ? { pattern } : { pattern, dragged: {} })
          }
        />
      </Group>
      {wires.includes('main') && (
        <Group title="wire">
          <WireInputs
            gardenId={gardenId}
            choice={design}
            onChange={(what, choice) => onChange(what, choice)}
          />
          <WorkingLengths {...props} />
        </Group>
      )}
      {wires.includes('light') && design.light && (
        <Group title="light">
          <WireInputs
            gardenId={gardenId}
            choice={design.light}
            onChange={(what, choice) => onChange(`light ${what}`, { light: { ...design.light!, ...choice } })}
          />
        </Group>
      )}
      <div className="flex min-w-0 flex-col gap-5">
        <Group title="carries">
          <LoadInputs {...props} />
          <FixingInputs {...props} />
        </Group>
        {design.pattern.kind === 'row' && (
          <Group title="ends">
            <RowEnds
              gardenId={gardenId}
              pattern={design.pattern}
              onChange={(what, pattern) => onChange(what, { pattern })}
            />
          </Group>
        )}
      </div>
      {design.pattern.kind === 'row' && (
        <Group title="levels" isWide>
          <RowWires pattern={design.pattern} onChange={(what, pattern) => onChange(what, { pattern })} />
        </Group>
      )}
    </fieldset>
  )
}

interface GroupProps {
  readonly title: 'pattern' | 'wire' | 'light' | 'carries' | 'levels' | 'ends'
  readonly isWide?: boolean
  readonly children: ReactNode
}

function Group({ title, isWide = false, children }: GroupProps) {
  const { t } = useTranslation()
  return (
    <section
      className={`flex min-w-0 flex-col gap-2 border-t border-faint pt-2 ${isWide ? 'sm:col-span-2' : ''}`}
    >
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
      {gauges.length > 0 && <p className="-mt-1 text-[12.5px] text-slate">{gauges.join(', ')}</p>}
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

function WorkingLengths({ design, onChange }: InputsProps) {
  const { t } = useTranslation()
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

/** What will hang on it, how warm it is on the day, and how many are built. */
function LoadInputs({ design, onChange }: InputsProps) {
  const { t } = useTranslation()
  return (
    <div className="grid grid-cols-2 items-end gap-2">
      <div className="col-span-2">
        <Pick
          label={t('frame.plantKind')}
          value={design.plantKindId ?? ''}
          options={[
            { value: '', label: t('frame.noPlant') },
            ...plantKinds.map((kind) => ({ value: kind.id, label: t(`kind.${kind.id}`) })),
          ]}
          onChange={(id) => onChange('plant', { plantKindId: id || null })}
        />
      </div>
      <TemperatureField
        label={t('frame.setC')}
        valueC={design.setC}
        onChange={(setC) => onChange('setC', { setC })}
      />
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

function FixingInputs({
  gardenId,
  place,
  design,
  onChange,
  node,
  nodeId,
  onStep,
  onMove,
  onPutBack,
}: InputsProps) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const names = useNames()
  const draggedCount = Object.keys(design.dragged).length
  const along = (xM: number) => (place.viewingEnd === 'left' ? xM : place.widthM - xM)
  const highestM = place.firstForkM + place.usableHeightM
  const isOnWall = place.surface !== 'open'
  const isRow = design.pattern.kind === 'row'
  if (!isOnWall && !isRow) return null
  const snaps = [
    ['none'],
    place.uprights ? ['uprights'] : [],
    place.levels ? ['levels'] : [],
    place.uprights && place.levels ? ['both'] : [],
  ].flat() as FrameBody['design']['snap'][]
  const postXM = nodeId !== null && design.dragged[nodeId]?.xM
  return (
    <>
      {isOnWall && (
        <Pick
          label={t('frame.fixing')}
          value={design.fixingId}
          options={catalogue.fixings.map((f) => ({ value: f.id, label: names.fixing(f) }))}
          onChange={(fixingId) => onChange('fixing', { fixingId })}
        />
      )}
      <LengthField
        label={t(isRow ? 'frame.postTolerance' : 'frame.tolerance')}
        style="short"
        minM={0}
        maxM={2}
        valueM={design.moveToleranceM}
        onChange={(moveToleranceM) => onChange('tolerance', { moveToleranceM })}
      />
      {isOnWall && snaps.length > 1 && (
        <Choice
          label={t('frame.snap')}
          value={design.snap}
          options={snaps.map((value) => ({ value, label: t(`frame.snaps.${value}`) }))}
          onChange={(snap) => onChange('snap', { snap })}
        />
      )}
      {isOnWall && (
        <div className="mt-1 flex flex-wrap items-center gap-2">
          <h3 className="mr-auto font-semibold">
            {node ? t('frame.nodeNumber', { n: node.number }) : t('frame.group.node')}
          </h3>
          <button type="button" className="btn" onClick={() => onStep(-1)}>
            {t('frame.previous')}
          </button>
          <button type="button" className="btn" onClick={() => onStep(1)}>
            {t('frame.next')}
          </button>
        </div>
      )}
      {isOnWall && node && (
        <div className="grid grid-cols-2 gap-2">
          <LengthField
            key={`${node.id} along`}
            label={t('frame.nodeAlong', { end: t(`place.${place.viewingEnd}`) })}
            style="short"
            minM={0}
            maxM={place.widthM}
            valueM={along(node.at.xM)}
            onChange={(m) => onMove(node.id, { xM: along(m), yM: node.at.yM })}
          />
          <LengthField
            key={`${node.id} height`}
            label={t('frame.nodeHeight')}
            style="short"
            minM={0}
            maxM={highestM}
            valueM={node.at.yM}
            onChange={(yM) => onMove(node.id, { xM: node.at.xM, yM })}
          />
          {node.state === 'dragged' && (
            <button type="button" className="btn" onClick={() => onPutBack(node.id)}>
              {t('frame.putBack')}
            </button>
          )}
        </div>
      )}
      {isOnWall && !node && <p className="text-[12.5px] text-slate">{t('frame.chooseNode')}</p>}
      {isRow && <p className="text-[12.5px] text-slate">{t('frame.choosePost')}</p>}
      {isRow && nodeId !== null && postXM !== false && postXM !== undefined && (
        <div className="grid grid-cols-2 items-end gap-2">
          <LengthField
            key={nodeId}
            label={t('frame.postAlong')}
            minM={0}
            maxM={place.widthM}
            valueM={along(postXM)}
            onChange={(m) => onMove(nodeId, { xM: along(m), yM: 0 })}
          />
          <button type="button" className="btn" onClick={() => onPutBack(nodeId)}>
            {t('frame.putBack')}
          </button>
        </div>
      )}
      {draggedCount > 0 && (
        <button
          type="button"
          className="btn btn-plain self-start px-0"
          onClick={() => onChange('put all back', { dragged: {} })}
        >
          {t('frame.putAllBack', { count: draggedCount })}
        </button>
      )}
    </>
  )
}
