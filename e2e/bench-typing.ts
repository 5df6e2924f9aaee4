import { chromium } from '@playwright/test'
import type { Page } from '@playwright/test'
import config from './playwright.config.ts'
import { fixedWorkIn } from './fixed-work.ts'
import { haveWall, signUp } from './people.ts'

/**
 * The longest tasks of the interface while somebody types into a bench: what a key has to wait for. An order of 300
 * pieces of many lengths, and a row built forty times.
 */
const GOAL_P95_MS = 50
const KEYS = 40
const KEY_EVERY_MS = 160

const browser = await chromium.launch(config.use!.launchOptions)
const page = await browser.newPage({
  baseURL: process.env.BASE_URL!,
  viewport: { width: 1280, height: 800 },
  locale: 'en-GB',
})
const { garden } = await signUp(page)

const fixedMs = await fixedWorkIn(page)

async function begin(kind: string, place: object): Promise<void> {
  const id = await haveWall(page, garden, place)
  await page.goto(`${garden}/places/${id}/frame`)
  await page
    .getByRole('button', { name: `Begin: ${kind}` })
    .first()
    .click()
  // The figures that are typed into here lie in folds.
  await page.getByRole('button', { name: 'Ask for every figure' }).click()
}

/**
 * Tasks that held the interface at each real key in a field that begins with `start` and stays possible all along: its
 * last digit taken out and another put in. Keys, since looking the field up anew would itself be a task of the page.
 */
async function longestOfKeys(at: Page, label: string, start: string): Promise<number[]> {
  const field = at.getByLabel(label)
  await field.fill(start)
  await field.press('End')
  for (let i = 0; i < ' m'.length; i++) await at.keyboard.press('ArrowLeft')
  // What was begun with the field's first value is not what the first key waits for.
  await at.waitForTimeout(4000)
  await at.evaluate(() => {
    const seen = ((window as unknown as { tasks: number[] }).tasks = [] as number[])
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.push(entry.duration)
    }).observe({ entryTypes: ['longtask'] })
  })
  const longest: number[] = []
  for (let i = 0; i < KEYS; i++) {
    await at.evaluate(() => ((window as unknown as { tasks: number[] }).tasks.length = 0))
    await at.keyboard.press(i % 2 === 0 ? 'Backspace' : `${1 + ((i >> 1) % 9)}`)
    await at.waitForTimeout(KEY_EVERY_MS)
    const tasks = await at.evaluate(() => (window as unknown as { tasks: number[] }).tasks)
    // The browser tells of tasks from 50 ms on; below that a key is answered at once.
    longest.push(Math.max(0, ...tasks))
  }
  return longest.sort((a, b) => a - b)
}

function report(name: string, longest: readonly number[]): void {
  const p95 = longest[Math.floor(longest.length * 0.95)]!
  const most = longest.at(-1)!
  const words = p95 === 0 ? 'none over 50 ms' : `p95 ${p95.toFixed(0)} ms`
  process.stdout.write(
    `${p95 < GOAL_P95_MS ? 'met ' : 'MISS'}  ${name.padEnd(58)} ${`${words}, longest ${most.toFixed(0)} ms`.padStart(26)} ${`${(p95 / fixedMs).toPrecision(3)} × fixed`.padStart(14)}   goal ${GOAL_P95_MS} ms\n`,
  )
}

await begin('Level tiers', { name: 'Order of pieces', widthM: 60, usableHeightM: 3 })
await page.getByLabel('Largest support spacing').fill('1 m')
await page.getByLabel('Longest piece you can handle').fill('1.2 m')
report(
  'typing into an order of hundreds of pieces, longest task',
  await longestOfKeys(page, 'Longest piece you can handle', '1.20 m'),
)

await begin('Row', {
  name: 'Forty rows',
  kind: 'row',
  surface: 'open',
  widthM: 120,
  firstForkM: 0,
  usableHeightM: 2,
})
await page.getByLabel('Number of identical frames').fill('40')
report(
  'typing into a row built forty times, longest task',
  await longestOfKeys(page, 'Largest post spacing', '4.50 m'),
)
await browser.close()
