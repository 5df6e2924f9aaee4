import { useEffect, useState } from 'react'
import { draftKeeper } from './live-drafts.ts'
import type { DraftKind } from './draft-keeper.ts'

interface Draft<T> {
  readonly value: T
  /** True while something typed is not saved. */
  readonly isDirty: boolean
  readonly change: (next: (old: T) => T) => void
  /**
   * What was handed in to be saved is what stands here still: the draft is done. What was typed since stays
   * one.
   */
  readonly done: (saved: T) => void
}

/**
 * Something typed that is not saved yet: it outlives a reload. Without one, what is `stored` is shown as it
 * is. `read` says whether a draft that lies there can still be used.
 */
export function useDraft<T>(
  kind: DraftKind,
  id: string,
  stored: T,
  read: (value: unknown) => T | null,
): Draft<T> {
  const [typed, setTyped] = useState<T | null>(() => {
    const kept = draftKeeper()?.read(kind, id)
    return kept === undefined ? null : read(kept)
  })
  useEffect(() => {
    if (typed !== null) draftKeeper()?.write(kind, id, typed)
  }, [kind, id, typed])
  return {
    value: typed ?? stored,
    isDirty: typed !== null,
    change: (next) => setTyped((old) => next(old ?? stored)),
    done: (saved) =>
      setTyped((now) => {
        if (now === saved) draftKeeper()?.forget(kind, id)
        return now === saved ? null : now
      }),
  }
}
