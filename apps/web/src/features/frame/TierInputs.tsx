import { frameKinds } from '@klados/core/frame'
import type { PlaceBody } from '@klados/contract'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { LengthField } from '../../ui/LengthField.tsx'
import { useUnits } from '../../ui/units.tsx'
import type { PatternOf } from './change.ts'
import { withTierBelow, withTierMore } from './more-tiers.ts'

const { levels: field } = frameKinds.tiers.fields

interface TierInputsProps {
  readonly place: PlaceBody
  readonly pattern: PatternOf<'tiers'>
  readonly onChange: (what: string, pattern: PatternOf<'tiers'>) => void
}

/** Heights of tiers from below. A tier keeps its name when others come and go, above it or below. */
export function TierInputs({ place, pattern, onChange }: TierInputsProps) {
  const { t } = useTranslation()
  const { system } = useUnits()
  const { levels } = pattern
  const set = (what: string, next: PatternOf<'tiers'>['levels']) =>
    onChange(what, { ...pattern, levels: next })
  const more = withTierMore(levels, place, system)
  const below = withTierBelow(levels, place, system)
  return (
    <fieldset>
      <legend className="text-[0.8125rem] text-slate">{t('frame.heights')}</legend>
      <div className="grid grid-cols-2 gap-2">
        {levels.map((level, i) => (
          <div key={level.id} className="flex items-end gap-1">
            <div className="min-w-0 flex-1">
              <LengthField
                label={t('frame.height', { n: i + 1 })}
                style="short"
                minM={field.of.heightM.minM}
                maxM={field.of.heightM.maxM}
                valueM={level.heightM}
                onChange={(heightM) =>
                  set(
                    `height ${level.id}`,
                    levels.map((old) => (old.id === level.id ? { ...old, heightM } : old)),
                  )
                }
              />
            </div>
            <button
              type="button"
              className="btn px-2"
              aria-label={t('frame.removeTierOf', { n: i + 1 })}
              disabled={levels.length === field.min}
              onClick={() =>
                set(
                  'take',
                  levels.filter((old) => old.id !== level.id),
                )
              }
            >
              ×
            </button>
          </div>
        ))}
      </div>
      <div className="mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          disabled={levels.length >= field.max || more === null}
          onClick={() => more && set('add', more)}
        >
          {t('frame.addTier')}
        </button>
        <button
          type="button"
          className="btn"
          disabled={levels.length >= field.max || below === null}
          onClick={() => below && set('add below', below)}
        >
          {t('frame.addTierBelow')}
        </button>
      </div>
    </fieldset>
  )
}
