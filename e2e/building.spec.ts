import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { apiOf, haveWall, journalId, signUp } from './people.ts'

const row = {
  name: 'Sand row',
  kind: 'row',
  surface: 'open',
  widthM: 48,
  usableHeightM: 2,
  firstForkM: 0,
  conditions: {
    soil: 'sand',
    frostDepthM: 0.5,
    coldestC: -12,
    hottestC: 36,
    windMPerS: 22,
    snowPa: 0,
    iceMm: 0,
  },
}

/** Begins a frame at a new place and saves it; the address of the garden. */
async function build(page: Page, place: object, kind: string, plant: string): Promise<string> {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, place)
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: `Begin: ${kind}` }).click()
  await page.getByLabel('Plant it will carry').selectOption({ label: plant })
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  return garden
}

test('whoever has nothing yet says what there is, and begins there', async ({ page }) => {
  const { garden } = await signUp(page)
  await page.goto(`${garden}/places`)
  await page.getByRole('link', { name: 'A row or the ground for one' }).click()
  await expect(page.getByLabel('Kind of place')).toHaveValue('row')
  await expect(page.getByLabel('Length')).toHaveValue('30.00 m')
})

test('a fence is asked how it is made; unknown it cannot be judged, measured it is, and its rails bear', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  await page.goto(`${garden}/places/new/measures?kind=fence`)
  await expect(page.getByLabel('Surface')).toHaveValue('boards')
  await page.getByLabel('Name', { exact: true }).fill('Long fence')
  await page.getByLabel('Width', { exact: true }).fill('31 m')
  await page.getByLabel('Usable height').fill('1.25 m')
  await page.getByLabel('First fork above soil').fill('0.1 m')
  await page.getByRole('button', { name: 'Save and design its frame' }).click()
  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await page.getByLabel('Plant it will carry').selectOption({ label: 'Star jasmine' })
  await expect(page.getByText(/4 cannot be judged/)).toBeVisible()
  await page.getByRole('link', { name: 'Measurements' }).click()
  for (const [label, figure] of [
    ['Board thickness', '18 mm'],
    ['Board width', '100 mm'],
    ['Number of rails', '3'],
    ['Rail height', '70 mm'],
    ['Rail depth', '40 mm'],
    ['Nails per crossing', '2'],
    ['Nail length', '50 mm'],
    ['Post spacing', '1.8 m'],
    ['Footing diameter of the posts', '30 cm'],
    ['Post depth in the ground', '60 cm'],
    ['Height of the lowest rail above the soil', '25 cm'],
    ['Rail spacing', '50 cm'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(figure)
  await page.getByRole('button', { name: 'Save and design its frame' }).click()
  await expect(page.getByText(/do not hold, of \d checks/)).toBeVisible()
  await page
    .getByRole('button', { name: 'Make this change: Put the fixings onto the rails' })
    .first()
    .click({ timeout: 60_000 })
  await expect(page.getByText(/^All \d+ checks hold\.$/)).toBeVisible()
})

test('a screw that stops on a stone is answered on site: what it holds, and how far to move it', async ({
  page,
}) => {
  await build(page, row, 'Row', 'Wine grape')
  await page.getByRole('link', { name: /Build/ }).first().click()
  await page.getByRole('button', { name: /^A1 / }).click()
  const answer = page.locator('p', { hasText: 'As it is it holds' })
  await expect(answer).toContainText('It holds; leave it as it is.')
  await page.getByLabel('Depth driven, along the screw').fill('60 cm')
  await page.getByLabel('From the vertical, degrees').fill('25')
  await expect(answer).toContainText(/It (does not hold enough|may not hold)\./)
  await expect(page.getByText(/move it 80 cm at least/)).toBeVisible()
})

test('one wire more goes where the posts have room for it, and one that is lifted over them is told as that', async ({
  page,
}) => {
  await build(page, row, 'Row', 'Wine grape')
  const heights = page.getByLabel(/^Wire \d/)
  const before = await heights.count()
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Add a wire' }).click()
  await expect(heights).toHaveCount(before + 3)
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.getByLabel('Lift').last().fill('80 cm')
  await expect(page.getByRole('alert')).toContainText('but its posts end at 1.90 m')
  // The figures of the last measures that fitted stay in sight, and say so.
  await expect(page.getByText('These figures are from the last measurements that fitted.')).toBeVisible()
  await expect(page.getByText('Pull at each end')).toBeVisible()
})

test('a wire that was strained two years ago is due on the round', async ({ page }) => {
  const garden = await build(page, row, 'Row', 'Wine grape')
  const [, placeId, frameId] = /places\/([^/]+)\/frame\/([^/]+)/.exec(page.url())!
  const api = apiOf(garden)
  const on = `${new Date().getFullYear() - 2}-03-01`
  const reply = await page.request.post(`${api}/entries`, {
    data: {
      entries: [
        {
          id: journalId(),
          recordedAt: new Date().toISOString(),
          at: on,
          placeId,
          plantId: null,
          kind: 'wire.tensioned',
          body: { v: 1, frameId, line: 'w0', tensionN: 600, temperatureC: 12 },
          supersedes: null,
        },
      ],
    },
  })
  expect(await reply.text()).not.toContain('refused')
  await page.goto(`${garden}/round`)
  await expect(page.getByRole('heading', { name: 'Wires to tension' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Row, Sand row' })).toBeVisible()
})

test('ideas of one place are alternatives: stores count the one to be built, and none that stands', async ({
  page,
}) => {
  const garden = await build(page, { name: 'Wall' }, 'Level tiers', 'Pear')
  const bench = page.url()
  await page.getByRole('button', { name: 'Make a variant' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  await page.goto(`${garden}/stores`)
  await expect(page.getByText(/Not counted, because none of its frames .* Wall/)).toBeVisible()
  for (const [stage, counted] of [
    ['to be built', true],
    ['already standing', false],
  ] as const) {
    await page.goto(bench)
    await page.getByRole('radio', { name: stage }).check()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText(/^Revision \d,/).first()).toBeVisible()
    await page.goto(`${garden}/stores`)
    await expect(page.getByLabel('Wall: Level tiers', { exact: true })).toBeChecked({ checked: counted })
  }
})

test('what nobody knows of a frame that was there already cannot be judged', async ({ page }) => {
  await build(page, { name: 'Wall' }, 'Level tiers', 'Pear')
  await page.getByRole('radio', { name: 'already standing' }).check()
  await page.getByLabel('which fixings').check()
  await expect(page.getByText(/^2 cannot be judged, of \d checks\.$/)).toBeVisible()
  await page.getByLabel('which wire').check()
  await expect(page.getByText(/^5 cannot be judged, of \d checks\.$/)).toBeVisible()
})

test('a drawing of thousands of marks is moved as a picture, and drawn again where it comes to rest', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Long wall', widthM: 40, usableHeightM: 3 })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await page.getByLabel('Rows').fill('3')
  await page.getByLabel('Cell width').fill('0.3 m')
  const drawing = page.getByRole('img', { name: /nodes/ })
  await drawing.locator('[data-node]').nth(600).waitFor({ state: 'attached' })
  const sheet = drawing.locator('svg.elevation')
  const box = (await drawing.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + 12)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + 30, { steps: 5 })
  await expect(drawing.locator('canvas')).toBeVisible()
  await expect(sheet).toBeHidden()
  // Something is on it.
  const inked = await drawing.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
    return data.some((value, i) => i % 4 === 3 && value > 0)
  })
  expect(inked).toBe(true)
  await page.mouse.up()
  await expect(sheet).toBeVisible()
  await expect(drawing.locator('canvas')).toBeHidden()
})
