/** One kind of sending, that goes on until it has nothing more to do. */
export interface Lane {
  /** Begins, or has what is under way look once more. */
  readonly kick: () => void
  /** What is under way; null while nothing is. */
  readonly running: () => Promise<void> | null
}

export function createLane(work: () => Promise<void>): Lane {
  let running: Promise<void> | null = null
  let isAgain = false
  const run = async () => {
    do {
      isAgain = false
      await work()
    } while (isAgain)
    running = null
  }
  return {
    kick: () => {
      if (running) isAgain = true
      else running = run()
    },
    running: () => running,
  }
}
