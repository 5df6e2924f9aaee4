import type { Fixing, Section, Stock, StockMaterial, Wire, WireMaterial } from '@klados/core/catalogue'
import { roundWire, stockMaterials, wireMaterials } from '@klados/core/catalogue'
import { gaugeToDiameterMm } from '@klados/core/units'
import type { GaugeSystem } from '@klados/core/units'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { keysOf } from '../../ui/keys-of.ts'
import { NumberField } from '../../ui/NumberField.tsx'
import { OfferRows } from '../../ui/OfferRows.tsx'
import type { Offer } from '../../ui/OfferRows.tsx'

const ownId = () => `own-${uuidv7().slice(-12)}`

interface AddFormProps {
  readonly title: 'addWire' | 'addStock' | 'addFixing'
  readonly isReady: boolean
  /** With the name that was given to it. */
  readonly onAdd: (name: string) => void
  readonly children: ReactNode
}

/** Folded away until it is wanted: a name, what one measures, and the button. */
function AddForm({ title, isReady, onAdd, children }: AddFormProps) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const canAdd = isReady && name.trim() !== ''
  const submit = (event: React.FormEvent) => {
    event.preventDefault()
    if (!canAdd) return
    onAdd(name.trim())
    setName('')
  }
  return (
    <details>
      <summary className="font-semibold">{t(`catalogue.${title}`)}</summary>
      <form className="mt-2 flex flex-col gap-2" onSubmit={submit}>
        <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-3">
          <Field label={t('catalogue.name')}>
            {(ids) => (
              <input
                {...ids}
                className="input"
                value={name}
                maxLength={80}
                onChange={(event) => setName(event.target.value)}
              />
            )}
          </Field>
          {children}
        </div>
        <button type="submit" className="btn self-start" disabled={!canAdd}>
          {t('catalogue.add')}
        </button>
      </form>
    </details>
  )
}

const SYSTEMS = ['mm', 'AWG', 'SWG', 'steelWireGauge'] as const
/** What it is first set to: a share of the strength of its material. */
const USUAL_TENSION_SHARE = 0.2

/** A wire of one's own: by diameter, or by a gauge of which one has to say the system. */
export function AddWire({ onAdd }: { onAdd: (wire: Wire) => void }) {
  const { t } = useTranslation()
  const [material, setMaterial] = useState<WireMaterial>('high-tensile')
  const [system, setSystem] = useState<(typeof SYSTEMS)[number]>('mm')
  const [size, setSize] = useState(2.5)
  const [rolls, setRolls] = useState<readonly Offer[]>([{ lengthM: 100, price: 25 }])
  const diameterMm = system === 'mm' ? size : gaugeDiameter(system, size)
  const add = (name: string) => {
    if (diameterMm === null) return
    const strengthN = (Math.PI / 4) * diameterMm ** 2 * wireMaterials[material].strengthMPa
    const usualTensionN = Math.max(10, Math.round(USUAL_TENSION_SHARE * strengthN))
    onAdd({ ...roundWire(ownId(), material, diameterMm, { usualTensionN, rolls }), name })
  }
  return (
    <AddForm title="addWire" isReady={diameterMm !== null} onAdd={add}>
      <Pick
        label={t('catalogue.material')}
        value={material}
        options={keysOf(wireMaterials).map((value) => ({ value, label: t(`wireMaterial.${value}`) }))}
        onChange={(value) => setMaterial(value as WireMaterial)}
      />
      <div className="col-span-2 sm:col-span-3">
        <Choice
          label={t('catalogue.sizeBy')}
          value={system}
          options={SYSTEMS.map((value) => ({ value, label: t(`catalogue.size.${value}`) }))}
          onChange={setSystem}
        />
      </div>
      <NumberField
        label={t(system === 'mm' ? 'catalogue.diameter' : 'catalogue.gauge')}
        value={size}
        min={0}
        max={50}
        step={system === 'mm' ? 0.01 : 1}
        hint={
          diameterMm === null ? t('catalogue.noGauge') : t('catalogue.isMm', { mm: diameterMm.toFixed(2) })
        }
        onChange={setSize}
      />
      <div className="col-span-2">
        <OfferRows
          title={t('frame.rolls')}
          offers={rolls}
          most={6}
          next={rolls.at(-1)!}
          onChange={(_, next) => setRolls(next)}
        />
      </div>
    </AddForm>
  )
}

function gaugeDiameter(system: GaugeSystem, gauge: number): number | null {
  try {
    return gaugeToDiameterMm(system, gauge)
  } catch {
    return null
  }
}

const USES = ['post', 'beam', 'stake', 'bar', 'core'] as const
const SHAPES = ['round', 'tube', 'rectangle'] as const

