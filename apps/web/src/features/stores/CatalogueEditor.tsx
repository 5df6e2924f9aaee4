import type { Catalogue, WireMaterial } from '@klados/core/materials'
import { roundWire, wireMaterials } from '@klados/core/materials'
import { gaugeToDiameterMm } from '@klados/core/units'
import type { GaugeSystem } from '@klados/core/units'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { useNames } from '../../plan/names.ts'
import { Choice, Pick } from '../../ui/Choice.tsx'
import { Field } from '../../ui/Field.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useUnits } from '../../ui/units.tsx'
import { download } from '../../ui/download.ts'
import { catalogueCsv } from '@klados/core/formats'
import { Message } from '../../ui/Message.tsx'

interface CatalogueEditorProps {
  readonly catalogue: Catalogue
  readonly isOwn: boolean
  readonly currency: string
  readonly canWrite: boolean
  readonly onChange: (catalogue: Catalogue | null) => void
}

type Listed = 'wires' | 'stock'

/** The garden's own catalogue: prices and rates to correct, wires to add; everything that ships is there to begin with. */
export function CatalogueEditor({ catalogue, isOwn, currency, canWrite, onChange }: CatalogueEditorProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const [news, setNews] = useState<string | null>(null)
  const setOffer = (list: Listed, id: string, at: number, price: number) =>
    onChange({ ...catalogue, [list]: catalogue[list].map((one) => (one.id === id ? ('rolls' in one ? { ...one, rolls: priced(one.rolls, at, price) } : { ...one, lengths: priced(one.lengths, at, price) }) : one)) })
  const setPrice = (list: 'fixings' | 'screws' | 'goods', id: string, price: number) => onChange({ ...catalogue, [list]: catalogue[list].map((one) => (one.id === id ? { ...one, price } : one)) })
  const takePrices = async (file: File | undefined) => {
    if (!file) return
    const { readPrices } = await import('../../documents/prices-csv.ts')
    const { catalogue: next, changed, unknown } = readPrices(await file.text(), catalogue)
    if (changed > 0) onChange(next)
    setNews(t('catalogue.imported', { count: changed, unknown }))
  }
  return (
    <fieldset disabled={!canWrite} className="flex max-w-4xl flex-col gap-5">
      <div className="flex flex-wrap items-center gap-4">
        <p className="flex-1 text-slate">{t('catalogue.intro', { currency })}</p>
        <button type="button" className="btn" onClick={() => download('catalogue.csv', 'text/csv', catalogueCsv(catalogue, currency, names))}>{t('catalogue.csv')}</button>
        {canWrite && <label className="btn cursor-pointer">{t('catalogue.import')}<input type="file" className="sr-only" accept=".csv,text/csv" onChange={(event) => void takePrices(event.target.files?.[0])} /></label>}
        {isOwn && canWrite && <button type="button" className="btn btn-plain" onClick={() => onChange(null)}>{t('catalogue.reset')}</button>}
      </div>
      {news && <Message tone="plain">{news}</Message>}
      <Section title={t('catalogue.wires')}>
        {catalogue.wires.map((wire) => (
          <li key={wire.id} className="grid grid-cols-[minmax(0,1fr)_repeat(2,120px)_auto] items-end gap-3 border-b border-dotted border-faint pb-2">
            <span className="pb-1">{names.wire(wire)}<br /><span className="text-[12.5px] text-slate">{t('catalogue.wireFigures', { breaking: units.force(wire.breakingLoadN), share: Math.round(wire.workingShare * 100), life: wire.lifeYears })}</span></span>
            {wire.rolls.slice(0, 2).map((roll, i) => <NumberField key={i} label={units.length(roll.lengthM)} value={roll.price} min={0} max={1e6} step={0.01} onChange={(price) => setOffer('wires', wire.id, i, price)} />)}
            {wire.rolls.length < 2 && <span />}
            {wire.name !== null ? <button type="button" className="btn" aria-label={t('catalogue.removeWire', { name: wire.name })} onClick={() => onChange({ ...catalogue, wires: catalogue.wires.filter((one) => one.id !== wire.id) })}>×</button> : <span />}
          </li>
        ))}
      </Section>
      {canWrite && <AddWire onAdd={(wire) => onChange({ ...catalogue, wires: [...catalogue.wires, wire] })} />}
      <Section title={t('catalogue.stock')}>
        {catalogue.stock.map((stock) => (
          <li key={stock.id} className="flex flex-wrap items-end gap-3 border-b border-dotted border-faint pb-2">
            <span className="w-64 pb-1">{names.stock(stock)}</span>
            {stock.lengths.map((length, i) => <span key={i} className="w-24"><NumberField label={units.length(length.lengthM)} value={length.price} min={0} max={1e6} step={0.01} onChange={(price) => setOffer('stock', stock.id, i, price)} /></span>)}
          </li>
        ))}
      </Section>
      <Section title={t('catalogue.fixings')}>
        {catalogue.fixings.map((fixing) => <PriceLine key={fixing.id} name={names.fixing(fixing)} price={fixing.price} onPrice={(price) => setPrice('fixings', fixing.id, price)} />)}
        {catalogue.screws.map((screw) => <PriceLine key={screw.id} name={names.screw(screw)} price={screw.price} onPrice={(price) => setPrice('screws', screw.id, price)} />)}
        {catalogue.goods.map((good) => <PriceLine key={good.id} name={`${names.good(good.id)}, ${t(`catalogue.per.${good.unit}`)}`} price={good.price} onPrice={(price) => setPrice('goods', good.id, price)} />)}
      </Section>
      <Section title={t('catalogue.rates')}>
        {Object.entries(catalogue.rates).map(([key, minutes]) => <PriceLine key={key} name={t(`rate.${key}`)} price={minutes} onPrice={(next) => onChange({ ...catalogue, rates: { ...catalogue.rates, [key]: next } })} />)}
      </Section>
    </fieldset>
  )
} // prettier-ignore

