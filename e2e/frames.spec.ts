import { readFileSync } from 'node:fs'
import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { haveWall, openDemo, signUp } from './people.ts'
import { isTaken } from './third.ts'

const figure = (page: Page, label: string) =>
  page.locator('.slip-row', { has: page.getByText(label, { exact: true }) }).locator('dd')
const wall = { surface: 'brick' }
const open = (kind: string, widthM: number, usableHeightM = 2.4) => ({
  kind,
  widthM,
  usableHeightM,
  firstForkM: 0,
  surface: 'open',
})

/** Each kind of frame at a place that suits it, with a measure to change and what must follow from it. */
const kinds = [
  {
    name: 'Level tiers',
    place: { ...wall, widthM: 6 },
    type: ['Largest support spacing', '1.5 m'],
    then: ['Nodes, one eye each', '25'],
  },
  { name: 'Diamonds', place: wall, type: ['Cell width', '1.15 m'], then: ['Cells', '8 whole'] },
  { name: 'Fan', place: { ...wall, widthM: 3 }, type: ['Ribs', '7'], then: ['Longest rib', '1.959 m'] },
  { name: 'Zig-zag', place: wall, type: ['Width of a stroke', '92 cm'], then: ['Nodes, one eye each', '11'] },
  {
    name: 'Triangles',
    place: { ...wall, widthM: 5 },
    type: ['Width of the base', '1.25 m'],
    then: ['Nodes, one eye each', '14'],
  },
  {
    name: 'Squares',
    place: { ...wall, widthM: 5 },
    type: ['Upright wires', '6'],
    then: ['Nodes, one eye each', '24'],
  },
  { name: 'Drawn by hand', place: wall, type: null, then: ['Nodes, one eye each', '3'] },
  {
    name: 'Row',
    place: open('row', 36),
    type: ['Largest post spacing', '5 m'],
    then: ['Posts, stakes and legs', '9'],
  },
  {
    name: 'Pergola or arbour',
    place: open('bed', 6),
    type: ['Largest bay', '3 m'],
    then: ['Posts, stakes and legs', '6'],
  },
  {
    name: 'Arch or hoop',
    place: open('bed', 3),
    type: ['Hoops', '4'],
    then: ['Length of a hoop', '5.914 m'],
  },
  {
    name: 'Covered grid of posts',
    place: open('bed', 18),
    type: ['Largest post spacing along', '9 m'],
    then: ['Posts, stakes and legs', '12'],
  },
  {
    name: 'Stakes with spiral string',
    place: open('tub', 0.5, 2),
    type: ['Stakes', '3'],
    then: ['Posts, stakes and legs', '3'],
  },
  {
    name: 'Obelisk, cone or ladder',
    place: open('terrace', 1, 2.4),
    type: ['Legs', '5'],
    then: ['Posts, stakes and legs', '5'],
  },
  {
    name: 'Growing pole',
    place: open('bench', 0.4, 1.4),
    type: ['Thickness of the pole', '100 mm'],
    then: ['Mesh, width to cut', '33.4 cm'],
  },
  {
    name: 'Bare stakes',
    place: open('bed', 4),
    type: ['Stakes', '8'],
    then: ['Posts, stakes and legs', '8'],
  },
  {
    name: 'Column in a tub',
    place: open('tub', 0.7, 2),
    type: ['Plants', '3'],
    then: ['Spots for plants', '0 of 3 planted'],
  },
  { name: 'Twiggy brush', place: open('bed', 3), type: ['Rows', '3'], then: ['Cost', '€14.40'] },
] as const

test.describe('every kind of frame, from measures to paper', () => {
  for (const { name, place, type, then } of kinds.filter((_, at) => isTaken(at))) {
    test(name, async ({ page }) => {
      const { garden } = await signUp(page)
      const id = await haveWall(page, garden, { name: 'Here', ...place })
      await page.goto(`${garden}/places/${id}/frame`)
      await page.getByRole('button', { name: `Begin: ${name}` }).click()
      if (type) await page.getByLabel(type[0], { exact: true }).first().fill(type[1])
      await expect(figure(page, then[0]).first()).toHaveText(then[1])
      await page.getByRole('button', { name: 'Save', exact: true }).click()
      await expect(page.getByText(/^Revision 1,/)).toBeVisible()
      await page.getByLabel('Number of identical frames').fill('3')
      await expect(figure(page, 'Cost of 3')).toBeVisible()
      await page.getByLabel('What changed').fill('three of them')
      await page.getByRole('button', { name: 'Save', exact: true }).click()
      await expect(page.getByText(/^Revision 2,/)).toBeVisible()
      await page.getByRole('link', { name: 'Sheet to print' }).click()
      await page.waitForURL(/\/sheet/)
      await expect(page.getByRole('heading', { name: `${name}, Here` })).toBeVisible()
      await expect(page.getByText('one of 3; materials for all')).toBeVisible()
      await expect(page.getByRole('heading', { name: 'Materials' })).toBeVisible()
    })
  }
})

