import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'
import { haveWall, openDemo, signUp } from './people.ts'

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

async function violations(page: Page): Promise<string[]> {
  await page.evaluate(axeSource)
  return page.evaluate(async () => {
    const axe = (window as unknown as { axe: { run: (options: object) => Promise<{ violations: { id: string; nodes: { target: unknown; html: string }[] }[] }> } }).axe // prettier-ignore
    const { violations } = await axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
    })
    return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)
  })
}

for (const theme of ['light', 'dark'] as const) {
  for (const width of [1280, 390]) {
    test(`axe finds nothing on any screen, ${theme}, ${width} px wide`, async ({ page }) => {
      await page.setViewportSize({ width, height: 800 })
      await page.emulateMedia({ colorScheme: theme })
      await page.goto('/sign-in')
      await page.getByRole('heading', { name: 'Sign in' }).waitFor()
      expect(await violations(page)).toEqual([])
      const garden = await openDemo(page)
      const hrefs = await page.getByRole('link', { name: /^(Measures|Frame|Wood)$/ }).evaluateAll((links) => links.map((link) => (link as HTMLAnchorElement).pathname)) // prettier-ignore
      const wood = hrefs.find((href) => href.endsWith('/wood'))!
      const screens = [...new Set([...hrefs, `${garden}/places`, `${garden}/places/new/measures`, `${garden}/round`, `${garden}/people`])] // prettier-ignore
      for (const screen of screens) {
        await page.goto(screen)
        await page.getByRole('main').getByRole('heading').first().waitFor()
        expect([screen, await violations(page)]).toEqual([screen, []])
        const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
        expect([screen, overflow <= 0]).toEqual([screen, true])
      }
      await page.goto(wood)
      await page.getByRole('button', { name: 'trunk' }).first().click()
      expect(await violations(page)).toEqual([])
      await page.goto(hrefs.find((href) => href.includes('/frame'))!)
      await page.getByRole('link', { name: 'Sheet to print' }).click()
      await page.getByRole('heading', { name: 'Before you start' }).waitFor()
      expect(await violations(page)).toEqual([])
    })
  }
}

test('the first load is under 200 kB of script, gzipped', async ({ page }) => {
  let bytes = 0
  const sizes: Promise<void>[] = []
  page.on('response', (response) => {
    if (response.request().resourceType() !== 'script' && !response.url().endsWith('.js')) return
    sizes.push(response.body().then((body) => void (bytes += gzipSync(body).length)))
  })
  await page.goto('/')
  await page.getByRole('heading', { name: 'Sign in' }).waitFor()
  await page.waitForLoadState('networkidle')
  await Promise.all(sizes)
  expect(bytes).toBeGreaterThan(50_000)
  expect(bytes).toBeLessThan(200_000)
})

test('both unit systems can be read everywhere, and a bare number takes the field’s unit', async ({
  page,
}) => {
  const garden = await signUp(page)
  const wall = await haveWall(page, garden.garden)
  await page.goto(`${garden.garden}/places/${wall}/measures`)
  await expect(page.getByLabel('Width')).toHaveValue('9.20 m')
  await page.locator('summary').first().click()
  await page.getByRole('radio', { name: 'Feet and inches' }).check()
  await expect(page.getByLabel('Width')).toHaveValue(`30' 2"`)
  await page.keyboard.press('Escape')
  await page.getByLabel('Width').fill('20')
  await page.getByLabel('Name', { exact: true }).focus()
  await expect(page.getByLabel('Width')).toHaveValue(`20' 0"`)
})

test('a printed sheet fits its page', async ({ page }) => {
  const garden = await openDemo(page)
  const frame = (await page.getByRole('link', { name: 'Frame', exact: true }).last().getAttribute('href'))!
  await page.goto(frame)
  await page.getByRole('link', { name: 'Sheet to print' }).click()
  await page.getByRole('heading', { name: 'Before you start' }).waitFor()
  await page.emulateMedia({ media: 'print' })
  for (const [format, widthPx] of [
    ['A4', 794 - 76],
    ['Letter', 816 - 76],
  ] as const) {
    // prettier-ignore
    await page.setViewportSize({ width: widthPx, height: 1000 })
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(widthPx)
    const pdf = await page.pdf({ format })
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  }
  expect(garden).toMatch(/^\/g\//)
})
