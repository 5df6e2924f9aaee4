import type { PlaceBody } from '@klados/contract'
import type { AvoidSpot } from '@klados/core/frame'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { LengthField } from '../../ui/LengthField.tsx'

/** What the next click on the drawing puts there. */
export type Placing = 'point' | 'vertical' | 'horizontal' | null

interface SpotsProps {
  readonly wall: PlaceBody
  readonly chosen: string | null
  readonly onChoose: (id: string) => void
  readonly placing: Placing
  readonly onPlace: (placing: Placing) => void
  readonly onAdd: (spot: AvoidSpot) => void
  readonly onChange: (spots: PlaceBody['avoid']) => void
}

/** The spots in a list: everything that the drawing takes with a click can be typed here. */
export function Spots({ wall, chosen, onChoose, placing, onPlace, onChange }: SpotsProps) {
  const { t } = useTranslation()
  const set = (id: string, part: Partial<AvoidSpot>) =>
    onChange(wall.avoid.map((spot) => (spot.id === id ? ({ ...spot, ...part } as typeof spot) : spot)))
  const tools = [
    ['point', 'place.addPoint'],
    ['vertical', 'place.addUpright'],
    ['horizontal', 'place.addLevel'],
  ] as const
  return (
    <section>
      <h2>{t('place.avoid')}</h2>
      <p className="max-w-prose text-slate">{t(placing ? 'place.placing' : 'place.avoidIntro')}</p>
      <div className="my-2 flex flex-wrap gap-2">
        {tools.map(([kind, label]) => (
          <button
            key={kind}
            type="button"
            className={`btn ${placing === kind ? 'btn-main' : ''}`}
            aria-pressed={placing === kind}
            onClick={() => onPlace(placing === kind ? null : kind)}
          >
            {t(label)}
          </button>
        ))}
      </div>
      <ul className="flex flex-col gap-2">
        {wall.avoid.map((spot) => (
          <li
            key={spot.id}
            onFocus={() => onChoose(spot.id)}
            className={`grid grid-cols-[minmax(0,2fr)_repeat(3,minmax(0,1fr))_auto] items-end gap-2 border-l-4 py-1 pl-2 max-sm:grid-cols-2 ${spot.id === chosen ? 'border-verdigris' : 'border-transparent'}`}
          >
            <TextField
              label={t('place.what')}
              value={spot.what}
              longest={60}
              placeholder={t('place.whatPlaceholder')}
              onChange={(what) => set(spot.id, { what })}
            />
            {spot.kind === 'point' ? (
              <>
                <LengthField
                  label={t('place.fromLeft')}
                  style="short"
                  minM={0}
                  maxM={wall.widthM}
                  valueM={spot.xM}
                  onChange={(xM) => set(spot.id, { xM })}
                />
                <LengthField
                  label={t('place.aboveSoil')}
                  style="short"
                  minM={0}
                  maxM={wall.firstForkM + wall.usableHeightM}
                  valueM={spot.yM}
                  onChange={(yM) => set(spot.id, { yM })}
                />
                <LengthField
                  label={t('place.radius')}
                  style="short"
                  maxM={2}
                  valueM={spot.radiusM}
                  onChange={(radiusM) => set(spot.id, { radiusM })}
                />
              </>
            ) : (
              <>
                <LengthField
                  label={t('place.bandFrom')}
                  style="short"
                  minM={0}
                  maxM={500}
                  valueM={spot.fromM}
                  onChange={(fromM) => set(spot.id, { fromM })}
                />
                <LengthField
                  label={t('place.bandTo')}
                  style="short"
                  minM={0}
                  maxM={500}
                  valueM={spot.toM}
                  onChange={(toM) => set(spot.id, { toM })}
                  error={spot.toM <= spot.fromM ? t('place.order') : undefined}
                />
                <span className="max-sm:hidden" />
              </>
            )}
            <button
              type="button"
              className="btn justify-self-start"
              aria-label={t('place.removeSpot', { what: spot.what || t('place.spot') })}
              onClick={() => onChange(wall.avoid.filter((other) => other.id !== spot.id))}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