test('a column whose bars cannot pass each other is refused, with what to change, and what was typed stays', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Tub', ...open('tub', 0.7, 2) })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Column in a tub' }).click()
  await page.getByLabel('Height of the upper bar above soil').fill('1.405 m')
  await expect(page.getByRole('alert')).toContainText('5 mm apart and 12 mm thick')
  await expect(page.getByLabel('Height of the upper bar above soil')).toHaveValue('1.405 m')
  await page.getByLabel('Height of the upper bar above soil').fill('1.43 m')
  await expect(page.getByRole('alert')).toHaveCount(0)
})

test('string wound against its plant is told, and right when turned', async ({ page }) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Tub', ...open('tub', 0.5, 2) })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Stakes with spiral string' }).click()
  await page.getByLabel('Plant it will carry').selectOption('hop')
  const winding = page.locator('details', { hasText: 'Direction of the string' })
  await expect(winding.getByText('the way it twines')).toBeVisible()
  await page.getByRole('radio', { name: 'anticlockwise' }).check()
  await expect(winding.getByText('against the way it twines')).toBeVisible()
  await winding.getByRole('button', { name: 'Make this change: Wind the string the other way' }).click()
  await expect(page.getByRole('radio', { name: 'clockwise', exact: true })).toBeChecked()
})

test('a frame is drawn by hand with the pointer: nodes, wires between, a node moved', async ({ page }) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Wall' })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Drawn by hand' }).click()
  const box = (await page.locator('[data-node="n3"] circle').first().boundingBox())!
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
  await expect(page.getByText('Node 3', { exact: true })).toBeVisible()
  await page.mouse.click(box.x + 80, box.y - 40)
  await expect(figure(page, 'Nodes, one eye each')).toHaveText('4')
  await expect(page.getByRole('img', { name: /3 runs of wire/ })).toBeVisible()
  await page.getByRole('button', { name: 'Remove this node' }).click()
  await expect(figure(page, 'Nodes, one eye each')).toHaveText('3')
})

test('wire ends at the edge only where that is wanted, told where it could not', async ({ page }) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Wall', usableHeightM: 2.4 })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await page.getByLabel('Rows').fill('2')
  await page.getByLabel('Longest piece you can handle').fill('2 m')
  const told = page.getByText(/\d+ ends could not be placed at the edge/)
  await expect(page.getByText(/^Pieces, none over 2\.00 m/)).toBeVisible()
  await expect(told).toHaveCount(0)
  // Two runs reach half the way up: pieces of them cannot all end at the edge. Longer ones can.
  await page.getByRole('radio', { name: 'only at the edge' }).check()
  await expect(told).toBeVisible()
  await page.getByLabel('Longest piece you can handle').fill('12 m')
  await expect(page.getByText(/^Pieces, none over 12\.00 m/)).toBeVisible()
  await expect(told).toHaveCount(0)
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  await page.reload()
  await expect(page.getByRole('radio', { name: 'only at the edge' })).toBeChecked()
})

test('the fit assistant offers layouts side by side and takes one', async ({ page }) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Wall', widthM: 9.5 })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await page.getByText('Fit to the length').click()
  await expect(page.getByRole('row')).not.toHaveCount(0)
  await page.getByRole('button', { name: 'Use this layout' }).first().click()
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible()
  await expect(page.getByText('Left over at the far end')).toHaveCount(0)
})

test('built on site: marks ticked off, a screw that stopped short lowers its anchor, a wire’s pull is logged', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 800 })
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Row', ...open('row', 12) })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Row' }).click()
  await page.getByLabel('Screws in line').fill('1')
  await page.getByLabel('Largest post spacing').fill('6 m')
  const anchor = page
    .locator('details', { hasText: /^Pull on anchor A1/ })
    .locator('summary')
    .first()
  const before = await anchor.textContent()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByRole('link', { name: 'Build on site' }).click()
  await expect(page.getByText('0 of 5 done')).toBeVisible()
  await page.getByLabel('Depth driven, along the screw').fill('45 cm')
  await page.getByLabel('Times it was backed out and driven again').fill('2')
  await page.getByRole('button', { name: 'Record this drive' }).click()
  await expect(page.getByText('1 of 5 done')).toBeVisible()
  await page.getByRole('button', { name: 'Placed as marked' }).click()
  await page.getByRole('button', { name: 'It went somewhere else' }).click()
  await page.getByLabel('Distance from the left end').fill('5.9 m')
  await page.getByRole('button', { name: 'Record its position' }).click()
  await expect(page.getByText('3 of 5 done')).toBeVisible()
  await page.getByRole('radio', { name: 'Wires' }).check()
  await page.getByRole('button', { name: 'Read the clip-on meter' }).click()
  await page.getByRole('button', { name: 'Record as found' }).click()
  await expect(page.getByText(/found at 12 °C/)).toBeVisible()
  await page.getByRole('link', { name: 'Back to the frame' }).click()
  await expect(anchor).not.toHaveText(before!)
})

