import { gzipSync } from 'node:zlib'
import type { Page } from '@playwright/test'
import { expect, test } from './fixtures.ts'
import { expectNothing, runningOffEnlarged } from './looks.ts'
import { NO_TEXTS, english, speakMadeUp, wordsIn, written } from './made-up.ts'
import { apiOf, enterDemo, haveWall, openDemo, signUp } from './people.ts'
import { isTaken } from './third.ts'

/** Where the screens of the demo garden are: a third of them, another with each run of the check. */
async function demoScreens(page: Page, garden: string): Promise<string[]> {
  const read = async <T>(part: string) =>
    (await (await page.request.get(`${apiOf(garden)}/${part}`)).json()) as T[]
  const places = await read<{ id: string }>('places')
  const frames = await read<{ id: string; body: { placeId: string } }>('frames')
  const winter = `${new Date().getUTCFullYear() - 1}-02-05`
  const single = ['places', 'places/new/measures', 'round', 'people', 'stores']
  return [
    ...[...single, `places/${places[0]!.id}/variants`, `places/${places[6]!.id}/frame/new`].filter((_, at) =>
      isTaken(at),
    ),
    ...[...places.entries()]
      .filter(([at]) => isTaken(at))
      .flatMap(([at, { id }]) => [
        `places/${id}/frame`,
        at % 2 === 0 ? `places/${id}/measures` : `places/${id}/wood?on=${winter}`,
      ]),
    ...frames
      .filter((_, at) => isTaken(at))
      .slice(0, 2)
      .flatMap(({ id, body }) =>
        ['sheet', 'build'].map((part) => `places/${body.placeId}/frame/${id}/${part}`),
      ),
  ].map((path) => `${garden}/${path}`)
}

/**
 * Each screen once, in a language whose every text is longer: what is English there was never in the texts, what fits
 * there fits in any, and what axe looks at is in no language. Then once more with letters twice as large on the smallest
 * phone. Each names itself.
 */
test.describe('in a language that nobody speaks nothing is English, nothing runs off the page, and axe finds nothing', () => {
  test.setTimeout(180_000)
  const look = async (page: Page, path: string, known: ReadonlySet<string>) => {
    await page.goto(path)
    await page.getByRole('heading').first().waitFor()
    // A stream of news stays open; what a screen asks for first is there by then.
    await page.waitForLoadState('networkidle', { timeout: 1500 }).catch(() => undefined)
    expect.soft([path, await english(page, known)]).toEqual([path, []])
    await expectNothing(page, path, true)
    expect.soft([path, await runningOffEnlarged(page)]).toEqual([path, []])
    return page.title()
  }

  test('at the door and in an empty garden', async ({ page }) => {
    await speakMadeUp(page)
    const taken = (paths: readonly string[]) => paths.filter((_, at) => isTaken(at))
    for (const path of taken(['/sign-in', '/recover', '/new-password#x']))
      await look(page, path, new Set(wordsIn(NO_TEXTS)))
    const { garden } = await signUp(page)
    const own = await written(page, garden)
    for (const path of taken(['places', 'round', 'people', 'stores', 'places/new/measures']))
      await look(page, `${garden}/${path}`, own)
  })

  for (const half of [0, 1])
    test(`on any screen of the demo garden, half ${half + 1}`, async ({ page }) => {
      await speakMadeUp(page)
      const garden = await enterDemo(page)
      const known = await written(page, garden)
      const screens = await demoScreens(page, garden)
      const titles: string[] = []
      for (const screen of screens.filter((_, at) => at % 2 === half))
        titles.push(await look(page, screen, known))
      for (const title of titles) expect(title).toMatch(/^.{4,} – Kládós$/)
      expect(new Set(titles).size).toBe(titles.length)
    })
})

/** The paths of the links of one name on the places screen, in the order of the places. */
async function stands(page: Page, name: 'Frame' | 'Plants'): Promise<string[]> {
  const links = page.getByRole('main').getByRole('link', { name, exact: true })
  await links.first().waitFor()
  return links.evaluateAll((all) => all.map((link) => (link as HTMLAnchorElement).pathname))
}

