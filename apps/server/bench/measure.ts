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

export function report(name: string, value: string, goal: string, isMet: boolean): void {
  process.stdout.write(
    `${isMet ? 'met ' : 'MISS'}  ${name.padEnd(58)} ${value.padStart(26)}   goal ${goal}\n`,
  )
}

export const ms = (value: number) => `${value.toFixed(value < 10 ? 2 : 1)} ms`
