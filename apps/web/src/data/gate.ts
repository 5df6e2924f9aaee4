/**
 * Whether this window may ask the server just now. A server that says "later" is left alone until then by all that this
 * window does, reading and writing alike, and is then asked by one request alone.
 */
export interface Gate {
  /** True where a request may go out; whoever goes says afterwards how it ended. */
  readonly enter: () => boolean
  /** The server answered, other than with "later". */
  readonly passed: () => void
  /** No answer at all: that tells nothing of how busy it is. */
  readonly lost: () => void
  readonly later: (afterS: number | null) => void
  /** How long it is still shut. */
  readonly waitMs: () => number
}

const FIRST_WAIT_MS = 5000
const LONGEST_WAIT_MS = 60_000

/** `now` never runs backwards: the clock on the wall may be set while one waits. */
export function createGate(now: () => number): Gate {
  let until = 0
  let refusals = 0
  let isAsking = false
  return {
    enter: () => {
      if (now() < until || isAsking) return false
      isAsking = refusals > 0
      return true
    },
    passed: () => {
      refusals = 0
      until = 0
      isAsking = false
    },
    lost: () => {
      isAsking = false
    },
    later: (afterS) => {
      isAsking = false
      // Several that went out together are told the same thing once.
      if (now() < until) return
      refusals++
      const backOff = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (refusals - 1))
      until = now() + Math.max(backOff, (afterS ?? 0) * 1000)
    },
    waitMs: () => Math.max(0, until - now()),
  }
}
