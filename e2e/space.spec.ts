import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { apiOf, haveFrame, havePlant, haveWall, signUp } from './people.ts'

const pieces = async (page: Page, garden: string) => {
  const journal = (await (await page.request.get(`${apiOf(garden)}/journal`)).json()) as {
    entries: { kind: string; body: { v: number; way?: { on: string; turns?: number }[] } }[]
  }
  return journal.entries.filter(({ kind }) => kind === 'piece.grew' || kind === 'piece.extended')
}
const look = (page: Page, from: string) => page.getByRole('radio', { name: from, exact: true }).click()

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } })

  test('an aroid goes up its pole, is counted, wound by hand over the unrolled sheet, and told when the pole must grow', async ({
    page,
  }) => {
    const { garden } = await signUp(page)
    const at = { kind: 'bench', widthM: 0.6, usableHeightM: 1.6, firstForkM: 0, surface: 'open' }
    const place = await haveWall(page, garden, { name: 'Window sill', ...at })
    await haveFrame(page, garden, place, at, 'pole')
    await page.goto(`${garden}/places/${place}/wood`)
    await page.getByRole('button', { name: 'Add 1 plant at the free spot' }).click()
    // Its wood is best seen unrolled; where it stands is said by its system.
    await expect(page.getByRole('radio', { name: 'Unrolled' })).toBeChecked()
    await page.getByLabel('Thickness, length, buds').fill('6 85')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: /^stem/ }).click()
    await page.getByLabel('Nodes', { exact: true }).fill('8')
    await page.getByLabel('Nodes with roots').fill('9')
    await expect(page.getByRole('alert')).toHaveText('No more nodes can have roots than there are.')
    await page.getByLabel('Nodes with roots').fill('6')
    await page.getByLabel('Length now').fill('95 cm')
    await page.getByRole('button', { name: 'Note the count' }).click()
    await expect(page.getByText('8 nodes counted, 6 with roots')).toBeVisible()
    await expect
      .poll(async () => (await pieces(page, garden)).map(({ kind }) => kind))
      .toEqual(['piece.grew', 'piece.extended'])
    const [stem] = await pieces(page, garden)
    expect(stem!.body.way!.some(({ on }) => on === 'member')).toBe(true)

    await page.getByRole('radio', { name: 'Choose' }).click()
    await expect(page.getByText('The pole must be made longer now')).toBeVisible()
    await page.getByRole('radio', { name: 'Is the stem divided, and where?' }).click()
    await page.getByRole('button', { name: /stays whole/ }).click()
    await expect(page.getByRole('button', { name: /divide it, first at/ })).toHaveCount(2)

    await page.getByRole('radio', { name: 'Look', exact: true }).click()
    await page.getByRole('radio', { name: 'Draw a stem' }).click()
    const sheet = page.getByRole('img', { name: /Elevation of|seen from/ })
    const box = (await sheet.boundingBox())!
    const [x, y] = [box.x + box.width / 2, box.y + box.height * 0.6]
    for (const [dx, dy] of [
      [-12, 0],
      [8, -40],
      [-10, -80],
    ] as const) {
      await page.mouse.click(x + dx, y + dy)
      await page.waitForTimeout(120)
    }
    await page.getByRole('button', { name: 'End the stem' }).click()
    await expect.poll(async () => (await pieces(page, garden)).length).toBe(3)
    const wound = (await pieces(page, garden)).at(-1)!.body.way!
    expect(wound.map(({ on }) => on)).toEqual(['member', 'member'])
    expect(Math.sign(wound[0]!.turns!)).toBe(-Math.sign(wound[1]!.turns!))
    // The same wood from the front, the end and above: with the same tools, and pressed there.
    for (const from of ['Front', 'End', 'Above']) {
      await look(page, from)
      await expect(sheet.locator('[data-wood]').first()).toBeAttached()
    }
  })
})

test('a kiwi lies across its wires from the front to the back, goes with them when they are raised, and its ties are led there in one press', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const at = { kind: 'bed', widthM: 6, usableHeightM: 2.4, firstForkM: 0, surface: 'open' }
  const place = await haveWall(page, garden, { name: 'Pergola', ...at })
  const frameId = await haveFrame(page, garden, place, at, 'overhead')
  await havePlant(page, garden, place, {
    name: 'Kiwi',
    kindId: 'hardy-kiwi',
    system: 'overhead-arms',
    xM: 3,
    plantedOn: '2020-03-01',
  })
  await page.goto(`${garden}/places/${place}/wood?on=2026-01-20`)
  await page.getByLabel('Years since planting').fill('4')
  await page.getByRole('button', { name: 'Add this wood' }).click()
  await expect(page.getByText('left arm', { exact: false }).first()).toBeVisible()
  await page.getByRole('radio', { name: 'Choose' }).click()
  await expect(page.getByRole('heading', { name: 'Which laterals lie across the wires?' })).toBeVisible()
  await page.getByRole('button', { name: 'Record as done' }).click()
  await expect(page.getByText('lay it across the wires').first()).toBeVisible()
  // From above two arms and their laterals; from its end all of them over one post.
  const sheet = page.getByRole('img', { name: /Elevation of|seen from/ })
  const spread = async () => {
    const boxes = await sheet
      .locator('[data-wood]')
      .evaluateAll((all) => all.map((one) => one.getBoundingClientRect().x))
    return Math.max(...boxes) - Math.min(...boxes)
  }
  await expect(page.getByRole('radio', { name: 'Above' })).toBeChecked()
  await expect.poll(spread).toBeGreaterThan(300)
  await look(page, 'End')
  await expect.poll(spread).toBeLessThan(200)

  const api = apiOf(garden)
  const frames = (await (await page.request.get(`${api}/frames`)).json()) as {
    id: string
    version: number
    body: { design: { pattern: object } }
  }[]
  const frame = frames.find(({ id }) => id === frameId)!
  const pattern = { ...frame.body.design.pattern, headroomM: 2.5 }
  const body = { ...frame.body, design: { ...frame.body.design, pattern } }
  const saved = await page.request.put(`${api}/frames/${frameId}`, {
    data: { saveId: crypto.randomUUID(), note: '', basedOn: frame.version, body },
  })
  expect(saved.ok()).toBe(true)
  await expect(page.getByRole('heading', { name: 'Ties to settle' })).toBeVisible()
  await page.getByRole('button', { name: /^All \d+ moved to their wires/ }).click()
  await expect(page.getByRole('heading', { name: 'Ties to settle' })).toHaveCount(0)
  await expect(page.getByRole('heading', { name: 'Wood that hangs loose' })).toHaveCount(0)
})
