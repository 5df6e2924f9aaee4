import type { Page } from '@playwright/test'

/** A fixed piece of work in the page itself, milliseconds: what this machine's browser does at this minute. */
export const fixedWorkIn = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const times = Array.from({ length: 9 }, () => {
      const start = performance.now()
      const row = Float64Array.from({ length: 40_000 }, (_, i) => Math.sin(i * 12.9898) * 43758.5453)
      row.sort()
      return performance.now() - start + (row[0] === 0 ? 1 : 0)
    })
    return times.sort((a, b) => a - b)[4]!
  })
