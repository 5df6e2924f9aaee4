import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { apiOf, haveWall, openDemo, signUp } from './people.ts'
import { isLong } from './third.ts'

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

interface Look {
  readonly size: { readonly width: number; readonly height: number }
  readonly theme: 'light' | 'dark'
  readonly rules: object
}
const WIDE = { width: 1280, height: 800 }
const NARROW = { width: 390, height: 844 }
const RULES = { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }
/** All that axe looks at that a theme's colours or a page's width have a part in. */
const RULES_OF_LOOKS = {
  type: 'rule',
  values: ['color-contrast', 'link-in-text-block', 'target-size', 'scrollable-region-focusable'],
}
/** Every rule once, what changes with the looks once more in the others; the long check goes through all looks. */
const LOOKS: readonly Look[] = [
  { size: WIDE, theme: 'light', rules: RULES },
  { size: NARROW, theme: 'dark', rules: RULES_OF_LOOKS },
]
const OTHER_LOOKS: readonly Look[] = [
  { size: NARROW, theme: 'light', rules: RULES },
  { size: WIDE, theme: 'dark', rules: RULES },
]
const looks = isLong ? [...LOOKS, ...OTHER_LOOKS] : LOOKS

/** What axe finds, and words whose gaps nobody filled. */
const violations = (page: Page, runOnly: object): Promise<string[]> =>
  page.evaluate(
    async (options) => {
      const gaps = document.body.innerText.match(/.*\{\{.*/g) ?? []
      const axe = (
        window as unknown as {
          axe: {
            run: (
              options: object,
            ) => Promise<{ violations: { id: string; nodes: { target: unknown; html: string }[] }[] }>
          }
        }
      ).axe
      const { violations } = await axe.run(options)
      const found = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)
      return [...found, ...gaps]
    },
    // Of what passes nothing is asked, nor where in the page it is.
    { runOnly, resultTypes: ['violations'], selectors: false },
  )

/** Holds what a page shows to the rules, in each of its looks; `where` names it. */
async function expectNothing(page: Page, where: string, isWhole = false): Promise<void> {
  await page.evaluate(axeSource)
  for (const { size, theme, rules } of looks) {
    await page.setViewportSize(size)
    await page.emulateMedia({ colorScheme: theme })
    await page.evaluate(
      () => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))),
    )
    const look = [where, theme, size.width]
    expect([look, await violations(page, rules)]).toEqual([look, []])
    if (!isWhole) continue
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    expect([look, overflow <= 0]).toEqual([look, true])
  }
  await page.setViewportSize(WIDE)
  await page.emulateMedia({ colorScheme: 'light' })
}

/** The paths of the links of one name on the places screen, in the order of the places. */
async function stands(page: Page, name: 'Measurements' | 'Frame' | 'Wood'): Promise<string[]> {
  const links = page.getByRole('main').getByRole('link', { name, exact: true })
  await links.first().waitFor()
  return links.evaluateAll((all) => all.map((link) => (link as HTMLAnchorElement).pathname))
}