/** A post, stake, bar or beam of one's own, strong as its material and section make it. */
export function AddStock({ onAdd }: { onAdd: (stock: Stock) => void }) {
  const { t } = useTranslation()
  const [use, setUse] = useState<Stock['use']>('post')
  const [material, setMaterial] = useState<StockMaterial>('softwood')
  const [shape, setShape] = useState<Section['shape']>('round')
  const [wideMm, setWideMm] = useState(90)
  const [otherMm, setOtherMm] = useState(3)
  const [lifeYears, setLifeYears] = useState(15)
  const [lengths, setLengths] = useState<readonly Offer[]>([{ lengthM: 2.4, price: 10 }])
  const section: Section =
    shape === 'round'
      ? { shape, diameterMm: wideMm }
      : shape === 'tube'
        ? { shape, diameterMm: wideMm, wallMm: otherMm }
        : { shape, widthMm: wideMm, depthMm: otherMm }
  const isSound =
    wideMm > 0 && (shape === 'round' || otherMm > 0) && (shape !== 'tube' || 2 * otherMm < wideMm)
  return (
    <AddForm
      title="addStock"
      isReady={isSound}
      onAdd={(name) => onAdd({ id: ownId(), name, use, material, section, lifeYears, lengths })}
    >
      <Pick
        label={t('catalogue.use')}
        value={use}
        options={USES.map((value) => ({ value, label: t(`catalogue.uses.${value}`) }))}
        onChange={(value) => setUse(value as Stock['use'])}
      />
      <Pick
        label={t('catalogue.material')}
        value={material}
        options={keysOf(stockMaterials).map((value) => ({ value, label: t(`stockMaterial.${value}`) }))}
        onChange={(value) => setMaterial(value as StockMaterial)}
      />
      <div className="col-span-2 sm:col-span-3">
        <Choice
          label={t('catalogue.section')}
          value={shape}
          options={SHAPES.map((value) => ({ value, label: t(`catalogue.sections.${value}`) }))}
          onChange={setShape}
        />
      </div>
      <NumberField
        label={t(shape === 'rectangle' ? 'catalogue.widthMm' : 'catalogue.diameter')}
        value={wideMm}
        min={1}
        max={1000}
        step={0.1}
        onChange={setWideMm}
      />
      {shape !== 'round' && (
        <NumberField
          label={t(shape === 'tube' ? 'catalogue.wallMm' : 'catalogue.depthMm')}
          value={otherMm}
          min={0.5}
          max={1000}
          step={0.1}
          hint={isSound ? undefined : t('catalogue.wallTooThick')}
          onChange={setOtherMm}
        />
      )}
      <NumberField
        label={t('catalogue.lifeYears')}
        value={lifeYears}
        min={1}
        max={200}
        step={1}
        onChange={setLifeYears}
      />
      <div className="col-span-2">
        <OfferRows
          title={t('catalogue.soldIn')}
          offers={lengths}
          most={8}
          next={lengths.at(-1)!}
          onChange={(_, next) => setLengths(next)}
        />
      </div>
    </AddForm>
  )
}

/**
 * Plugs hold in full so far apart and from an edge: a hundredth of their width in millimetres, as for those
 * that ship.
 */
const FULL_SPACING_M_PER_MM = 0.01
const FIRST_FIXING = {
  threadMm: 6,
  lengthMm: 120,
  standOffMm: 60,
  woodPilotMm: 4,
  plugMm: 8,
  plugRatedN: 600,
  price: 2,
}

/** A screw eye or hook of one's own, with the plug that its packet names. */
export function AddFixing({ onAdd }: { onAdd: (fixing: Fixing) => void }) {
  const { t } = useTranslation()
  const [of, setOf] = useState(FIRST_FIXING)
  const add = (name: string) => {
    const { standOffMm, ...rest } = of
    const fullM = of.plugMm * FULL_SPACING_M_PER_MM
    onAdd({
      ...rest,
      id: ownId(),
      name,
      standOffM: standOffMm / 1000,
      plugFullSpacingM: fullM,
      plugFullEdgeM: fullM,
    })
  }
  const field = (key: keyof typeof FIRST_FIXING, max: number, step = 0.1) => (
    <NumberField
      label={t(`catalogue.fixing.${key}`)}
      value={of[key]}
      min={key === 'price' ? 0 : 0.5}
      max={max}
      step={step}
      onChange={(value) => setOf({ ...of, [key]: value })}
    />
  )
  return (
    <AddForm title="addFixing" isReady onAdd={add}>
      {field('threadMm', 50)}
      {field('lengthMm', 1000)}
      {field('standOffMm', 1000)}
      {field('woodPilotMm', 50)}
      {field('plugMm', 50)}
      {field('plugRatedN', 50_000, 1)}
      {field('price', 1e6, 0.01)}
    </AddForm>
  )
}