test.describe('axe finds nothing', () => {
  test.setTimeout(180_000)
  test('where something is opened or chosen', async ({ page }) => {
    let states = 0
    const lookAt = async (where: string) => (isTaken(states++) ? expectNothing(page, where) : undefined)
    const garden = await openDemo(page)
    await page.goto((await stands(page, 'Plants'))[0]!)
    for (const piece of ['trunk', 'arm']) {
      await page.getByRole('button', { name: piece }).first().click()
      await lookAt(piece)
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
      await lookAt(reading)
    }
    await page.getByRole('group', { name: 'View' }).getByText('Choose').click()
    await page.getByRole('complementary').getByRole('button', { name: /^A/ }).click()
    await lookAt('a candidate')
    await page.goto(`${garden}/stores`)
    for (const tab of ['on hand', 'catalogue and rates']) {
      await page.getByRole('radio', { name: tab }).check()
      await lookAt(tab)
    }
    await page.goto(`${garden}/places/${trial.id}/frame`)
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
    await lookAt('a check and a wire, opened')
    await page.getByRole('link', { name: 'Sheet to print' }).click()
    await page.waitForURL(/\/sheet/)
    await page.getByRole('heading', { name: 'Before you start' }).waitFor()
    await lookAt('sheet')
    await page.goBack()
    await page.getByRole('link', { name: 'Build on site' }).click()
    await page.getByRole('radio', { name: 'Wires' }).check()
    await lookAt('wires on site')
  })

  test('where something was refused, and at one’s own account', async ({ page }) => {
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
  // 9.20 m lies between the marks of a tape in inches, and says so.
  await expect(page.getByLabel('Width')).toHaveValue(`≈ 30' 2"`)
  await page.keyboard.press('Escape')
  await page.getByLabel('Width').fill('20')
  await page.getByLabel('Name', { exact: true }).focus()
  await expect(page.getByLabel('Width')).toHaveValue(`20' 0"`)
})

test('in a reader’s own dark colours wood, wire and letters stand out from the ground', async ({ page }) => {
  const garden = await openDemo(page)
  const [place] = (await (await page.request.get(`${apiOf(garden)}/places`)).json()) as { id: string }[]
  await page.emulateMedia({ forcedColors: 'active', colorScheme: 'dark' })
  await page.goto(`${garden}/places/${place!.id}/wood`)
  await page.locator('[data-wood] path').first().waitFor({ state: 'attached' })
  const shown = await page.evaluate(() => {
    const context = Object.assign(document.createElement('canvas'), { width: 1, height: 1 }).getContext('2d')!
    const bright = (colour: string) => {
      context.fillStyle = colour
      context.fillRect(0, 0, 1, 1)
      return Math.max(...context.getImageData(0, 0, 1, 1).data.slice(0, 3))
    }
    const strokes = (selector: string) =>
      [...document.querySelectorAll(selector)]
        .map((mark) => getComputedStyle(mark).stroke)
        .filter((stroke) => stroke !== 'none' && stroke !== 'rgba(0, 0, 0, 0)')
        .map(bright)
    return {
      ground: bright(getComputedStyle(document.body).backgroundColor),
      wood: Math.max(...strokes('[data-wood] path')),
      wire: Math.min(...strokes('.draw-wire')),
      letters: bright(getComputedStyle(document.querySelector('.draw-label')!).fill),
    }
  })
  expect(shown.ground).toBeLessThan(40)
  expect(Math.min(shown.wood, shown.wire, shown.letters)).toBeGreaterThan(180)
})

test('a printed sheet fits its page, and is light however dark the screen is', async ({ page }) => {
  const garden = await openDemo(page)
  const frame = (await page.getByRole('link', { name: 'Frame', exact: true }).last().getAttribute('href'))!
  await page.goto(frame)
  await page.getByRole('link', { name: 'Sheet to print' }).click()
  await page.waitForURL(/\/sheet/)
  await page.getByRole('heading', { name: 'Before you start' }).waitFor()
  await page.emulateMedia({ media: 'screen', colorScheme: 'dark' })
  const ink = () => page.evaluate(() => getComputedStyle(document.body).color)
  await expect.poll(ink).toBe('rgb(238, 233, 222)')
  await page.emulateMedia({ media: 'print', colorScheme: 'dark' })
  expect(await ink()).toBe('rgb(35, 38, 42)')
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
