import { chromium } from '@playwright/test'
import type { Page } from '@playwright/test'
import config from './playwright.config.ts'
import { apiOf, haveEntries, havePlant, haveWall, openDemo } from './people.ts'
import { grewBody } from '../packages/core/test/bodies.ts'

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
const garden = await openDemo(page)
await shoot(page, 'places', true)
const places = (await (await page.request.get(`${apiOf(garden)}/places`)).json()) as Named[]
// Places have the same ids in every copy of the demo.
const at = (name: string, screen: string, of = garden) =>
  `${of}/places/${places.find((place) => place.body.name.startsWith(name))!.id}/${screen}`

await page.goto(at('South wall', 'measures'))
await shoot(page, 'measures')
await page.goto(at('Lane fence', 'frame'))
await page.locator('summary', { hasText: 'Fixings' }).click()
for (let i = 0; i < 9; i++) await page.getByRole('button', { name: 'Next', exact: true }).click()
await page.getByRole('button', { name: /^A .* m$/ }).click()
await page.evaluate(() => window.scrollTo(0, 0))
await shoot(page, 'frame-diamonds')
await page.getByRole('link', { name: 'Sheet to print' }).click()
await page.waitForURL(/\/sheet/)
await page.getByRole('heading', { name: 'Before you start' }).waitFor()
await shoot(page, 'sheet', true)
await page.goto(at('Trial block', 'frame'))
await shoot(page, 'frame-row')
await page.goto(at('Lane fence', 'frame'))
await page.getByRole('button', { name: 'Make a variant' }).click()
await page.getByLabel('Kind of frame').selectOption('zigzag')
await page.getByRole('link', { name: 'Compare side by side' }).click()
await page.getByRole('main').getByRole('heading').first().waitFor()
await shoot(page, 'variants')
await page.goto(`${garden}/stores`)
await page.getByRole('table').waitFor()
await shoot(page, 'stores')
await page.goto(at('South wall', 'wood'))
await page.getByRole('radio', { name: 'East pear', exact: true }).click()
await shoot(page, 'wood')
// The winter before last year's cut: the same question on any day that these are taken.
const winter = `${new Date().getUTCFullYear() - (new Date().toISOString().slice(5, 10) > '03-05' ? 0 : 1)}-02-05`
await page.goto(`${at('Trial block', 'wood')}?on=${winter}`)
await page.getByRole('radio', { name: 'White vine 1', exact: true }).click()
await page.getByRole('group', { name: 'View' }).getByText('Choose').click()
await shoot(page, 'wood-choose')
await page.getByRole('button', { name: 'Save as plan' }).click()
await page.evaluate(() => window.scrollTo(0, 0))
await shoot(page, 'wood-do')
await page.getByRole('group', { name: 'View' }).getByText('Count').click()
await shoot(page, 'wood-count')
await page.goto(at('Kiwi pergola', 'wood'))
await page.getByRole('radio', { name: 'Kiwi, female', exact: true }).click()
await page.getByRole('group', { name: 'Seen from' }).getByText('Above').click()
await shoot(page, 'wood-overhead')
await oldPear()
await shoot(page, 'wood-old')
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
  return route.fulfill({ headers: { 'klados-api': '3' }, json: { answers } })
})
for (const text of ['Tied the third arm to its wire', 'Old tie cut off', 'A shoot rubbed out']) {
  await page.getByLabel('A note').fill(text)
  await page.getByRole('button', { name: 'Save the note' }).click()
  await page.waitForTimeout(300)
}
await page
  .getByText(/was refused/)
  .first()
  .click()
await page.evaluate(() => window.scrollTo(0, 0))
await shoot(page, 'tray')

const dark = await open(1280, 800, 'dark')
const darkGarden = await openDemo(dark)
await dark.goto(`${at("Bothy's gable", 'wood', darkGarden)}?on=${winter}`)
await dark.getByRole('group', { name: 'View' }).getByText('Choose').click()
await shoot(dark, 'wood-dark')

