import { chromium } from '@playwright/test'
import type { Page } from '@playwright/test'
import config from './playwright.config.ts'
import { openDemo } from './people.ts'

const folder = process.env.SHOTS!
const baseURL = process.env.BASE_URL!
const browser = await chromium.launch(config.use!.launchOptions)

async function open(width: number, height: number, colorScheme: 'light' | 'dark' = 'light'): Promise<Page> {
  const context = await browser.newContext({
    baseURL,
    viewport: { width, height },
    colorScheme,
    locale: 'en-GB',
  })
  return context.newPage()
}

async function shoot(page: Page, name: string, isWhole = false): Promise<void> {
  // The script of a worker that was called off while it loaded never counts as ended.
  await page.waitForLoadState('networkidle', { timeout: 4000 }).catch(() => undefined)
  await page.waitForTimeout(300)
  await page.screenshot({ path: `${folder}/${name}.png`, fullPage: isWhole })
}

interface Named {
  readonly id: string
  readonly body: { readonly name: string }
}

const page = await open(1280, 800)
await page.goto('/sign-in')
await shoot(page, 'sign-in')
const garden = await openDemo(page)
await shoot(page, 'places', true)
const places = (await (
  await page.request.get(`/api${garden.replace('/g/', '/gardens/')}/places`)
).json()) as Named[]
const at = (name: string, screen: string) =>
  `${garden}/places/${places.find((place) => place.body.name.startsWith(name))!.id}/${screen}`

await page.goto(at('South wall', 'measures'))
await shoot(page, 'measures')
await page.goto(at('Lane fence', 'frame'))
await page.getByRole('button', { name: 'Next' }).waitFor()
for (let i = 0; i < 9; i++) await page.getByRole('button', { name: 'Next' }).click()
await page.getByRole('button', { name: /^A .* m$/ }).click()
await page.evaluate(() => window.scrollTo(0, 0))
await shoot(page, 'frame-diamonds')
await page.getByRole('link', { name: 'Sheet to print' }).click()
await page.waitForURL(/\/sheet/)
await page.getByRole('heading', { name: 'Before you start' }).waitFor()
await shoot(page, 'sheet', true)
await page.goto(at('Gatehouse', 'frame'))
await shoot(page, 'frame-moved-nodes')
await page.goto(at('Trial block', 'frame'))
await shoot(page, 'frame-row')
await page
  .getByText(/^1 wire, /)
  .first()
  .click()
const curve = page.locator('.recharts-surface').first()
await curve.waitFor()
await curve.scrollIntoViewIfNeeded()
await shoot(page, 'wire-year')
await page.goto(at('Kiwi pergola', 'frame'))
await page.getByRole('radio', { name: 'above' }).check()
await shoot(page, 'frame-pergola')
await page.goto(at('Lane fence', 'frame'))
await page.getByRole('button', { name: 'A variant' }).click()
await page.getByLabel('Kind of frame').selectOption('zigzag')
await page.getByRole('link', { name: 'Side by side' }).click()
await page.getByRole('main').getByRole('heading').first().waitFor()
await shoot(page, 'variants')
await page.goto(`${garden}/stores`)
await page.getByRole('table').waitFor()
await shoot(page, 'stores')
await page.goto(at('South wall', 'wood'))
await page.getByRole('button', { name: 'arm', exact: true }).first().click()
await shoot(page, 'wood')
await page.goto(`${at('Gatehouse', 'wood')}?on=${new Date().getUTCFullYear() - 1}-09-15`)
await shoot(page, 'wood-last-year')
await page.goto(`${garden}/round`)
await shoot(page, 'round')

// What a server would not take, as the tray shows it: one note of a day to come, and one of a part that one
// has not.
await page.goto(at('South wall', 'wood'))
await page.route('**/entries', (route) => {
  const { entries } = JSON.parse(route.request().postData()!) as { entries: { body: { text: string } }[] }
  const answers = entries.map(({ body }) =>
    body.text.startsWith('Tied')
      ? { answer: 'refused', code: 'journal/too-late', message: '' }
      : { answer: 'held', code: 'garden/not-allowed', message: '' },
  )
  return route.fulfill({ headers: { 'klados-api': '2' }, json: { answers } })
})
for (const text of ['Tied the third arm to its wire', 'Old tie cut off', 'A shoot rubbed out']) {
  await page.getByLabel('A note').fill(text)
  await page.getByRole('button', { name: 'Write it down' }).click()
  await page.waitForTimeout(300)
}
await page
  .getByText(/was not taken/)
  .first()
  .click()
await page.evaluate(() => window.scrollTo(0, 0))
await shoot(page, 'tray')

const dark = await open(1280, 800, 'dark')
await openDemo(dark)
await dark.goto(at('South wall', 'wood'))
await shoot(dark, 'wood-dark')

const phone = await open(390, 844)
await openDemo(phone)
await phone.goto(`${garden}/round`)
await shoot(phone, 'round-phone')
await phone.goto(at('South wall', 'wood'))
await shoot(phone, 'wood-phone')
await phone.goto(at('Trial block', 'frame'))
await phone.getByRole('link', { name: 'Build it, on site' }).click()
await phone.getByRole('radio', { name: 'Wires' }).check()
await shoot(phone, 'build-phone')
await browser.close()
