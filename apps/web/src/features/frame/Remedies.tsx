import { clauses } from '../../i18n/clauses.ts'
import type { Catalogue } from '@klados/core/catalogue'
import { INCH_GRAIN, METRIC_GRAIN } from '@klados/core/remedies'
import type { AllAdvice, Remedy } from '@klados/core/remedies'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, Place } from '@klados/contract'
import { useMemo } from 'react'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useBackground } from '../../compute/use-background.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { useNames } from '../../plan/names.ts'
import { remedyPriceWords, stepWords } from '../../plan/remedy-words.ts'
import { useCondition } from '../../plan/use-plan.ts'
import { useUnits } from '../../ui/units.tsx'
import { useRested } from '../../ui/use-rested.ts'

/** Trying out remedies waits until the hand rests. */
const REST_MS = 500

interface Advised {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly design: FrameBody['design']
  readonly plan: FramePlan
}

/** What to change for what does not hold, of the design as it is now; `null` until it has been tried out. */
export function useAdvice(
  { gardenId, place, frameId, design, plan }: Advised,
  isAsked: boolean,
): AllAdvice | null {
  const catalogue = useCatalogue(gardenId)
  const { drives } = useCondition(frameId)
  const { system } = useUnits()
  const isOpen = isAsked && plan.outcome.open > 0 && plan.problems.length === 0
  const work = useMemo(
    () =>
      isOpen
        ? {
            site: place.body,
            design,
            catalogue,
            drives,
            grain: system === 'metric' ? METRIC_GRAIN : INCH_GRAIN,
          }
        : null,
    [isOpen, place, design, catalogue, drives, system],
  )
  const rested = useRested(work, REST_MS)
  const { value, isCurrent } = useBackground('advice', rested)
  return work !== null && rested === work && isCurrent ? value : null
}

interface RemedyListProps {
  readonly remedies: readonly Remedy[]
  readonly catalogue: Catalogue
  /** Of what it costs; none for what stands and would only be changed. */
  readonly currency: string | null
  readonly onTake: (design: FrameBody['design']) => void
}

/** Changes that make it hold, each to be made with one press. */
export function RemedyList({ remedies, catalogue, currency, onTake }: RemedyListProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  return (
    <ul className="flex flex-col gap-1 text-ink">
      {remedies.map((remedy, i) => {
        const steps = remedy.steps.map((step) => stepWords({ t, units, names, catalogue }, step))
        return (
          <li key={i} className="flex items-start gap-2">
            <div className="flex-1">
              {steps.map((words) => (
                <p key={words}>{words}</p>
              ))}
              {currency !== null && <p className="text-slate">{remedyPriceWords(t, remedy, currency)}</p>}
            </div>
            <button
              type="button"
              className="btn"
              aria-label={t('remedies.takeOne', { what: clauses(t, steps) })}
              onClick={() => onTake(remedy.design as FrameBody['design'])}
            >
              {t('remedies.take')}
            </button>
          </li>
        )
      })}
    </ul>
  )
}