const phone = await open(390, 844)
const phoneGarden = await openDemo(phone)
await phone.goto(`${phoneGarden}/round`)
// As it is among wet leaves: without a signal, what was done waits to be sent.
await phone.getByRole('button', { name: 'Sound' }).first().waitFor()
await phone.route('**/api/**', (route) => route.abort())
for (let i = 0; i < 2; i++) await phone.getByRole('button', { name: 'Sound' }).first().click()
await phone.getByText(/waiting to be sent/).waitFor()
await phone.evaluate(() => window.scrollTo(0, 0))
await shoot(phone, 'round-phone')
await phone.unroute('**/api/**')
await phone.goto(`${at('Trial block', 'wood', phoneGarden)}?on=${winter}`)
await phone.getByRole('radio', { name: 'White vine 3', exact: true }).click()
await phone.getByRole('group', { name: 'View' }).getByText('Choose').click()
await shoot(phone, 'wood-phone')
await phone.goto(at('Trial block', 'frame', phoneGarden))
await phone.getByRole('link', { name: 'Build on site' }).click()
await phone.getByRole('radio', { name: 'Wires' }).check()
await shoot(phone, 'build-phone')
await browser.close()

/** A pear of thirty years on five tiers, with some two thousand pieces of wood: what is in question is in ink. */
async function oldPear(): Promise<void> {
  const place = await haveWall(page, garden, {
    name: 'Long wall',
    widthM: 13,
    usableHeightM: 2.2,
    firstForkM: 0.4,
  })
  await page.goto(`${garden}/places/${place}/frame`)
  await page.getByRole('button', { name: 'Begin: Level tiers' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByText(/^Revision 1,/).waitFor()
  const frames = (await (await page.request.get(`${apiOf(garden)}/frames`)).json()) as {
    body: { placeId: string; design: { pattern: { levels: { heightM: number }[] } } }
  }[]
  const { body } = frames.find((one) => one.body.placeId === place)!
  const tiers = body.design.pattern.levels.map(({ heightM }) => heightM)
  const plant = await havePlant(page, garden, place, {
    name: 'Old pear',
    kindId: 'pear',
    xM: 6.5,
    plantedOn: '1996-11-01',
    system: 'level-tiers',
  })
  const id = () => crypto.randomUUID()
  const entries: { kind: string; at: string; body: object }[] = []
  const grew = (
    pieceId: string,
    on: { pieceId: string; alongM: number } | null,
    path: [number, number][],
    seasonsOld: number,
    baseMm: number,
    role: string | null,
  ) =>
    entries.push({
      kind: 'piece.grew',
      at: winter,
      body: grewBody(pieceId, {
        ...(on && { parent: { on: 'piece', ...on } }),
        path: path.map(([xM, yM]) => ({ xM, yM })),
        seasonsOld,
        baseMm,
        role,
      }),
    })
  let under: { pieceId: string; alongM: number } | null = null
  let footM = 0
  for (const [tier, heightM] of tiers.slice(0, -1).entries()) {
    const trunk = id()
    grew(
      trunk,
      under,
      [
        [6.5, footM],
        [6.5, heightM],
      ],
      30 - tier,
      110 - 15 * tier,
      'trunk',
    )
    under = { pieceId: trunk, alongM: heightM - footM }
    footM = heightM
    for (const side of [-1, 1]) {
      const arm = id()
      grew(
        arm,
        under,
        [
          [6.5, heightM],
          [6.5 + side * 6, heightM],
        ],
        28 - tier,
        60 - 8 * tier,
        'arm',
      )
      for (let alongM = 0.2; alongM < 5.9; alongM += 0.12) {
        const xM = 6.5 + side * alongM
        const spur = id()
        grew(
          spur,
          { pieceId: arm, alongM },
          [
            [xM, heightM],
            [xM + 0.02, heightM + 0.08],
          ],
          9,
          14,
          'spur',
        )
        for (const [n, lean] of [-0.05, 0.01, 0.06, 0.03].entries())
          grew(
            id(),
            { pieceId: spur, alongM: 0.02 * (n + 1) },
            [
              [xM + 0.01, heightM + 0.02 * (n + 1)],
              [xM + lean, heightM + 0.12 + 0.02 * n],
            ],
            n < 2 ? 3 : 1,
            6,
            n < 2 ? 'spur' : 'lateral',
          )
      }
    }
  }
  for (const [lengthM, lean] of [
    [0.9, 0.03],
    [0.8, 0.25],
    [0.7, -0.2],
  ] as const)
    grew(
      id(),
      under,
      [
        [6.5, footM],
        [6.5 + lean, footM + lengthM],
      ],
      1,
      9,
      null,
    )
  for (let from = 0; from < entries.length; from += 500)
    await haveEntries(page, garden, place, plant, entries.slice(from, from + 500))
  await page.goto(`${garden}/places/${place}/wood?on=${winter}`)
  await page.getByRole('group', { name: 'View' }).getByText('Choose').click()
  await page.getByRole('heading', { name: 'Which leader?' }).waitFor()
}
