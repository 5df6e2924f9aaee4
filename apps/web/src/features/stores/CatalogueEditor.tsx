import type { Catalogue } from '@klados/core/catalogue'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useNames } from '../../plan/names.ts'
import { keysOf } from '../../ui/keys-of.ts'
import { NumberField } from '../../ui/NumberField.tsx'
import { useUnits } from '../../ui/units.tsx'
import { download } from '../../ui/download.ts'
import { catalogueCsv } from '@klados/core/formats'
import { readSmall } from '../../ui/read-small.ts'
import { Message } from '../../ui/Message.tsx'
import { AddFixing, AddStock, AddWire } from './AddOwn.tsx'

interface CatalogueEditorProps {
  readonly catalogue: Catalogue
  readonly isOwn: boolean
  readonly currency: string
  readonly canWrite: boolean
  readonly onChange: (catalogue: Catalogue | null) => void
}

type Listed = 'wires' | 'stock'
type Priced = 'fixings' | 'screws' | 'goods' | 'ties'

/**
 * The garden's own catalogue: prices and rates to correct, wires to add; everything that ships is there to
 * begin with.
 */
export function CatalogueEditor({ catalogue, isOwn, currency, canWrite, onChange }: CatalogueEditorProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const { setOffer, setPrice, remove } = editsOf(catalogue, onChange)
  return (
    <fieldset disabled={!canWrite} className="flex max-w-4xl flex-col gap-5">
      <CatalogueFiles
        catalogue={catalogue}
        isOwn={isOwn}
        currency={currency}
        canWrite={canWrite}
        onChange={onChange}
      />
      <Section title={t('catalogue.wires')}>
        {catalogue.wires.map((wire) => (
          <li key={wire.id} className={LINE}>
            <span className="w-full pb-1 sm:w-auto sm:flex-1">
              {names.wire(wire)}
              <br />
              <span className="text-[0.78125rem] text-slate">
                {t('catalogue.wireFigures', {
                  breaking: units.force(wire.breakingLoadN),
                  share: Math.round(wire.workingShare * 100),
                  count: wire.lifeYears,
                })}
              </span>
            </span>
            <Offers offers={wire.rolls} onPrice={(i, price) => setOffer('wires', wire.id, i, price)} />
            <Remove name={wire.name} onRemove={() => remove('wires', wire.id)} />
          </li>
        ))}
      </Section>
      {canWrite && (
        <AddWire onAdd={(wire) => onChange({ ...catalogue, wires: [...catalogue.wires, wire] })} />
      )}
      <Section title={t('catalogue.stock')}>
        {catalogue.stock.map((stock) => (
          <li key={stock.id} className={LINE}>
            <span className="w-full pb-1 sm:w-auto sm:flex-1">{names.stock(stock)}</span>
            <Offers offers={stock.lengths} onPrice={(i, price) => setOffer('stock', stock.id, i, price)} />
            <Remove name={stock.name} onRemove={() => remove('stock', stock.id)} />
          </li>
        ))}
      </Section>
      {canWrite && (
        <AddStock onAdd={(stock) => onChange({ ...catalogue, stock: [...catalogue.stock, stock] })} />
      )}
      <Section title={t('catalogue.fixings')}>
        {catalogue.fixings.map((fixing) => (
          <PriceLine
            key={fixing.id}
            name={names.fixing(fixing)}
            price={fixing.price}
            onPrice={(price) => setPrice('fixings', fixing.id, price)}
            {...(fixing.name === null ? {} : { onRemove: () => remove('fixings', fixing.id) })}
          />
        ))}
      </Section>
      {canWrite && (
        <AddFixing onAdd={(fixing) => onChange({ ...catalogue, fixings: [...catalogue.fixings, fixing] })} />
      )}
      <OtherPrices catalogue={catalogue} onPrice={setPrice} onChange={onChange} />
    </fieldset>
  )
}

/** Changes to a catalogue, each of which hands on the whole of it. */
function editsOf(catalogue: Catalogue, onChange: (catalogue: Catalogue) => void) {
  const setOffer = (list: Listed, id: string, at: number, price: number) =>
    onChange({
      ...catalogue,
      [list]: catalogue[list].map((one) =>
        one.id === id
          ? 'rolls' in one
            ? { ...one, rolls: priced(one.rolls, at, price) }
            : { ...one, lengths: priced(one.lengths, at, price) }
          : one,
      ),
    })
  const setPrice = (list: Priced, id: string, price: number) =>
    onChange({
      ...catalogue,
      [list]: catalogue[list].map((one) => (one.id === id ? { ...one, price } : one)),
    })
  const remove = (list: 'wires' | 'stock' | 'fixings', id: string) =>
    onChange({
      ...catalogue,
      [list]: (catalogue[list] as readonly { readonly id: string }[]).filter((one) => one.id !== id),
    })
  return { setOffer, setPrice, remove }
}

