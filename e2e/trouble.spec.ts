import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { apiOf, haveWall, join, signUp } from './people.ts'

test.describe('bad input', () => {
  test('is answered at its field, says what to change, and stays as it was typed', async ({ page }) => {
    const { garden } = await signUp(page)
    const wall = await haveWall(page, garden)
    await page.goto(`${garden}/places/${wall}/frame`)
    await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
    await page.getByLabel('Cell width').fill('12 m')
    await expect(page.getByRole('alert')).toHaveText(
      'A cell of 12.00 m does not fit into 9.20 m. Make it smaller, or have fewer rows.',
    )
    await expect(page.getByLabel('Cell width')).toHaveValue('12 m')
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled()
    await page.getByLabel('Cell width').fill('eighty')
    await expect(page.getByText('Not a length.')).toBeVisible()
    await page.getByLabel('Name of the frame').focus()
    await expect(page.getByLabel('Cell width')).toHaveValue('eighty')
    await page.getByLabel('Cell width').fill('1,650 mm')
    await expect(page.getByText('Is that 1.65 mm or 1650 mm?')).toBeVisible()
    await page.getByLabel('Cell width').fill('80 cm')
    await expect(page.getByRole('alert')).toHaveCount(0)
    await page.getByLabel('Longest piece you can handle').fill('1 m')
    await expect(page.getByRole('alert')).toContainText('longer than a piece of 1.00 m')
    await page.getByLabel('Longest piece you can handle').fill('30 m')
    await page.getByRole('button', { name: 'Remove this size' }).last().click()
    await page.getByLabel('Length', { exact: true }).fill('5 m')
    await expect(page.getByRole('alert')).toContainText('is longer than the longest roll, 5.00 m')
    await page.getByLabel('Kind of frame').selectOption('tiers')
    await page.getByLabel('Tier 2', { exact: true }).fill('10 cm')
    await expect(page.getByRole('alert').first()).toContainText('Put the heights in order from below')
  })

  test('is answered in sight of where one types, in the field’s own words and unit', async ({ page }) => {
    const { garden } = await signUp(page)
    const row = await haveWall(page, garden, { kind: 'row', surface: 'open', widthM: 9, firstForkM: 0 })
    await page.goto(`${garden}/places/${row}/frame`)
    await page.getByRole('button', { name: 'Begin: Row' }).click()
    await page.getByLabel('Height where it is attached').fill('3 m')
    await expect(page.getByRole('alert')).toHaveText(
      /^Height where it is attached must lie between 0 cm and \d+ cm\.$/,
    )
    await expect(page.getByRole('alert')).toBeInViewport()
    await page.getByLabel('Height where it is attached').fill('1 m')
    await expect(page.getByRole('alert')).toHaveCount(0)
    await page
      .getByLabel(/^Wire \d/)
      .last()
      .fill('5 cm')
    await expect(page.getByRole('alert')).toContainText('must be above')
    await expect(page.getByRole('alert')).toBeInViewport()
  })

  test('nodes that find no free place are named', async ({ page }) => {
    const { garden } = await signUp(page)
    const avoid = [
      { id: crypto.randomUUID(), kind: 'band', axis: 'vertical', fromM: 3.4, toM: 3.8, what: 'gas pipe' },
    ]
    const wall = await haveWall(page, garden, { avoid })
    await page.goto(`${garden}/places/${wall}/frame`)
    await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
    await expect(
      page.getByText(/^Node \d+ lies on gas pipe and has no free place within 4 cm/).first(),
    ).toBeVisible()
    await page.getByLabel('Allowed movement of nodes').fill('21 cm')
    await expect(page.getByText(/lies on gas pipe/)).toHaveCount(0)
  })
})

test.describe('a server that goes away', () => {
  test('is told, keeps the draft and the notes, and gets them when it is back', async ({ page, context }) => {
    const { garden } = await signUp(page)
    const wall = await haveWall(page, garden)
    await page.goto(`${garden}/places/${wall}/frame`)
    await page.getByRole('button', { name: 'Begin: Level tiers' }).click()
    await page.getByLabel('Name of the frame').fill('Kept frame')
    await page.getByRole('link', { name: 'Plants', exact: true }).click()
    await page.getByLabel('A note').waitFor()
    await page.getByRole('link', { name: 'Frame', exact: true }).click()
    await context.setOffline(true)
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText(/^The server does not answer/)).toBeVisible()
    await expect(page.getByText('Kept on this device; it is saved when the server answers')).toBeVisible()
    await page.getByRole('link', { name: 'Plants', exact: true }).click()
    await page.getByLabel('A note').fill('Written in the dark')
    await page.getByRole('button', { name: 'Save the note' }).click()
    await expect(page.getByText('2 changes are waiting to be sent.')).toBeVisible()
    await expect(page.getByText('Written in the dark')).toBeVisible()
    await context.setOffline(false)
    await expect(page.getByText(/^The server does not answer/)).toHaveCount(0)
    const stored = async () =>
      (await (await page.request.get(`${apiOf(garden)}/journal`)).json()).entries.length
    await expect.poll(stored).toBe(1)
    await page.evaluate(() => localStorage.clear())
    await page.reload()
    await expect(page.getByText('Written in the dark')).toBeVisible()
    await page.getByRole('link', { name: 'Frame', exact: true }).click()
    await expect(page.getByText(/^Revision 1,/)).toBeVisible()
    await expect(page.getByLabel('Name of the frame')).toHaveValue('Kept frame')
  })
})

