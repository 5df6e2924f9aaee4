import { useState } from 'react'
import type { NewEntry } from './journal.ts'
import { record } from './journal.ts'
import { useAppDispatch } from './store.ts'

interface Step {
  readonly ids: readonly string[]
  readonly what: string
  readonly placeId: string
  readonly plantId: string | null
}

export interface Recorder {
  /** Writes entries as one step; `what` names it for undo. */
  readonly write: (what: string, entries: readonly NewEntry[]) => void
  readonly undo: () => void
  readonly last: Step | null
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
    news,
    write: (what, entries) => {
      const [first] = entries
      if (!first) return
      const ids = dispatch(record(entries))
      setSteps((old) => [...old, { ids, what, placeId: first.placeId, plantId: first.plantId }])
      setNews({ kind: 'recorded', what })
    },
    undo: () => {
      if (!last) return
      const { placeId, plantId } = last
      dispatch(
        record(
          [...last.ids]
            .reverse()
            .map((id) => ({ kind: 'entry.withdrawn', body: { v: 1 }, placeId, plantId, supersedes: id })),
        ),
      )
      setSteps((old) => old.slice(0, -1))
      setNews({ kind: 'undone', what: last.what })
    },
  }
}