test('a photo is set straight by four marks and lies behind the drawing', async ({ page }) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Wall' })
  await page.goto(`${garden}/places/${id}/measures`)
  const png = await page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    canvas.width = 400
    canvas.height = 240
    const pen = canvas.getContext('2d')!
    pen.fillStyle = '#a65'
    pen.fillRect(40, 30, 320, 180)
    const blob = await new Promise<Blob>((resolve) => canvas.toBlob((made) => resolve(made!), 'image/png'))
    return [...new Uint8Array(await blob.arrayBuffer())]
  })
  await page
    .getByLabel('Choose a photo')
    .setInputFiles({ name: 'wall.png', mimeType: 'image/png', buffer: Buffer.from(png) })
  const mark = page.getByRole('button', { name: 'Mark 1' })
  await mark.focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.locator('image')).not.toHaveCount(1)
  await page.getByRole('button', { name: 'Save the place' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Save and design its frame' }).click()
  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await expect(page.locator('image').first()).toBeAttached()
})

test('variants stand side by side with what each costs', async ({ page }) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Wall' })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Level tiers' }).click()
  // Pressed and changed in one breath, before the variant stands on the bench: it is the variant that changes.
  await page.getByRole('button', { name: 'Make a variant' }).waitFor()
  await page.evaluate(() => {
    const pressed = [...document.querySelectorAll('button')].find(
      (one) => one.textContent === 'Make a variant',
    )!
    const kind = [...document.querySelectorAll('select')].find((one) =>
      [...one.options].some(({ value }) => value === 'diamonds'),
    )!
    pressed.click()
    kind.value = 'diamonds'
    kind.dispatchEvent(new Event('change', { bubbles: true }))
  })
  await expect(page.getByLabel('Name of the frame')).toHaveValue('Level tiers, variant')
  await expect(page.getByLabel('Kind of frame')).toHaveValue('diamonds')
  await page.getByRole('link', { name: 'Compare side by side' }).click()
  await expect(page.getByRole('heading', { level: 2 })).toHaveCount(2)
  const ties = page.getByRole('row', { name: /Ties a year/ })
  await expect(ties.getByRole('cell')).toHaveCount(2)
  await expect(page.getByRole('columnheader')).toHaveCount(2)
  await page.getByRole('columnheader').first().getByRole('link').first().click()
  await expect(page.getByLabel('Name of the frame')).toHaveValue('Level tiers')
  await expect(page.getByLabel('Kind of frame')).toHaveValue('tiers')
  // Back at the frame itself a change is its own, and a name that is too long is refused, not cut.
  await page.getByLabel('Kind of frame').selectOption('zigzag')
  await expect(page.getByLabel('Kind of frame')).toHaveValue('zigzag')
  await page.getByLabel('Name of the frame').fill('x'.repeat(93))
  await expect(page.getByText('At most 80 letters: 13 too many.')).toBeVisible()
})

/** A garden with one wall and its diamonds saved. */
async function saveDiamonds(page: Page): Promise<void> {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Wall' })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
}

test('a post of one’s own is added to the catalogue and bought for a row', async ({ page }) => {
  const { garden } = await signUp(page)
  const id = await haveWall(page, garden, { name: 'Row', ...open('row', 12) })
  await page.goto(`${garden}/stores`)
  await page.getByRole('radio', { name: 'catalogue and rates' }).check()
  await page.getByText('Add a post, stake, bar or beam of your own').click()
  const form = page.locator('form', { has: page.getByLabel('Use') })
  await form.getByLabel('Name').fill('Split chestnut')
  await form.getByLabel('Material').selectOption('hardwood')
  await form.getByLabel('Diameter', { exact: true }).fill('95 mm')
  await form.getByLabel('Length').fill('2.75 m')
  await form.getByLabel('Price').fill('8.5')
  await form.getByRole('button', { name: 'Add to the catalogue' }).click()
  await expect(page.getByRole('button', { name: 'Remove Split chestnut' })).toBeVisible()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Row' }).click()
  await page.getByLabel('Posts', { exact: true }).selectOption('Split chestnut')
  await page.getByText('Materials', { exact: true }).click()
  await expect(figure(page, 'Split chestnut, 2.75 m')).toContainText('17.00')
})

