import { chromium } from '@playwright/test'
import { writeFileSync } from 'node:fs'
import config from './playwright.config.ts'
import { haveLargeGarden } from './large-garden.ts'
import { signUp } from './people.ts'
const browser = await chromium.launch(config.use!.launchOptions)
const options = { baseURL: process.env.BASE_URL!, viewport: { width: 1280, height: 800 }, locale: 'en-GB' }
const maker = await browser.newContext(options)
const p0 = await maker.newPage()
const { garden } = await signUp(p0)
await p0.goto('about:blank')
await haveLargeGarden(p0, garden, Number(process.env.N ?? 100000))
const state = await maker.storageState()
await maker.close()
const context = await browser.newContext({ ...options, storageState: { ...state, origins: [] } })
const page = await context.newPage()
const cdp = await context.newCDPSession(page)
const prof = async (name: string, work: () => Promise<unknown>) => {
  await cdp.send('Profiler.enable')
  await cdp.send('Profiler.setSamplingInterval', { interval: 500 })
  await cdp.send('Profiler.start')
  const s = performance.now()
  await work()
  console.log(name, Math.round(performance.now() - s))
  const { profile } = await cdp.send('Profiler.stop')
  writeFileSync(`/tmp/y-${name}.cpuprofile`, JSON.stringify(profile))
}
const round = async () => {
  await page.goto(`${garden}/round`)
  await page.getByRole('button', { name: 'Sound' }).first().waitFor({ timeout: 600_000 })
}
page.on('console', (m) => console.log('page:', m.text()))
await prof('cold', round)
await page.waitForTimeout(12000)
await prof('warm', round)
await page.waitForTimeout(2000)
await prof('tap', async () => {
  for (let i = 0; i < 3; i++) {
    await page.getByRole('button', { name: 'Sound' }).first().click()
    await page.waitForTimeout(500)
  }
})
await page.screenshot({ path: '/tmp/shots/years.png' })
await browser.close()
