import { setTimeout as pause } from 'node:timers/promises'

/** It gives up after this many failures in a row. */
const MOST_FAILURES = 5
/** One that ends by itself sooner than this after it was ready has not come up at all. */
const SETTLED_MS = 10_000
const LONGEST_PAUSE_MS = 8000

/**
 * Keeps something running: starts it, and when it is gone starts it again, at once the first time and with
 * longer pauses as it fails. What somebody killed is no failure of its own. `launch` resolves when it is
 * ready, with `gone` for its end. Resolves when it was stopped; rejects with the last reason once it has
 * failed too often.
 */
export function keep({ name, launch, tell }) {
  let isStopping = false
  let failures = 0
  let onReady
  const ready = new Promise((resolve) => (onReady = resolve))
  const run = async () => {
    for (let round = 0; !isStopping; round++) {
      let why
      try {
        const running = await launch()
        const since = Date.now()
        if (round > 0) tell(`the ${name} is back`)
        onReady(running)
        const { code, signal, said = '' } = await running.gone
        if (isStopping) return
        const isOwnFault = code !== null && Date.now() - since < SETTLED_MS
        failures = isOwnFault ? failures + 1 : 0
        why = `the ${name} ended (${signal ?? (code === null ? 'lost' : `code ${code}`)})${said && isOwnFault ? `: ${said}` : ''}`
      } catch (error) {
        if (isStopping) return
        failures++
        why = `the ${name} did not start: ${error.message}`
        if (error.isFinal) throw new Error(why)
      }
      if (failures >= MOST_FAILURES) throw new Error(`${why}\nThat was ${failures} times in a row; giving up`)
      tell(`${why.split('\n')[0]}; starting it again`)
      if (failures > 0) await pause(Math.min(LONGEST_PAUSE_MS, 250 * 2 ** failures))
    }
  }
  const over = run()
  return {
    /** The first time that it was ready; rejects when it never came so far. */
    ready: Promise.race([ready, over]),
    over,
    stopping: () => (isStopping = true),
  }
}