test('stores: what is on hand is taken off the list, and offcuts go back into the shed', async ({ page }) => {
  await saveDiamonds(page)
  await page.getByRole('link', { name: 'Stores' }).click()
  const eyes = page.getByRole('row', { name: /Screw eye 12 × 140 mm/ })
  await expect(eyes).toContainText('36')
  await page.getByRole('radio', { name: 'on hand' }).check()
  await page.getByLabel('Item', { exact: true }).selectOption('fixing eye-140')
  await page.getByRole('button', { name: 'Add to stores' }).click()
  await page.getByLabel('Quantity').fill('10')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByRole('radio', { name: 'what to buy' }).check()
  await expect(eyes).toContainText('26')
  await page.getByRole('button', { name: /keep the offcuts/ }).click()
  await page.getByRole('radio', { name: 'on hand' }).check()
  await expect(page.getByLabel('Length').first()).toBeVisible()
})

/** Threads of the page that can be kept waiting: what they are told is held back till they are let go. */
async function holdThreads(page: Page) {
  await page.addInitScript(() => {
    const waiting: (() => void)[] = []
    let isHeld = true
    const post = Worker.prototype.postMessage as (this: Worker, ...told: unknown[]) => void
    Worker.prototype.postMessage = function (this: Worker, ...told: unknown[]) {
      const tell = () => post.apply(this, told)
      if (isHeld) waiting.push(tell)
      else tell()
    }
    Object.assign(globalThis, {
      hold: (next: boolean) => {
        isHeld = next
        if (!next) for (const tell of waiting.splice(0)) tell()
      },
    })
  })
  return (next: boolean) =>
    page.evaluate((is) => (globalThis as unknown as { hold: (next: boolean) => void }).hold(is), next)
}

test('a list that takes long says how far it is, and can be stopped and begun again', async ({ page }) => {
  await saveDiamonds(page)
  const hold = await holdThreads(page)
  await page.goto(page.url().replace(/\/places\/.*/, '/stores'))
  await expect(page.getByText(/^Calculating: 0 of/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop calculating' }).click()
  await expect(page.getByText('Stopped before it was finished.')).toBeVisible()
  await hold(false)
  await page.getByRole('button', { name: 'Calculate' }).click()
  await expect(page.getByRole('row', { name: /Screw eye 12 × 140 mm/ })).toContainText('36')
  // Offcuts of a list that is no longer the one asked for must not go into the stores.
  const keep = page.getByRole('button', { name: /keep the offcuts/ })
  await expect(keep).toBeEnabled()
  await hold(true)
  await page.getByRole('checkbox').first().uncheck()
  await page.getByRole('button', { name: 'Stop calculating' }).click()
  await expect(keep).toBeDisabled()
})

test('drawings leave the house in true scale: DXF in millimetres, a PDF, and a frame file that comes back', async ({
  page,
}) => {
  const garden = await openDemo(page)
  const frames = await page
    .getByRole('main')
    .getByRole('link', { name: 'Frame', exact: true })
    .evaluateAll((all) => all.map((a) => (a as HTMLAnchorElement).pathname))
  await page.goto(frames[0]!)
  const take = async (label: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: label }).click()
    return readFileSync((await (await download).path())!)
  }
  await page.getByText('Take with you').click()
  expect((await take('Drawing (DXF)')).toString()).toContain('$INSUNITS')
  expect((await take('Sheet (PDF)')).subarray(0, 5).toString()).toBe('%PDF-')
  const file = await take('Frame file')
  expect(JSON.parse(file.toString())).toMatchObject({ format: 'klados-frame', version: 2 })
  await page.goto(frames[1]!.replace(/\/frame$/, '/frame/new'))
  await page
    .getByLabel('Import a frame file')
    .setInputFiles({ name: 'frame.json', mimeType: 'application/json', buffer: file })
  await expect(page.getByLabel('Name of the frame')).toHaveValue('Level tiers')
  await page.goto(frames[1]!.replace(/\/frame$/, '/frame/new'))
  await page
    .getByLabel('Import a frame file')
    .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{"a":1}') })
  await expect(page.getByRole('alert')).toContainText('not a frame file')
  expect(garden).toMatch(/^\/g\//)
})
