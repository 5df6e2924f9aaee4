import { standardCatalogue } from '@klados/core/catalogue'
import type { OnHand as OnHandLine, StoresBody } from '@klados/contract'
import { useState } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useNames } from '../../plan/names.ts'
import { Pick } from '../../ui/Choice.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { NumberField } from '../../ui/NumberField.tsx'

interface OnHandProps {
  readonly stores: StoresBody
  readonly canWrite: boolean
  readonly onChange: (stores: StoresBody) => void
}

const isCut = (what: OnHandLine['what']) => what === 'roll' || what === 'stock'

/**
 * What lies in the shed, to be changed in place: rolls, lengths and offcuts by length, everything else by
 * number.
 */
export function OnHand({ stores, canWrite, onChange }: OnHandProps) {
  const { t } = useTranslation()
  const names = useNames()
  const catalogue = stores.catalogue ?? standardCatalogue
  const things = [
    ...catalogue.wires.map((one) => ({ key: `roll ${one.id}`, label: names.wire(one) })),
    ...catalogue.stock.map((one) => ({ key: `stock ${one.id}`, label: names.stock(one) })),
    ...catalogue.fixings.map((one) => ({ key: `fixing ${one.id}`, label: names.fixing(one) })),
    ...catalogue.screws.map((one) => ({ key: `screw ${one.id}`, label: names.screw(one) })),
    ...catalogue.goods.map((one) => ({ key: `good ${one.id}`, label: names.good(one.id) })),
  ]
  const [picked, setPicked] = useState(things[0]!.key)
  const set = (at: number, part: Partial<OnHandLine>) =>
    onChange({ ...stores, onHand: stores.onHand.map((line, i) => (i === at ? { ...line, ...part } : line)) })
  const add = () => {
    const [what, refId] = splitKey(picked)
    onChange({
      ...stores,
      onHand: [...stores.onHand, { what, refId, lengthM: isCut(what) ? 10 : null, quantity: 1 }],
    })
  }
  return (
    <fieldset disabled={!canWrite} className="flex max-w-3xl flex-col gap-3">
      <p className="text-slate">{t('stores.onHandIntro')}</p>
      {stores.onHand.length === 0 && <p>{t('stores.nothing')}</p>}
      <ul className="flex flex-col gap-2">
        {stores.onHand.map((line, i) => (
          <li
            key={i}
            className="grid grid-cols-[minmax(0,1fr)_110px_90px_auto] items-end gap-3 border-b border-dotted border-faint pb-2"
          >
            <span className="pb-1.5">
              {things.find((thing) => thing.key === `${line.what} ${line.refId}`)?.label ?? line.refId}
            </span>
            {line.lengthM === null ? (
              <span />
            ) : (
              <LengthField
                label={t('offer.length')}
                minM={0.05}
                maxM={5000}
                valueM={line.lengthM}
                onChange={(lengthM) => set(i, { lengthM })}
              />
            )}
            <NumberField
              label={t('sheet.quantity')}
              value={line.quantity}
              min={0}
              max={1e6}
              step={line.lengthM === null ? 0.1 : 1}
              onChange={(quantity) => set(i, { quantity })}
            />
            <button
              type="button"
              className="btn"
              aria-label={t('stores.remove')}
              onClick={() => onChange({ ...stores, onHand: stores.onHand.filter((_, other) => other !== i) })}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      {canWrite && (
        <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-3">
          <Pick
            label={t('stores.thing')}
            value={picked}
            options={things.map(({ key, label }) => ({ value: key, label }))}
            onChange={setPicked}
          />
          <button type="button" className="btn btn-main" onClick={add}>
            {t('stores.add')}
          </button>
        </div>
      )}
    </fieldset>
  )
}

function splitKey(key: string): [OnHandLine['what'], string] {
  const at = key.indexOf(' ')
  return [key.slice(0, at) as OnHandLine['what'], key.slice(at + 1)]
}
