import { clauses } from '../../i18n/clauses.ts'
import type { Catalogue } from '@klados/core/catalogue'
import type { FramePlan } from '@klados/core/plan'
import type { AllAdvice } from '@klados/core/remedies'
import type { Check, Verdict } from '@klados/core/strength'
import type { FrameBody, FrameStage, Place } from '@klados/contract'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useNames } from '../../plan/names.ts'
import { warningWords } from '../../plan/warning-words.ts'
import { markedWords, uncheckedWords } from '../../plan/sheet-counted.ts'
import { amount, checkWords } from '../../plan/verdict.ts'
import { SlipSection } from '../../ui/Slip.tsx'
import { useUnits } from '../../ui/units.tsx'
import { JUMPS } from './jumps.ts'
import { RemedyList, useAdvice } from './Remedies.tsx'

export const VERDICT_TONE: Readonly<Record<Verdict, string>> = {
  holds: 'text-verdigris',
  doubtful: 'text-ochre font-semibold',
  untold: 'text-iron font-semibold',
  fails: 'text-iron font-semibold',
}

interface ChecksProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly design: FrameBody['design']
  readonly plan: FramePlan
  readonly catalogue: Catalogue
  readonly currency: string
  readonly stage: FrameStage
  /** Takes a remedy; `null` where nothing may be changed. */
  readonly onTake: ((design: FrameBody['design']) => void) | null
}

/**
 * Will it hold: what is needed against what there is, the weakest first; each opens to how it is known and
 * what to change.
 */
export function Checks(props: ChecksProps) {
  const { t } = useTranslation()
  const { plan, catalogue, stage, onTake } = props
  const currency = stage === 'stands' ? null : props.currency
  const units = useUnits()
  const { checks, warnings } = plan
  const advice = useAdvice(props, onTake !== null)
  if (checks.length === 0 && warnings.length === 0) return null
  const unmeasured = checks.findIndex(({ missing }) => missing === 'fence')
  const firstOf = new Set(checks.map(({ code }) => checks.findIndex((one) => one.code === code)))
  return (
    <SlipSection title={t(stage === 'stands' ? 'verdict.standsTitle' : 'check.title')} id={JUMPS.checks}>
      {warnings.map((warning) => (
        <div key={warning.code} className="my-1 border-l-2 border-ochre pl-2">
          <span className="font-semibold">{t('check.minds')}:</span> {warningWords(t, units, warning)}
          {onTake && warning.better && (
            <>
              {' '}
              <button type="button" className="btn" onClick={() => onTake(warning.better!)}>
                {t('remedies.take')}
              </button>
            </>
          )}
        </div>
      ))}
      {onTake && advice?.together && (
        <div className="mt-1 flex flex-col gap-1 border-l-2 border-verdigris pl-2">
          <p>{t('remedies.together')}</p>
          <RemedyList
            remedies={[advice.together]}
            catalogue={catalogue}
            currency={currency}
            onTake={onTake}
          />
        </div>
      )}
      {checks.map((check, i) => (
        <CheckRow key={`${check.code} ${check.subject} ${i}`} check={check} catalogue={catalogue}>
          {check.missing === 'fence'
            ? i === unmeasured && (
                <Link
                  className="text-ink"
                  to={`/g/${props.gardenId}/places/${props.place.id}/measures#fence`}
                >
                  {t('verdict.measureFence')}
                </Link>
              )
            : onTake &&
              firstOf.has(i) &&
              check.verdict !== 'holds' && (
                <WhatHelps
                  advice={advice}
                  code={check.code}
                  catalogue={catalogue}
                  currency={currency}
                  onTake={onTake}
                />
              )}
        </CheckRow>
      ))}
      <NotComputed plan={plan} />
      {checks.some((check) => check.isStructural) && (
        <p className="mt-1 text-slate">{t('check.structural')}</p>
      )}
    </SlipSection>
  )
}

/** What bears force without a check of its own, with the reason. */
function NotComputed({ plan: { unchecked } }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  const lines = uncheckedWords(t, unchecked)
  const marked = markedWords(t, units, unchecked)
  if (lines.length === 0) return null
  return (
    <details className="border-b border-dotted border-faint py-[3px]">
      <summary>{t('unchecked.title')}</summary>
      <ul className="flex flex-col gap-1 py-1 pl-3 text-slate">
        {lines.map(({ lead, text }) => (
          <li key={lead}>
            {lead}: {text}.
          </li>
        ))}
        {marked !== null && <li>{marked}</li>}
      </ul>
    </details>
  )
}

interface WhatHelpsProps {
  readonly advice: AllAdvice | null
  readonly code: Check['code']
  readonly catalogue: Catalogue
  readonly currency: string | null
  readonly onTake: (design: FrameBody['design']) => void
}

/** The changes that were tried and hold; where there are none, the rating to ask for. */
function WhatHelps({ advice, code, ...list }: WhatHelpsProps) {
  const { t } = useTranslation()
  const units = useUnits()
  if (!advice) return <p role="status">{t('remedies.trying')}</p>
  const of = advice.advice.find((one) => one.code === code)
  if (!of) return null
  if (of.remedies.length > 0) return <RemedyList remedies={of.remedies} {...list} />
  return (
    <p className="text-ink">
      {of.needed
        ? t('remedies.none', { needed: amount(units, of.needed.unit, of.needed.value) })
        : t('remedies.noneHere')}
    </p>
  )
}

/** What a check goes by; folded away under what helps, where something has to be done. */
function HowKnown({ check, isFolded }: { check: Check; isFolded: boolean }) {
  const { t } = useTranslation()
  const words = (
    <>
      {check.assumptions.length > 0 && (
        <p>
          {t('check.assumes')}:{' '}
          {clauses(
            t,
            check.assumptions.map((one) => t(`assumption.${one}`)),
          )}
          .
        </p>
      )}
      <p>
        {t('check.source')}: {t(`source.${check.source}`)}.
      </p>
    </>
  )
  if (!isFolded) return words
  return (
    <details>
      <summary>{t('slip.howKnown')}</summary>
      {words}
    </details>
  )
}

interface CheckRowProps {
  readonly check: Check
  readonly catalogue: Catalogue
  readonly children: ReactNode
}

function CheckRow({ check, catalogue, children }: CheckRowProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const words = checkWords({ t, units, names, catalogue }, check)
  return (
    <details className="border-b border-dotted border-faint py-[3px]" open={Boolean(children)}>
      <summary className="flex items-baseline gap-3">
        <span className="flex-1">{words.title}</span>
        <span className={VERDICT_TONE[check.verdict]}>{words.verdict}</span>
      </summary>
      <div className="flex flex-col gap-1 py-1 pl-3 text-slate">
        <p>{words.needs}</p>
        {words.remedy !== null && !children && <p className="text-ink">{words.remedy}</p>}
        {children}
        <HowKnown check={check} isFolded={Boolean(children)} />
      </div>
    </details>
  )
}
