import { chromium } from '@playwright/test'
import type { Locator } from '@playwright/test'
import config from './playwright.config.ts'
import { fixedWorkIn } from './fixed-work.ts'
import { apiOf, enterDemo } from './people.ts'

/**
 * The demo garden on a slow phone: a processor of a sixth, a line of 400 kB/s. How long a tap waits for the next picture,
 * and the list of what is to do for its first button, cold and again.
 */
const SLOWER = 6
const LINE_BYTES_PER_S = 400 * 1024
const LATENCY_MS = 60
const GOALS = { tap: 100, cold: 4000, again: 2000 } as const
const TAPS = 6
/** What follows a tap is over before the next. */
const REST_MS = 1800

const browser = await chromium.launch(config.use!.launchOptions)
const context = await browser.newContext({
  baseURL: process.env.BASE_URL!,
  viewport: { width: 390, height: 844 },
  hasTouch: true,
  locale: 'en-GB',
})
const page = await context.newPage()
const garden = await enterDemo(page)
await page.goto('/favicon.svg')
const fixedMs = await fixedWorkIn(page)
const phone = await context.newCDPSession(page)
await phone.send('Network.enable')
await phone.send('Network.emulateNetworkConditions', {
  offline: false,
  latency: LATENCY_MS,
  downloadThroughput: LINE_BYTES_PER_S,
  uploadThroughput: LINE_BYTES_PER_S / 4,
})
await phone.send('Emulation.setCPUThrottlingRate', { rate: SLOWER })

function report(name: string, ms: number, goal: number): void {
  const ratio = `${(ms / fixedMs).toPrecision(3)} × fixed`
  process.stdout.write(
    `${ms <= goal ? 'met ' : 'MISS'}  ${name.padEnd(58)} ${`${ms.toFixed(0)} ms`.padStart(26)} ${ratio.padStart(14)}   goal ${goal} ms\n`,
  )
}

async function opened(path: string, first: Locator): Promise<number> {
  const begun = Date.now()
  await page.goto(`${garden}/${path}`)
  await first.waitFor()
  return Date.now() - begun
}

const sound = page.locator('li .btn-main').first()
report('slow phone: the list of what is to do, cold', await opened('round', sound), GOALS.cold)
await page.waitForTimeout(8000)
report('slow phone: the list of what is to do, again', await opened('round', sound), GOALS.again)

await page.addInitScript(() => {
  const waits = ((window as unknown as { waits: number[] }).waits = [] as number[])
  new PerformanceObserver((list) => {
    for (const { name, duration } of list.getEntries()) if (name === 'click') waits.push(duration)
  }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit)
})

/** The median wait of taps, each at a place that was asked for beforehand: to find it is no work of the page's own. */
async function taps(name: string, at: (n: number) => Locator): Promise<void> {
  const waits: number[] = []
  for (let n = 0; n < TAPS; n++) {
    await at(n).scrollIntoViewIfNeeded()
    const box = (await at(n).boundingBox())!
    await page.waitForTimeout(REST_MS)
    await page.evaluate(() => ((window as unknown as { waits: number[] }).waits.length = 0))
    await page.touchscreen.tap(box.x + box.width / 2, box.y + box.height / 2)
    await page.waitForTimeout(REST_MS)
    const told = await page.evaluate(() => (window as unknown as { waits: number[] }).waits)
    waits.push(Math.max(0, ...told))
  }
  report(`slow phone: ${name}, a tap`, waits.sort((a, b) => a - b)[TAPS / 2]!, GOALS.tap)
}

await opened('round', sound)
await taps('a tie on the list is sound', () => sound)
const places = (await (await page.request.get(`${apiOf(garden)}/places`)).json()) as {
  id: string
  body: { name: string }
}[]
const row = places.find(({ body }) => body.name === 'Trial block')!
await opened(`places/${row.id}/wood`, page.locator('[role=radiogroup] [role=radio]').first())
await taps('another plant of a row', (n) => page.locator('[role=radiogroup] [role=radio]').nth((n + 1) % 3))
await taps('another view of it', (n) =>
  page
    .getByRole('group', { name: 'View' })
    .locator('label')
    .nth((n + 1) % 3),
)
await browser.close()
