import { deedsOf } from '@klados/core/choices'
import { isRefused, openQuestions, propose } from '@klados/core/training'
import { useMemo } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import { SlipRow } from '../../../ui/Slip.tsx'
import { useUnits } from '../../../ui/units.tsx'
import type { WoodBenchData } from '../use-bench.ts'
import { minutesOf, tiesFor } from './commit.ts'
import type { Training } from './training.ts'
import { systemWords } from '../../../i18n/craft-words.ts'

const DEADLINE_MS = 80

/** What this winter would take in ties and minutes, were the plant grown in one system or another. */
export function TiesBySystem({
  data,
  training,
}: {
  readonly data: WoodBenchData
  readonly training: Training
}) {
  const { t } = useTranslation()
  const units = useUnits()
  const { systems, view } = training
  const rows = useMemo(
    () =>
      systems.flatMap((system) => {
        const question = openQuestions(system, view)[0] ?? null
        const limits = { deadlineMs: DEADLINE_MS, now: () => performance.now() }
        const answer = question && propose(question, new Map(), limits)
        if (!question || !answer || isRefused(answer)) return []
        const deeds = deedsOf(view, question, answer, answer, new Map(), () => '')
        const plans = tiesFor(deeds, view, data)
        const ties = plans.reduce((sum, plan) => sum + plan.ties.length, 0)
        const totalM = plans.reduce((sum, plan) => sum + plan.totalM, 0)
        return [{ id: system.id, ties, totalM, minutes: minutesOf(deeds, ties) }]
      }),
    [systems, view, data],
  )
  if (rows.length < 2) return null
  return (
    <section>
      <h3 className="text-slate">{t('choose.bySystem.title')}</h3>
      <dl>
        {rows.map(({ id, ties, totalM, minutes }) => (
          <SlipRow key={id} label={systemWords(t, id)}>
            {t('choose.bySystem.row', { count: ties, length: units.length(totalM), minutes })}
          </SlipRow>
        ))}
      </dl>
    </section>
  )
}
