/**
 * Runs `work` often enough to be told from noise and gives the median and the 95th percentile, in
 * milliseconds.
 */
export async function measure(runs: number, work: () => unknown): Promise<{ median: number; p95: number }> {
  for (let i = 0; i < Math.min(3, runs); i++) await work()
  const times: number[] = []
  for (let i = 0; i < runs; i++) {
    const start = performance.now()
    await work()
    times.push(performance.now() - start)
  }
  times.sort((a, b) => a - b)
  return { median: times[Math.floor(runs / 2)]!, p95: times[Math.min(runs - 1, Math.floor(runs * 0.95))]! }
}

/** One figure; with what it took also as so many times the fixed piece of work, which any machine can be told by. */
export function report(name: string, value: string, goal: string, isMet: boolean, tookMs?: number): void {
  const ratio = tookMs === undefined ? '' : `${(tookMs / fixedWorkMs()).toPrecision(3)} × fixed`
  process.stdout.write(
    `${isMet ? 'met ' : 'MISS'}  ${name.padEnd(58)} ${value.padStart(26)} ${ratio.padStart(14)}   goal ${goal}\n`,
  )
}

const FIXED_NUMBERS = 40_000
const FIXED_RUNS = 9
let fixedMs: number | null = null

/**
 * Median time of the same piece of work in every run of the bench: numbers of a fixed row made, sorted and added up.
 * Machines differ and are shared; a figure that is the same number of times this work is the same figure.
 */
export function fixedWorkMs(): number {
  if (fixedMs !== null) return fixedMs
  const times = Array.from({ length: FIXED_RUNS }, () => {
    const start = performance.now()
    const row = Float64Array.from({ length: FIXED_NUMBERS }, (_, i) => Math.sin(i * 12.9898) * 43758.5453)
    row.sort()
    let sum = 0
    for (const value of row) sum += Math.sqrt(Math.abs(value))
    if (Number.isNaN(sum)) throw new Error('The fixed work is no number')
    return performance.now() - start
  })
  fixedMs = times.sort((a, b) => a - b)[FIXED_RUNS >> 1]!
  process.stdout.write(`fixed piece of work: ${ms(fixedMs)}\n`)
  return fixedMs
}

export const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 1)} ms`