test.describe('axe finds nothing', () => {
  test.setTimeout(180_000)
  for (const half of ['one half', 'the other half'] as const)
    test(`on any screen, ${half}`, async ({ page }) => {
      if (half === 'one half') {
        await page.goto('/sign-in')
        await page.getByRole('heading', { name: 'Sign in' }).waitFor()
        await expectNothing(page, 'sign-in', true)
      }
      const garden = await openDemo(page)
      const measures = await stands(page, 'Measurements')
      const frames = await stands(page, 'Frame')
      const wood = await stands(page, 'Wood')
      const screens = {
        'one half': [
          `${garden}/places`,
          `${garden}/places/new/measures`,
          measures[0]!,
          measures[6]!,
          frames[0]!,
          frames[5]!,
          wood[0]!,
        ],
        'the other half': [
          frames[9]!,
          `${frames[0]}/new`,
          `${frames[6]}/new`,
          frames[0]!.replace('/frame', '/variants'),
          wood[1]!,
          `${garden}/round`,
          `${garden}/people`,
          `${garden}/stores`,
        ],
      }
      for (const screen of screens[half]) {
        await page.goto(screen)
        await page.getByRole('main').getByRole('heading').first().waitFor()
        await expectNothing(page, screen, true)
      }
    })

  test('where something is opened or chosen', async ({ page }) => {
    const garden = await openDemo(page)
    const frames = await stands(page, 'Frame')
    await page.goto((await stands(page, 'Wood'))[0]!)
    for (const piece of ['trunk', 'arm']) {
      await page.getByRole('button', { name: piece }).first().click()
      await expectNothing(page, piece)
    }
    const places = (await (await page.request.get(`${apiOf(garden)}/places`)).json()) as {
      id: string
      body: { name: string }
    }[]
    const trial = places.find(({ body }) => body.name === 'Trial block')!
    const winter = `${new Date().getUTCFullYear() - 1}-02-05`
    await page.goto(`${garden}/places/${trial.id}/wood?on=${winter}`)
    await page.getByRole('radio', { name: 'White vine 1', exact: true }).click()
    for (const reading of ['Choose', 'Do', 'Count']) {
      await page.getByRole('group', { name: 'View' }).getByText(reading).click()
      await expectNothing(page, reading)
    }
    await page.getByRole('group', { name: 'View' }).getByText('Choose').click()
    await page.getByRole('complementary').getByRole('button', { name: /^A/ }).click()
    await expectNothing(page, 'a candidate')
    await page.goto(`${garden}/stores`)
    for (const tab of ['on hand', 'catalogue and rates']) {
      await page.getByRole('radio', { name: tab }).check()
      await expectNothing(page, tab)
    }
    await page.goto(frames[6]!)
    await page
      .getByText(/^Pull on anchor A1/)
      .first()
      .click()
    await page
      .getByText(/^1 wire, /)
      .first()
      .click()
    await page.getByRole('radio', { name: 'above' }).check()
    await page.locator('.recharts-surface').first().waitFor()
    await expectNothing(page, 'a check and a wire, opened')
    await page.getByRole('link', { name: 'Sheet to print' }).click()
    await page.waitForURL(/\/sheet/)
    await page.getByRole('heading', { name: 'Before you start' }).waitFor()
    await expectNothing(page, 'sheet')
    await page.goBack()
    await page.getByRole('link', { name: 'Build on site' }).click()
    await page.getByRole('radio', { name: 'Wires' }).check()
    await expectNothing(page, 'wires on site')
  })

  test('where something was refused, and at one’s own account', async ({ page }) => {
    await page.goto('/new-password#x')
    await page.getByRole('heading', { name: 'A new password' }).waitFor()
    await expectNothing(page, 'a new password')
    const { garden } = await signUp(page)
    const wall = await haveWall(page, garden)
    await page.goto(`${garden}/places/${wall}/wood`)
    await page.route('**/entries', (route) => {
      const { entries } = JSON.parse(route.request().postData()!) as { entries: unknown[] }
      const answers = entries.map((_, i) => ({
        answer: i % 2 === 0 ? 'refused' : 'held',
        code: 'journal/too-late',
        message: '',
      }))
      return route.fulfill({ headers: { 'klados-api': '3' }, json: { answers } })
    })
    for (const text of ['one', 'another']) {
      await page.getByLabel('A note').fill(text)
      await page.getByRole('button', { name: 'Save the note' }).click()
    }
    await page
      .getByText(/(was|were) refused/)
      .first()
      .click()
    await page.getByRole('button', { name: 'Send the corrected entry' }).first().waitFor()
    await expectNothing(page, 'the tray')
    await page.goto(`${garden}/people`)
    for (const danger of ['Delete your account', 'Leave Back yard', 'Delete Back yard'])
      await page.getByText(danger, { exact: true }).click()
    await expectNothing(page, 'what cannot be taken back')
    await page.request.delete(apiOf(garden), { data: { name: 'Back yard' } })
    await page.goto('/')
    await page.getByRole('heading', { name: 'You do not belong to a garden yet' }).waitFor()
    await expectNothing(page, 'no garden')
  })
})

test.describe('in a browser that has nothing of it yet', () => {
  test.use({ isApart: true })

  test('the first load is under 200 kB of script, gzipped', async ({ page }) => {
    let bytes = 0
    const sizes: Promise<void>[] = []
    // What is preloaded and then imported may be answered twice, and is loaded once.
    const seen = new Set<string>()
    page.on('response', (response) => {
      const url = response.url()
      if (seen.has(url) || (response.request().resourceType() !== 'script' && !url.endsWith('.js'))) return
      seen.add(url)
      sizes.push(response.body().then((body) => void (bytes += gzipSync(body).length)))
    })
    await page.goto('/')
    await page.getByRole('heading', { name: 'Sign in' }).waitFor()
    await page.waitForLoadState('networkidle')
    await Promise.all(sizes)
    expect(bytes).toBeGreaterThan(50_000)
    expect(bytes).toBeLessThan(200_000)
  })
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
  await page.waitForURL(/\/sheet/)
  await page.getByRole('heading', { name: 'Before you start' }).waitFor()
  await page.emulateMedia({ media: 'print' })
  for (const [format, widthPx] of [
    ['A4', 794 - 76],
    ['Letter', 816 - 76],
  ] as const) {
    await page.setViewportSize({ width: widthPx, height: 1000 })
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(widthPx)
    const pdf = await page.pdf({ format })
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  }
  expect(garden).toMatch(/^\/g\//)
})
