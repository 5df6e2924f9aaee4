import { proxy, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { Background, Progress } from './background.ts'
import { createPool } from './pool.ts'

type Remote<K extends keyof Background> = (
  work: Parameters<Background[K]>[0],
  report: (progress: Progress) => void,
) => Promise<ReturnType<Background[K]>>

/** One for what one looks at and one for what goes on beside it at least, and one core left to the screen. */
const MOST_THREADS = Math.min(4, Math.max(2, (globalThis.navigator?.hardwareConcurrency ?? 2) - 1))

const threads = createPool(MOST_THREADS, () => {
  const worker = new Worker(new URL('./background.worker.ts', import.meta.url), { type: 'module' })
  const broken = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error('The thread could not go on'))
  })
  broken.catch(() => undefined)
  return { remote: wrap<Background>(worker), broken, terminate: () => worker.terminate() }
})

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
 * Runs one kind of background work in a thread of the pool whenever `work` (keep it memoised) changes; an earlier
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
      job.stop()
    }
    const end = (how: 'done' | 'stopped' | 'failed') => {
      callOff()
      setProgress(null)
      setEnded(how)
    }
    stop.current = () => end('stopped')
    const job = threads.run(
      ({ remote, broken }) =>
        Promise.race([(remote[kind] as unknown as Remote<K>)(work, proxy(report)), broken]) as Promise<
          ReturnType<Background[K]>
        >,
    )
    job.done.then(
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
