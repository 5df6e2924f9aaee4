import { MAX_TIERS } from '@klados/contract/limits'
import { useTranslation } from 'react-i18next'
import { LengthField } from '../../ui/LengthField.tsx'
import type { PatternOf } from './change.ts'

const TIER_STEP_M = 0.4

interface TierInputsProps {
  readonly pattern: PatternOf<'tiers'>
  readonly onChange: (what: string, pattern: PatternOf<'tiers'>) => void
}

export function TierInputs({ pattern, onChange }: TierInputsProps) {
  const { t } = useTranslation()
  const { heightsM } = pattern
  const set = (what: string, heights: number[]) => onChange(what, { ...pattern, heightsM: heights })
  return (
    <fieldset>
      <legend className="text-[13px] text-slate">{t('frame.heights')}</legend>
      <div className="grid grid-cols-3 gap-2">
        {heightsM.map((heightM, i) => (
          <LengthField
            key={i}
            label={t('frame.height', { n: i + 1 })}
            style="short"
            minM={0}
            maxM={50}
            valueM={heightM}
            onChange={(m) =>
              set(
                `height ${i}`,
                heightsM.map((old, other) => (other === i ? m : old)),
              )
            }
          />
        ))}
      </div>
      <div className="mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          disabled={heightsM.length >= MAX_TIERS}
          onClick={() =>
            set('add', [...heightsM, Math.round((heightsM.at(-1)! + TIER_STEP_M) * 1000) / 1000])
          }
        >
          {t('frame.addTier')}
        </button>
        <button
          type="button"
          className="btn"
          disabled={heightsM.length === 1}
          onClick={() => set('take', heightsM.slice(0, -1))}
        >
          {t('frame.removeTier')}
        </button>
      </div>
    </fieldset>
  )
}
