/** A thread as far as the pool knows it: it can be ended in the middle of what it does. */
export interface Thread {
  readonly terminate: () => void
}

/** One piece of work on its way. */
export interface Job<T> {
  readonly id: number
  readonly done: Promise<T>
  /** Calls it off, waiting or in the middle of it; `done` is then never settled. */
  readonly stop: () => void
}

export interface Pool<W extends Thread> {
  readonly run: <T>(work: (thread: W) => Promise<T>) => Job<T>
}

interface Waiting<W> {
  readonly id: number
  readonly begin: (thread: W) => void
}

/**
 * So many threads at the most, started when they are first wanted and kept for what comes next: a key a second does not
 * load the engine anew each time. Work is begun in the order in which it was asked for; what is called off ends its
 * thread, since what it computes listens to nobody.
 */
export function createPool<W extends Thread>(most: number, start: () => W): Pool<W> {
  const idle: W[] = []
  const waiting: Waiting<W>[] = []
  let busy = 0
  let jobs = 0

  const next = () => {
    while (waiting.length > 0 && busy < most) {
      busy++
      waiting.shift()!.begin(idle.pop() ?? start())
    }
  }
  return {
    run: <T>(work: (thread: W) => Promise<T>): Job<T> => {
      const id = ++jobs
      let at: W | null = null
      let isOver = false
      const leave = (thread: W, isFit: boolean) => {
        isOver = true
        busy--
        if (isFit) idle.push(thread)
        else thread.terminate()
        next()
      }
      const done = new Promise<T>((resolve, reject) => {
        const begin = (thread: W) => {
          at = thread
          work(thread).then(
            (value) => {
              if (isOver) return
              leave(thread, true)
              resolve(value)
            },
            (error: unknown) => {
              if (isOver) return
              // What broke once may be broken.
              leave(thread, false)
              reject(error as Error)
            },
          )
        }
        waiting.push({ id, begin })
      })
      next()
      return {
        id,
        done,
        stop: () => {
          if (isOver) return
          if (at) return leave(at, false)
          isOver = true
          waiting.splice(
            waiting.findIndex((one) => one.id === id),
            1,
          )
        },
      }
    },
  }
}
