import { chromium } from '@playwright/test'
import type { BrowserContext, Page } from '@playwright/test'
import config from './playwright.config.ts'
import { haveLargeGarden } from './large-garden.ts'
import { signUp } from './people.ts'

/**
 * What a garden's age costs: the round and one place's wood, cold (nothing on the device) and warm (after a visit), a tap
 * on the round, a tap that is dated back, what came over the line and what the page holds, with gardens of many sizes.
 */
const SIZES = (process.env.KLADOS_BENCH_ENTRIES ?? '10000 100000').split(' ').map(Number)
const GOALS = { cold: 3000, warm: 1000, tap: 10 } as const
const TAPS = 9

const browser = await chromium.launch({
  ...config.use!.launchOptions,
  args: [
    ...(config.use!.launchOptions?.args ?? []),
    '--enable-precise-memory-info',
    '--js-flags=--expose-gc',
  ],
})

const fixedIn = (page: Page) =>
  page.evaluate(() => {
    const times = Array.from({ length: 9 }, () => {
      const start = performance.now()
      const row = Float64Array.from({ length: 40_000 }, (_, i) => Math.sin(i * 12.9898) * 43758.5453)
      row.sort()
      return performance.now() - start + (row[0] === 0 ? 1 : 0)
    })
    return times.sort((a, b) => a - b)[4]!
  })

async function timed(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await work()
  return performance.now() - start
}
const round = (page: Page, garden: string) => async () => {
  await page.goto(`${garden}/round`)
  await page.getByRole('button', { name: 'Sound' }).first().waitFor({ timeout: 600_000 })
}

/** What the person waits for from a press until the frame after it is drawn, milliseconds; the middle of some. */
async function pressed(page: Page, name: string): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < TAPS; i++) {
    const button = page.getByRole('button', { name }).first()
    if ((await button.count()) === 0) break
    times.push(
      await button.evaluate(
        (element) =>
          new Promise<number>((resolve) => {
            const start = performance.now()
            ;(element as HTMLElement).click()
            requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start)))
          }),
      ),
    )
    await page.waitForTimeout(400)
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? Number.NaN
}

interface Measured {
  readonly [figure: string]: number
}

async function measure(entries: number): Promise<Measured> {
  const options = { baseURL: process.env.BASE_URL!, viewport: { width: 1280, height: 800 }, locale: 'en-GB' }
  const maker: BrowserContext = await browser.newContext(options)
  const page = await maker.newPage()
  const { garden } = await signUp(page)
  const made = performance.now()
  await page.goto('about:blank')
  const places = await haveLargeGarden(page, garden, entries)
  process.stdout.write(
    `      ${entries} entries at ${places.length} places made in ${((performance.now() - made) / 1000).toFixed(0)} s\n`,
  )
  const state = await maker.storageState()
  await maker.close()

  const context = await browser.newContext({ ...options, storageState: { ...state, origins: [] } })
  const here = await context.newPage()
  let bytes = 0
  const cdp = await context.newCDPSession(here)
  await cdp.send('Network.enable')
  cdp.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength))
  const cold = await timed(round(here, garden))
  const coldBytes = bytes
  const wood = `${garden}/places/${places[Math.floor(places.length / 2)]!}/wood`
  const drawn = async () => {
    await here.goto(wood)
    await here.locator('[data-wood]').first().waitFor({ state: 'attached', timeout: 600_000 })
  }
  await drawn()
  // What was read is folded on the device a little later, for the next time.
  await here.waitForTimeout(8000 + entries / 20)
  bytes = 0
  const warm = await timed(round(here, garden))
  await here.waitForTimeout(1500)
  const warmBytes = bytes
  const warmWood = await timed(drawn)
  await round(here, garden)()
  await here.waitForTimeout(1500)
  const tap = await pressed(here, 'Sound')
  await cdp.send('HeapProfiler.collectGarbage')
  const heap = await here.evaluate(
    () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize,
  )
  const fixed = await fixedIn(here)
  await context.close()
  return {
    'cold, ms': cold,
    'cold, kB': coldBytes / 1000,
    'warm, ms': warm,
    'warm, kB': warmBytes / 1000,
    'one wood warm, ms': warmWood,
    'a tap, ms': tap,
    'heap, MB': heap / 1e6,
    'fixed work, ms': fixed,
  }
}

const all: Measured[] = []
for (const entries of SIZES) {
  const measured = await measure(entries)
  all.push(measured)
  for (const [what, value] of Object.entries(measured))
    process.stdout.write(
      `      ${String(entries).padStart(8)} entries  ${what.padEnd(22)} ${value.toPrecision(3)}\n`,
    )
}
void GOALS
await browser.close()