interface SavedFrame {
  readonly id: string
  readonly version: number
  readonly body: { readonly placeId: string; readonly name: string; readonly design: object }
}

/** A frame that is drawn on, and can be saved from elsewhere meanwhile. */
async function drawnOn(page: Page) {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/frame`)
  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  const url = `${apiOf(garden)}/frames`
  const [frame] = (await (await page.request.get(url)).json()) as [SavedFrame]
  const { name } = frame.body
  await page.getByLabel('Allowed movement of nodes').fill('6 cm')
  const saveTheirs = async () => {
    const reply = await page.request.put(`${url}/${frame.id}`, {
      data: {
        saveId: crypto.randomUUID(),
        basedOn: 1,
        note: 'theirs',
        body: { ...frame.body, design: { ...frame.body.design, moveToleranceM: 0.09 } },
      },
    })
    expect(reply.ok()).toBe(true)
  }
  return { name, at: page.url(), saveTheirs }
}

test('two people who save the same frame both keep their work', async ({ page }) => {
  // Nothing is heard live: the newer version is met by the save.
  await page.route('**/events', (route) => route.abort())
  const { saveTheirs } = await drawnOn(page)
  await saveTheirs()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('saved revision 2 of this frame in the meantime')).toBeVisible()
  await expect(page.getByLabel('Allowed movement of nodes')).toHaveValue('6 cm')
  await page.getByRole('button', { name: 'Save mine over theirs' }).click()
  await expect(page.getByText(/^Revision 3,/)).toBeVisible()
  await expect(page.getByLabel('Allowed movement of nodes')).toHaveValue('6 cm')
})

test('what another saves of the frame that one draws on is said at once, lies on the drawing, and both can be kept', async ({
  page,
}) => {
  const { name, at, saveTheirs } = await drawnOn(page)
  await expect(page.locator('.draw-theirs')).toHaveCount(0)
  await saveTheirs()
  await expect(page.getByText('Theirs is drawn over yours, dashed.')).toBeVisible()
  await expect(
    page.locator('.draw-theirs line, .draw-theirs path, .draw-theirs polyline').first(),
  ).toBeAttached()
  await expect(page.getByLabel('Allowed movement of nodes')).toHaveValue('6 cm')
  await page.getByRole('button', { name: 'Keep both' }).click()
  await expect(page.getByLabel('Name of the frame')).toHaveValue(`${name}, variant`)
  await expect(page.getByLabel('Allowed movement of nodes')).toHaveValue('6 cm')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  await page.goto(at)
  await expect(page.getByLabel('Allowed movement of nodes')).toHaveValue('9 cm')
  await expect(page.getByText(/^Revision 2,/)).toBeVisible()
})

test('measures that two have saved lie over each other on the drawing, until one of them is chosen', async ({
  page,
}) => {
  await page.route('**/events', (route) => route.abort())
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  const url = `${apiOf(garden)}/places/${wall}`
  const stored = async () =>
    (await (await page.request.get(url)).json()) as { version: number; body: { widthM: number } }
  const saveTheirs = async (widthM: number) => {
    const { version, body } = await stored()
    const data = { saveId: crypto.randomUUID(), basedOn: version, body: { ...body, widthM } }
    expect((await page.request.put(url, { data })).ok()).toBe(true)
  }
  const width = page.getByLabel('Width', { exact: true })
  const clash = async (mine: string, theirs: number) => {
    await page.goto(`${garden}/places/${wall}/measures`)
    await width.fill(mine)
    await saveTheirs(theirs)
    await page.getByRole('button', { name: 'Save the place' }).click()
    await expect(page.getByText('Yours is drawn over it, dashed.')).toBeVisible()
    await expect(page.locator('.draw-theirs polygon').first()).toBeVisible()
  }
  await clash('7 m', 8)
  await page.getByRole('button', { name: 'Use theirs' }).last().click()
  await expect(page.locator('.draw-theirs')).toHaveCount(0)
  await expect(width).toHaveValue('8.00 m')
  expect((await stored()).body.widthM).toBe(8)

  await clash('6 m', 5)
  await page.getByRole('button', { name: 'Save mine over theirs' }).last().click()
  await expect(page.locator('.draw-theirs')).toHaveCount(0)
  await expect.poll(async () => (await stored()).body.widthM).toBe(6)
  await expect(width).toHaveValue('6.00 m')
})

test('a viewer sees everything and is offered nothing to change', async ({ page, browser }) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  const guest = await (await browser.newContext()).newPage()
  await signUp(guest)
  await join(page, guest, garden, 'viewer')
  await guest.goto(`${garden}/places`)
  await expect(guest.getByText('You are a viewer in this garden')).toBeVisible()
  await expect(guest.getByRole('link', { name: 'Add a wall or fence' })).toHaveCount(0)
  await guest.goto(`${garden}/places/${wall}/measures`)
  await expect(guest.getByLabel('Width')).toBeDisabled()
})
