import type { JournalEntry } from '@klados/core/journal'
import { useState } from 'react'
import type { NewEntry } from './record.ts'
import { record, withdraw } from './record.ts'
import { useAppDispatch } from './store.ts'

interface Step {
  readonly entries: readonly JournalEntry[]
  readonly what: string
}

export interface Recorder {
  /** Writes entries as one step; `what` names it for undo. */
  readonly write: (what: string, entries: readonly NewEntry[]) => void
  readonly undo: () => void
  readonly last: Step | null
  readonly count: number
  /** What happened last, for the live region. */
  readonly news: { readonly kind: 'recorded' | 'undone'; readonly what: string } | null
}

/** Journal entries of this visit in steps, each of which can be taken back by entries that supersede it. */
export function useRecorder(): Recorder {
  const dispatch = useAppDispatch()
  const [steps, setSteps] = useState<readonly Step[]>([])
  const [news, setNews] = useState<Recorder['news']>(null)
  const last = steps.at(-1) ?? null
  return {
    last,
    count: steps.length,
    news,
    write: (what, news) => {
      if (news.length === 0) return
      const entries = dispatch(record(news))
      setSteps((old) => [...old, { entries, what }])
      setNews({ kind: 'recorded', what })
    },
    undo: () => {
      if (!last) return
      dispatch(withdraw(last.entries))
      setSteps((old) => old.slice(0, -1))
      setNews({ kind: 'undone', what: last.what })
    },
  }
}
