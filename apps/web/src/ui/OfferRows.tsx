import { useTranslation } from '../i18n/use-translation.tsx'
import { LengthField } from './LengthField.tsx'
import { NumberField } from './NumberField.tsx'

export interface Offer {
  readonly lengthM: number
  readonly price: number
}

interface OfferRowsProps {
  readonly title: string
  readonly offers: readonly Offer[]
  readonly most: number
  /** What a further one begins with. */
  readonly next: Offer
  readonly onChange: (what: string, offers: readonly Offer[]) => void
}

/** Lengths that something is sold in, each with its price; there is always one. */
export function OfferRows({ title, offers, most, next, onChange }: OfferRowsProps) {
  const { t } = useTranslation()
  const set = (at: number, part: Partial<Offer>) =>
    onChange(
      `offer ${at}`,
      offers.map((offer, i) => (i === at ? { ...offer, ...part } : offer)),
    )
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="text-[0.8125rem] text-slate">{title}</legend>
      {offers.map((offer, i) => (
        <div key={i} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <LengthField
            label={t('offer.length')}
            maxM={5000}
            valueM={offer.lengthM}
            onChange={(lengthM) => set(i, { lengthM })}
          />
          <NumberField
            label={t('offer.price')}
            value={offer.price}
            min={0}
            max={1e6}
            step={0.01}
            onChange={(price) => set(i, { price })}
          />
          <button
            type="button"
            className="btn"
            disabled={offers.length === 1}
            aria-label={t('offer.remove')}
            onClick={() =>
              onChange(
                'offer away',
                offers.filter((_, other) => other !== i),
              )
            }
          >
            ×
          </button>
        </div>
      ))}
      {offers.length < most && (
        <button
          type="button"
          className="btn btn-plain self-start px-0"
          onClick={() => onChange('offer new', [...offers, next])}
        >
          {t('offer.add')}
        </button>
      )}
    </fieldset>
  )
}
