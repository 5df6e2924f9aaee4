import { instanceOf, isRefused, proposalFrom, propose, whyNot } from '@klados/core/training'
import type { Difference, Proposal, Question, Refused } from '@klados/core/training'
import { useMemo, useState } from 'react'
import { useBackground } from '../../../compute/use-background.ts'

/** An answer must be there before the next key is pressed; what is not proven by then is looked at on, beside it. */
const DEADLINE_MS = 120

const limits = () => ({ deadlineMs: DEADLINE_MS, now: () => performance.now() })

export interface Choosing {
  readonly question: Question
  /** Best by the judgements alone. */
  readonly usual: Proposal
  /** With what the grower wants otherwise. */
  readonly proposal: Proposal
  /** Whether something better is still looked for. */
  readonly isLooking: boolean
  readonly overrides: ReadonlyMap<string, string>
  readonly reasons: ReadonlyMap<string, string>
  readonly refused: Refused | null
  readonly focused: string | null
  readonly focus: (pieceId: string | null) => void
  readonly take: (pieceId: string, optionId: string) => void
  readonly giveReason: (pieceId: string, reason: string) => void
  readonly reset: () => void
  readonly whyNot: (pieceId: string, optionId: string) => Difference | Refused
}

/** What the grower does with a question: looks at candidates, takes other options, gives reasons. */
export function useChoosing(question: Question | null): Choosing | null {
  const [overrides, setOverrides] = useState<ReadonlyMap<string, string>>(new Map())
  const [reasons, setReasons] = useState<ReadonlyMap<string, string>>(new Map())
  const [refused, setRefused] = useState<Refused | null>(null)
  const [focused, setFocused] = useState<string | null>(null)
  const usual = useMemo(() => question && propose(question, new Map(), limits()), [question])
  // What was wished for wood that is gone meanwhile is no wish any more.
  const known = useMemo(
    () =>
      new Map(
        [...overrides].filter(([id, option]) =>
          question?.candidates.some(
            ({ pieceId, options }) => pieceId === id && options.some((one) => one.id === option),
          ),
        ),
      ),
    [question, overrides],
  )
  const quick = useMemo(() => {
    if (!question || !usual || isRefused(usual)) return null
    if (known.size === 0) return usual
    const answer = propose(question, known, limits())
    return isRefused(answer) ? usual : answer
  }, [question, usual, known])
  const work = useMemo(
    () => (question && quick && !quick.isProven ? instanceOf(question, known) : null),
    [question, quick, known],
  )
  const longer = useBackground('lay', work)
  const proposal = useMemo(() => {
    if (!question || !quick || !longer.value || !longer.isCurrent) return quick
    return proposalFrom(question, longer.value) ?? quick
  }, [question, quick, longer.value, longer.isCurrent])
  if (!question || !usual || isRefused(usual) || !proposal) return null
  const take = (pieceId: string, optionId: string) => {
    const wished = new Map(overrides)
    // Back to what is proposed anyway is no choice of one's own.
    const unasked = known.size === 0 ? proposal : usual
    if (unasked.chosen.get(pieceId)?.id === optionId) wished.delete(pieceId)
    else wished.set(pieceId, optionId)
    const answer = propose(question, wished, limits())
    setRefused(isRefused(answer) ? answer : null)
    if (!isRefused(answer)) setOverrides(wished)
  }
  return {
    question,
    // With nothing wished otherwise, what is shown is what is proposed.
    usual: known.size === 0 ? proposal : usual,
    proposal,
    isLooking: work !== null && longer.ended === null && !longer.isCurrent,
    overrides,
    reasons,
    refused,
    focused,
    focus: (pieceId) => {
      setRefused(null)
      setFocused(pieceId)
    },
    take,
    giveReason: (pieceId, reason) => setReasons(new Map(reasons).set(pieceId, reason)),
    reset: () => {
      setOverrides(new Map())
      setRefused(null)
    },
    whyNot: (pieceId, optionId) => whyNot(question, proposal, overrides, pieceId, optionId, limits()),
  }
}
