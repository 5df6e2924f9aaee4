import { formatNumber } from '../../i18n/language.ts'
import type { Fixing, Section, Stock, StockMaterial, Wire, WireMaterial } from '@klados/core/catalogue'
import { roundWire, stockMaterials, wireMaterials } from '@klados/core/catalogue'
import { gaugeToDiameterMm } from '@klados/core/units'
import type { GaugeSystem } from '@klados/core/units'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { keysOf } from '../../ui/keys-of.ts'
import { ForceField } from '../../ui/ForceField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { OfferRows } from '../../ui/OfferRows.tsx'
import type { Offer } from '../../ui/OfferRows.tsx'
import { TextField } from '../../ui/TextField.tsx'

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
          <TextField label={t('catalogue.name')} value={name} onChange={setName} />
          {children}
        </div>
        <button type="submit" className="btn self-start" disabled={!canAdd}>
          {t('catalogue.add')}
        </button>
      </form>
    </details>
  )
}

const MM_PER_M = 1000
/** Thinner than this is nothing that one buys. */
const LEAST_MM = 0.5
/** As fine as a calliper reads. */
const roundMm = (metres: number) => Math.round(metres * MM_PER_M * 100) / 100

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
          diameterMm === null
            ? t('catalogue.noGauge')
            : t('catalogue.isMm', { mm: formatNumber(diameterMm, 2) })
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
      <LengthField
        label={t(shape === 'rectangle' ? 'catalogue.widthMm' : 'catalogue.diameter')}
        style="fine"
        valueM={wideMm / MM_PER_M}
        minM={1 / MM_PER_M}
        maxM={1}
        onChange={(metres) => setWideMm(roundMm(metres))}
      />
      {shape !== 'round' && (
        <LengthField
          label={t(shape === 'tube' ? 'catalogue.wallMm' : 'catalogue.depthMm')}
          style="fine"
          valueM={otherMm / MM_PER_M}
          minM={LEAST_MM / MM_PER_M}
          maxM={1}
          hint={isSound ? undefined : t('catalogue.wallTooThick')}
          onChange={(metres) => setOtherMm(roundMm(metres))}
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
  const size = (key: 'threadMm' | 'lengthMm' | 'standOffMm' | 'woodPilotMm' | 'plugMm', maxMm: number) => (
    <LengthField
      label={t(`catalogue.fixing.${key}`)}
      style="fine"
      valueM={of[key] / MM_PER_M}
      minM={LEAST_MM / MM_PER_M}
      maxM={maxMm / MM_PER_M}
      onChange={(metres) => setOf({ ...of, [key]: roundMm(metres) })}
    />
  )
  return (
    <AddForm title="addFixing" isReady onAdd={add}>
      {size('threadMm', 50)}
      {size('lengthMm', 1000)}
      {size('standOffMm', 1000)}
      {size('woodPilotMm', 50)}
      {size('plugMm', 50)}
      <ForceField
        label={t('catalogue.fixing.plugRatedN')}
        valueN={of.plugRatedN}
        onChange={(plugRatedN) => setOf({ ...of, plugRatedN: Math.round(plugRatedN) })}
      />
      <NumberField
        label={t('catalogue.fixing.price')}
        value={of.price}
        min={0}
        max={1e6}
        step={0.01}
        onChange={(price) => setOf({ ...of, price })}
      />
    </AddForm>
  )
}
