import { proxy, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { Background, Progress } from './background.ts'

/** Work that ends sooner is not spoken of: a line that comes and goes at once disturbs. */
const SPEAK_AFTER_MS = 250

export interface BackgroundResult<T> {
  /** What came of the last work that was finished; of an earlier one while the next is under way. */
  readonly value: T | null
  /** Whether `value` is of the work now asked for. */
  readonly isCurrent: boolean
  /** How far it is, when it takes long enough to say so. */
  readonly progress: Progress | null
  readonly ended: 'done' | 'stopped' | 'failed' | null
  readonly stop: () => void
  readonly again: () => void
}

/**
 * Runs one kind of background work in a thread of its own whenever `work` (keep it memoised) changes; an earlier
 * run is called off. `null`: not yet.
 */
export function useBackground<K extends keyof Background>(
  kind: K,
  work: Parameters<Background[K]>[0] | null,
): BackgroundResult<ReturnType<Background[K]>> {
  const [made, setMade] = useState<{ of: typeof work; value: ReturnType<Background[K]> } | null>(null)
  const [progress, setProgress] = useState<Progress | null>(null)
  const [ended, setEnded] = useState<'done' | 'stopped' | 'failed' | null>(null)
  const [run, setRun] = useState(0)
  const stop = useRef<() => void>(null)

  useEffect(() => {
    if (!work) return
    const thread = new Worker(new URL('./background.worker.ts', import.meta.url), { type: 'module' })
    let latest: Progress = { done: 0, of: 1 }
    let isSpoken = false
    const speak = setTimeout(() => {
      isSpoken = true
      setEnded(null)
      setProgress(latest)
    }, SPEAK_AFTER_MS)
    const report = (now: Progress) => {
      latest = now
      if (isSpoken) setProgress(now)
    }
    const callOff = () => {
      clearTimeout(speak)
      isSpoken = false
      thread.terminate()
    }
    const end = (how: 'done' | 'stopped' | 'failed') => {
      callOff()
      setProgress(null)
      setEnded(how)
    }
    stop.current = () => end('stopped')
    thread.onerror = () => end('failed')
    const remote = wrap<Background>(thread)[kind] as unknown as (
      work: Parameters<Background[K]>[0],
      report: (progress: Progress) => void,
    ) => Promise<ReturnType<Background[K]>>
    remote(work, proxy(report)).then(
      (value) => {
        setMade({ of: work, value })
        end('done')
      },
      () => end('failed'),
    )
    return callOff
  }, [kind, work, run])

  return {
    value: made?.value ?? null,
    isCurrent: made?.of === work,
    progress,
    ended,
    stop: () => stop.current?.(),
    again: () => setRun(run + 1),
  }
}
