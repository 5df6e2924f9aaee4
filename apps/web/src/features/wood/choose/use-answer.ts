import { deedsOf } from '@klados/core/choices'
import { useMemo } from 'react'
import { useTranslation } from '../../../i18n/use-translation.tsx'
import type { NewEntry } from '../../../data/record.ts'
import type { Recorder } from '../../../data/use-recorder.ts'
import { useUnits } from '../../../ui/units.tsx'
import type { WoodBenchData } from '../use-bench.ts'
import { choiceEntry, doneEntries, marksFor, minutesOf, tiesFor } from './commit.ts'
import type { TiesOfPiece } from './commit.ts'
import type { Training } from './training.ts'
import type { Choosing } from './use-choosing.ts'
import { speech, whyWords } from './words.ts'
import { questionWords } from '../../../i18n/craft-words.ts'

/** What the proposal comes to, and how it is written down. */
export interface Answer {
  readonly ties: readonly TiesOfPiece[]
  readonly tieCount: number
  readonly minutes: number
  readonly commit: (as: 'plan' | 'done') => void
}

const MOST_REASON = 200

export function useAnswer(
  choosing: Choosing | null,
  training: Training | null,
  data: WoodBenchData,
  head: { readonly placeId: string; readonly at: string },
  recorder: Recorder,
): Answer | null {
  const { t } = useTranslation()
  const units = useUnits()
  const view = training?.view
  const deeds = useMemo(() => {
    if (!choosing || !view) return null
    const { question, proposal, usual, overrides, reasons } = choosing
    return deedsOf(view, question, proposal, usual, overrides, (id) => (reasons.get(id) ?? '').trim())
  }, [choosing, view])
  const ties = useMemo(() => (deeds && view ? tiesFor(deeds, view, data) : []), [deeds, view, data])
  if (!choosing || !training || !deeds) return null
  const systemId = training.plant.body.system ?? ''
  const say = speech(t, units, systemId, training.view)
  const tieCount = ties.reduce((sum, plan) => sum + plan.ties.length, 0)
  const minutes = minutesOf(deeds, tieCount)
  const reasonOf = (pieceId: string) => {
    const candidate = choosing.question.candidates.find((one) => one.pieceId === pieceId)
    const own = choosing.reasons.get(pieceId)
    return (own || (candidate ? whyWords(say, candidate) : '')).slice(0, MOST_REASON)
  }
  return {
    ties,
    tieCount,
    minutes,
    commit: (as) => {
      const question = questionWords(t, systemId, choosing.question.code)
      recorder.write(t(as === 'plan' ? 'choose.committed' : 'choose.recorded', { question }), [
        // One plan a plant: the earlier one gives way.
        ...training.choices
          .filter(({ state }) => state === 'planned')
          .map(
            ({ choiceId }): NewEntry => ({
              ...head,
              plantId: training.plant.id,
              kind: 'choice.dropped',
              body: { v: 1, choiceId, reason: t('choose.replaced') },
            }),
          ),
        choiceEntry(choosing, deeds, training, as, { ties: tieCount, minutes }, head),
        ...marksFor(choosing, training, head),
        ...(as === 'done' ? doneEntries(deeds, ties, training, data, head, reasonOf) : []),
      ])
    },
  }
}
