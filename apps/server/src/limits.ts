import type { Limits } from './area.ts'
import type { LineLimits } from './line-watch.ts'

const MINUTE = 60
const HOUR = 3600

/** Kept without the other limits too: it is no measure of what somebody asks for. */
const lines: LineLimits = { leastBytesPerS: 300, overMs: 30_000 }

/** For a server that strangers can reach as well as for one at home: far above what anybody does by hand. */
export const usualLimits: Limits = {
  signIns: { turns: 20, seconds: MINUTE },
  signUps: { turns: 20, seconds: HOUR },
  demoVisits: { turns: 20, seconds: HOUR },
  guesses: { free: 5, longestS: 15 * MINUTE },
  requests: { turns: 3000, seconds: MINUTE },
  photos: { turns: 200, seconds: HOUR },
  imports: { turns: 30, seconds: HOUR },
  gardens: 30,
  bytes: 4 * 1024 ** 3,
  lines,
}

/** Counted nowhere: a process without limits has nothing to tell those that have them. */
const never = { turns: Number.POSITIVE_INFINITY, seconds: MINUTE }
/** For measurements, which would else measure the limiter. */
export const noLimits: Limits = {
  signIns: never,
  signUps: never,
  demoVisits: never,
  guesses: { free: Number.POSITIVE_INFINITY, longestS: 0 },
  requests: never,
  photos: never,
  imports: never,
  gardens: 1e6,
  bytes: 1e15,
  lines,
}
