import type { Catalogue } from '@klados/core/catalogue'
import type { FramePlan } from '@klados/core/plan'
import type { Check, Verdict } from '@klados/core/strength'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../plan/names.ts'
import { checkWords, outcomeWords } from '../../plan/verdict.ts'
import { SlipSection } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'

const TONE: Readonly<Record<Verdict, string>> = {
  holds: 'text-verdigris',
  doubtful: 'text-ochre font-semibold',
  untold: 'text-iron font-semibold',
  fails: 'text-iron font-semibold',
}

/**
 * Will it hold: what is needed against what there is, the weakest first; each opens to how it is known and
 * what to change.
 */
export function Checks({ plan, catalogue }: { plan: FramePlan; catalogue: Catalogue }) {
  const { t } = useTranslation()
  const { checks, outcome } = plan
  if (checks.length === 0) return null
  return (
    <SlipSection title={t('check.title')}>
      <div role="status" className={TONE[outcome.verdict]}>
        {outcomeWords(t, outcome)}
      </div>
      {checks.map((check, i) => (
        <CheckRow key={`${check.code} ${check.subject} ${i}`} check={check} catalogue={catalogue} />
      ))}
      {checks.some((check) => check.isStructural) && (
        <p className="mt-1 text-slate">{t('check.structural')}</p>
      )}
    </SlipSection>
  )
}

function CheckRow({ check, catalogue }: { check: Check; catalogue: Catalogue }) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const words = checkWords({ t, units, names, catalogue }, check)
  return (
    <details className="border-b border-dotted border-faint py-[3px]">
      <summary className="flex items-baseline gap-3">
        <span className="flex-1">{words.title}</span>
        <span className={TONE[check.verdict]}>{words.verdict}</span>
      </summary>
      <div className="flex flex-col gap-1 py-1 pl-3 text-slate">
        <p>{words.needs}</p>
        {words.remedy !== null && <p className="text-ink">{words.remedy}</p>}
        {check.assumptions.length > 0 && (
          <p>
            {t('check.assumes')}: {check.assumptions.map((one) => t(`assumption.${one}`)).join('; ')}.
          </p>
        )}
        <p>
          {t('check.source')}: {t(`source.${check.source}`)}.
        </p>
      </div>
    </details>
  )
}