const priced = <T extends { readonly price: number }>(offers: readonly T[], at: number, price: number): T[] => offers.map((offer, i) => (i === at ? { ...offer, price } : offer)) // prettier-ignore

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section>
      <h2 className="mb-2">{title}</h2>
      <ul className="flex flex-col gap-2">{children}</ul>
    </section>
  )
}

function PriceLine({
  name,
  price,
  onPrice,
}: {
  name: string
  price: number
  onPrice: (price: number) => void
}) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_130px] items-end gap-3 border-b border-dotted border-faint pb-1">
      <span className="pb-1.5" aria-hidden="true">{name}</span>
      <NumberField label={name} value={price} min={0} max={1e6} step={0.01} onChange={onPrice} />
    </li>
  ) // prettier-ignore
}

const SYSTEMS = ['mm', 'AWG', 'SWG', 'steelWireGauge'] as const

/** A wire of one's own: by diameter, or by a gauge of which one has to say the system. */
function AddWire({ onAdd }: { onAdd: (wire: Catalogue['wires'][number]) => void }) {
  const { t } = useTranslation()
  const [name, setName] = useState('')
  const [material, setMaterial] = useState<WireMaterial>('high-tensile')
  const [system, setSystem] = useState<(typeof SYSTEMS)[number]>('mm')
  const [size, setSize] = useState(2.5)
  const [lengthM, setLengthM] = useState(100)
  const [price, setPrice] = useState(25)
  const diameterMm = system === 'mm' ? size : gaugeDiameter(system, size)
  const add = () => {
    if (diameterMm === null || name.trim() === '') return
    const usualTensionN = Math.round(
      0.2 * (Math.PI / 4) * diameterMm ** 2 * wireMaterials[material].strengthMPa,
    )
    onAdd({
      ...roundWire(`own-${uuidv7().slice(-12)}`, material, diameterMm, {
        usualTensionN: Math.max(10, usualTensionN),
        rolls: [{ lengthM, price }],
      }),
      name: name.trim(),
    })
    setName('')
  }
  return (
    <form className="flex flex-col gap-2 border-t border-faint pt-3" onSubmit={(event) => { event.preventDefault(); add() }}>
      <h3 className="font-semibold">{t('catalogue.addWire')}</h3>
      <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-3">
        <Field label={t('catalogue.name')}>{(ids) => <input {...ids} className="input" value={name} maxLength={80} onChange={(event) => setName(event.target.value)} />}</Field>
        <Pick label={t('catalogue.material')} value={material} options={Object.keys(wireMaterials).map((value) => ({ value, label: t(`wireMaterial.${value}`) }))} onChange={(value) => setMaterial(value as WireMaterial)} />
        <div className="col-span-2 sm:col-span-3"><Choice label={t('catalogue.sizeBy')} value={system} options={SYSTEMS.map((value) => ({ value, label: t(`catalogue.size.${value}`) }))} onChange={setSystem} /></div>
        <NumberField label={t(system === 'mm' ? 'catalogue.diameter' : 'catalogue.gauge')} value={size} min={0} max={50} step={system === 'mm' ? 0.01 : 1} hint={diameterMm === null ? t('catalogue.noGauge') : t('catalogue.isMm', { mm: diameterMm.toFixed(2) })} onChange={setSize} />
        <NumberField label={t('catalogue.rollM')} value={lengthM} min={1} max={5000} step={0.1} onChange={setLengthM} />
        <NumberField label={t('frame.rollPrice')} value={price} min={0} max={1e6} step={0.01} onChange={setPrice} />
      </div>
      <button type="submit" className="btn self-start" disabled={name.trim() === '' || diameterMm === null}>{t('catalogue.add')}</button>
    </form>
  ) // prettier-ignore
}

function gaugeDiameter(system: GaugeSystem, gauge: number): number | null {
  try {
    return gaugeToDiameterMm(system, gauge)
  } catch {
    return null
  }
}
