import type { Check } from '@klados/core/strength'
import type { FramePlan } from '@klados/core/plan'
import type { Catalogue } from '@klados/core/catalogue'
import { formatMass } from '@klados/core/units'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../plan/names.ts'
import { SlipSection } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import type { Units } from '../../ui/units.tsx'

const TONE = {
  holds: 'text-verdigris',
  doubtful: 'text-ochre font-semibold',
  fails: 'text-iron font-semibold',
}

/**
 * Will it hold: what is needed against what there is, the weakest first; each opens to how it is known and
 * what to change.
 */
export function Checks({ plan, catalogue }: { plan: FramePlan; catalogue: Catalogue }) {
  const { t } = useTranslation()
  const { checks } = plan
  if (checks.length === 0) return null
  const open = checks.filter((check) => check.verdict !== 'holds')
  const isStructural = checks.some((check) => check.isStructural)
  return (
    <SlipSection title={t('check.title')}>
      <div
        role="status"
        className={
          open.length === 0
            ? 'text-verdigris'
            : open[0]!.verdict === 'fails'
              ? 'text-iron font-semibold'
              : 'text-ochre font-semibold'
        }
      >
        {t(
          open.length === 0
            ? 'check.allHold'
            : open[0]!.verdict === 'fails'
              ? 'check.someFail'
              : 'check.someDoubtful',
          { count: open.length, of: checks.length },
        )}
      </div>
      {checks.map((check, i) => (
        <CheckRow key={`${check.code} ${check.subject} ${i}`} check={check} catalogue={catalogue} />
      ))}
      {isStructural && <p className="mt-1 text-slate">{t('check.structural')}</p>}
    </SlipSection>
  )
}

function CheckRow({ check, catalogue }: { check: Check; catalogue: Catalogue }) {
  const { t } = useTranslation()
  const units = useUnits()
  const subject = useSubject(check, catalogue)
  const [low, high] = check.holding
  const share = check.need > 0 ? low / check.need : Infinity
  const ratio =
    share >= 10
      ? t('check.ample')
      : t('check.ratio', { ratio: share.toFixed(Math.abs(share - 1) < 0.1 ? 2 : 1) })
  const range =
    high - low > low * 0.005
      ? t('check.range', { low: amount(units, check.unit, low), high: amount(units, check.unit, high) })
      : amount(units, check.unit, low)
  return (
    <details className="border-b border-dotted border-faint py-[3px]">
      <summary className="flex items-baseline gap-3">
        <span className="flex-1">{t(`check.code.${check.code}`, { subject })}</span>
        <span className={TONE[check.verdict]}>{t(`check.verdict.${check.verdict}`, { ratio })}</span>
      </summary>
      <div className="flex flex-col gap-1 py-1 pl-3 text-slate">
        <p>
          {t(`check.needs.${check.code}`, { need: amount(units, check.unit, check.need), holding: range })}
        </p>
        {check.verdict !== 'holds' && (
          <p className="text-ink">
            {t(`check.remedy.${check.code}`, {
              depth: check.advice.depthM === undefined ? '' : units.length(check.advice.depthM),
              ballast:
                check.advice.ballastKg === undefined ? '' : formatMass(check.advice.ballastKg, units.system),
            })}
          </p>
        )}
        <p>
          {t('check.assumes')}: {check.assumptions.map((one) => t(`assumption.${one}`)).join('; ')}.
        </p>
        <p>
          {t('check.source')}: {t(`source.${check.source}`)}.
        </p>
      </div>
    </details>
  )
}

function useSubject(check: Check, catalogue: Catalogue): string {
  const names = useNames()
  const { t } = useTranslation()
  const wire = catalogue.wires.find((one) => one.id === check.subject)
  if (wire) return names.wire(wire)
  const stock = catalogue.stock.find((one) => one.id === check.subject)
  if (stock) return names.stock(stock)
  return check.subject === 'beam' || check.subject === 'rafter' || check.subject === 'pot'
    ? t(`check.subject.${check.subject}`)
    : check.subject
}

function amount(units: Units, unit: Check['unit'], value: number): string {
  switch (unit) {
    case 'N':
      return units.force(value)
    case 'm':
      return units.length(value, value < 0.2 ? 'fine' : 'long')
    case 'Nm':
      return units.moment(value)
    case 'm/s':
      return units.speed(value)
  }
}