/** The catalogue as a table, out and in, and back to what ships. */
function CatalogueFiles({ catalogue, isOwn, currency, canWrite, onChange }: CatalogueEditorProps) {
  const { t } = useTranslation()
  const names = useNames()
  const [news, setNews] = useState<string | null>(null)
  const takePrices = async (file: File | undefined) => {
    if (!file) return
    const text = await readSmall(file)
    if (text === null) return setNews(t('app.tooLarge'))
    const { readPrices } = await import('../../documents/prices-csv.ts')
    const { catalogue: next, changed, unknown } = readPrices(text, catalogue)
    if (changed > 0) onChange(next)
    setNews(t('catalogue.imported', { count: changed, unknown }))
  }
  return (
    <>
      <div className="flex flex-wrap items-center gap-4">
        <p className="min-w-[min(16rem,100%)] flex-1 text-slate">{t('catalogue.intro', { currency })}</p>
        <button
          type="button"
          className="btn"
          onClick={() => download('catalogue.csv', 'text/csv', catalogueCsv(catalogue, currency, names))}
        >
          {t('catalogue.csv')}
        </button>
        {canWrite && (
          <label className="btn cursor-pointer">
            {t('catalogue.import')}
            <input
              type="file"
              className="sr-only"
              accept=".csv,text/csv"
              onChange={(event) => void takePrices(event.target.files?.[0])}
            />
          </label>
        )}
        {isOwn && canWrite && (
          <button type="button" className="btn btn-plain" onClick={() => onChange(null)}>
            {t('catalogue.reset')}
          </button>
        )}
      </div>
      {news && <Message tone="plain">{news}</Message>}
    </>
  )
}

interface OtherPricesProps {
  readonly catalogue: Catalogue
  readonly onPrice: (list: Priced, id: string, price: number) => void
  readonly onChange: (catalogue: Catalogue) => void
}

/** What is neither wire nor stock nor fixing: screws, goods, ties; and how long work takes. */
function OtherPrices({ catalogue, onPrice, onChange }: OtherPricesProps) {
  const { t } = useTranslation()
  const names = useNames()
  return (
    <>
      <Section title={t('catalogue.goods')}>
        {catalogue.screws.map((screw) => (
          <PriceLine
            key={screw.id}
            name={names.screw(screw)}
            price={screw.price}
            onPrice={(price) => onPrice('screws', screw.id, price)}
          />
        ))}
        {catalogue.goods.map((good) => (
          <PriceLine
            key={good.id}
            name={`${names.good(good.id)}, ${t(`catalogue.per.${good.unit}`)}`}
            price={good.price}
            onPrice={(price) => onPrice('goods', good.id, price)}
          />
        ))}
      </Section>
      <Section title={t('catalogue.ties')}>
        {catalogue.ties.map((tie) => (
          <PriceLine
            key={tie.id}
            name={`${names.tie(tie.id)}, ${t('catalogue.per.piece')}`}
            price={tie.price}
            onPrice={(price) => onPrice('ties', tie.id, price)}
          />
        ))}
      </Section>
      <Section title={t('catalogue.rates')}>
        {keysOf(catalogue.rates).map((key) => (
          <PriceLine
            key={key}
            name={t(`rate.${key}`)}
            price={catalogue.rates[key]}
            onPrice={(next) => onChange({ ...catalogue, rates: { ...catalogue.rates, [key]: next } })}
          />
        ))}
      </Section>
    </>
  )
}

const priced = <T extends { readonly price: number }>(offers: readonly T[], at: number, price: number): T[] =>
  offers.map((offer, i) => (i === at ? { ...offer, price } : offer))

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section>
      <h2 className="mb-2">{title}</h2>
      <ul className="flex flex-col gap-2">{children}</ul>
    </section>
  )
}

const LINE = 'flex flex-wrap items-end gap-x-3 gap-y-1 border-b border-dotted border-faint pb-2'

interface OffersProps {
  readonly offers: readonly { readonly lengthM: number; readonly price: number }[]
  readonly onPrice: (at: number, price: number) => void
}

/** The price of each length that it is sold in. */
function Offers({ offers, onPrice }: OffersProps) {
  const units = useUnits()
  return offers.map((offer, i) => (
    <span key={i} className="w-24">
      <NumberField
        label={units.length(offer.lengthM)}
        value={offer.price}
        min={0}
        max={1e6}
        step={0.01}
        onChange={(price) => onPrice(i, price)}
      />
    </span>
  ))
}

/** Only what the grower has added, and so named, can be taken away. */
function Remove({ name, onRemove }: { name: string | null; onRemove: () => void }) {
  const { t } = useTranslation()
  if (name === null) return null
  return (
    <button type="button" className="btn" aria-label={t('catalogue.remove', { name })} onClick={onRemove}>
      ×
    </button>
  )
}

interface PriceLineProps {
  readonly name: string
  readonly price: number
  readonly onPrice: (price: number) => void
  readonly onRemove?: () => void
}

function PriceLine({ name, price, onPrice, onRemove }: PriceLineProps) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_130px_auto] items-end gap-3 border-b border-dotted border-faint pb-1">
      <span className="pb-1.5" aria-hidden="true">
        {name}
      </span>
      <NumberField label={name} value={price} min={0} max={1e6} step={0.01} onChange={onPrice} />
      {onRemove && <Remove name={name} onRemove={onRemove} />}
    </li>
  )
}
