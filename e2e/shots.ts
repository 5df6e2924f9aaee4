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
  await page.waitForLoadState('networkidle')
  await page.waitForTimeout(300)
  await page.screenshot({ path: `${folder}/${name}.png`, fullPage: isWhole })
}

async function links(page: Page, name: string): Promise<string[]> {
  return page.getByRole('main').getByRole('link', { name, exact: true }).evaluateAll((all) => all.map((a) => (a as HTMLAnchorElement).pathname)) // prettier-ignore
}

const page = await open(1280, 800)
await page.goto('/sign-in')
await shoot(page, 'sign-in')
const garden = await openDemo(page)
await shoot(page, 'places')
const [measures] = await links(page, 'Measures')
const [, front, lane] = await links(page, 'Frame')
const [pears, gatehouse] = await links(page, 'Wood')
await page.goto(measures!)
await shoot(page, 'measures')
await page.goto(lane!)
await page.getByRole('button', { name: 'Next' }).waitFor()
for (let i = 0; i < 9; i++) await page.getByRole('button', { name: 'Next' }).click()
await page.getByRole('button', { name: /^A .* m$/ }).click()
await shoot(page, 'frame-diamonds')
await page.getByRole('link', { name: 'Sheet to print' }).click()
await page.getByRole('heading', { name: 'Before you start' }).waitFor()
await shoot(page, 'sheet', true)
await page.goto(front!)
await shoot(page, 'frame-moved-nodes')
await page.goto(pears!)
await page.getByRole('button', { name: 'arm', exact: true }).first().click()
await shoot(page, 'wood')
await page.goto(`${gatehouse!}?on=${new Date().getUTCFullYear() - 1}-09-15`)
await shoot(page, 'wood-last-year')
await page.goto(`${garden}/round`)
await shoot(page, 'round')

const dark = await open(1280, 800, 'dark')
await openDemo(dark)
await dark.goto(pears!)
await shoot(dark, 'wood-dark')

const phone = await open(390, 844)
await openDemo(phone)
await phone.goto(`${garden}/round`)
await shoot(phone, 'round-phone')
await phone.goto(pears!)
await shoot(phone, 'wood-phone')
await browser.close()
