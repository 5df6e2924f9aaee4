import { expect, test } from './fixtures.ts'
import { apiOf, havePlant, haveTiers, journalId, signUp, winterDay } from './people.ts'

test('a vine that nobody has drawn is called out from its trunk on, its arms lie on their wire, a missing place is filled', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const place = await haveTiers(page, garden, {
    name: 'Vine wall',
    widthM: 2.4,
    usableHeightM: 0.8,
    firstForkM: 0.9,
  })
  await havePlant(page, garden, place, {
    name: 'Cordon',
    kindId: 'wine-grape',
    xM: 1.2,
    plantedOn: '2014-04-01',
    system: 'spur-cordon',
  })
  await page.goto(`${garden}/places/${place}/wood?on=2026-02-05`)
  const line = page.getByLabel('Thickness, length, buds')
  const source = page.getByLabel('Grows from')
  const from = async (words: RegExp, nth = 0) => {
    const option = source.locator('option').filter({ hasText: words }).nth(nth)
    await source.selectOption((await option.getAttribute('value'))!)
  }
  const call = async (...stems: string[]) => {
    for (const stem of stems) {
      await line.fill(stem)
      await line.press('Enter')
      await expect(line).toHaveValue('')
    }
  }
  // A place is along something: on bare ground there is nothing yet.
  await line.fill('45 90 12y @10')
  await expect(
    page.getByText('A position is along a stem. Choose above which stem it grows from.'),
  ).toBeVisible()
  await line.press('Enter')
  await expect(page.locator('[data-wood]')).toHaveCount(0)
  // The form stays open, with the hand in it, after the first of them.
  await call('45 90 12y')
  await expect(line).toBeFocused()
  // Nobody picked the trunk, but a place along something can be on that alone, as far as it goes.
  await line.fill('25 110 8y l @190')
  await expect(page.getByText('What it grows from is only 0.90 m long.')).toBeVisible()
  await call('25 110 8y l @90', '25 110 8y r @90')
  await expect(source.locator('option')).toContainText([
    'the base of the plant',
    'below the graft',
    'trunk, 0.90 m',
    'arm, left, 1.10 m',
    'arm, right, 1.10 m',
  ])
  const wood = page.locator('[data-wood]')
  const box = async (nth: number) => (await wood.nth(nth).boundingBox())!
  const arms = await Promise.all([box(1), box(2)])
  for (const arm of arms) expect(arm.width).toBeGreaterThan(arm.height * 4)

  // Six places an arm, and of the left arm the third has nothing.
  for (const side of [/^arm, left/, /^arm, right/]) {
    await from(side)
    await call(
      ...['9 90 @9', '9 90 @27', '9 90 @46', '9 90 @64', '9 90 @82', '9 90 @101'].filter(
        (stem) => side.source.endsWith('right') || !stem.endsWith('@46'),
      ),
    )
  }
  await page.getByRole('heading', { name: 'Vine wall' }).click()
  await page.keyboard.press('2')
  const slip = page.getByRole('complementary', { name: 'Wood' })
  await expect(slip.getByText('No spur at place 3 left.')).toBeVisible()
  await expect(slip.getByText(/keeps a bud more: its shoot fills place 3 left in summer/)).toBeVisible()
  // What is done alike stands in one line, with a letter to press for each.
  await expect(slip.getByText('cut above 2 buds')).toHaveCount(1)
  await expect(slip.getByText('cut above 3 buds')).toHaveCount(1)
  await expect(slip.getByText('23 buds').last()).toBeVisible()

  // The grower's own range, not only a number.
  await slip.getByText(/^Training system/).click()
  await slip.getByText('a number', { exact: true }).click()
  const field = (name: string) => slip.getByLabel(name, { exact: true })
  await field('Buds').fill('24')
  await field('Buds').blur()
  await field('At least').fill('40')
  await field('At least').blur()
  await expect(slip.getByText('The number must lie between the least and the most.')).toBeVisible()
  await expect(slip.getByRole('button', { name: 'Save', exact: true })).toBeDisabled()
  await field('At least').fill('20')
  await field('At most').fill('28')
  await slip.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(slip.getByText('plain target: 20 to 28')).toBeVisible()
})

test('a stem is drawn at one go along its wire, over the photo, and told in figures; the next goes on it by keys', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const on = winterDay()
  const fileId = journalId()
  const photo = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(400, 300)
    const pen = canvas.getContext('2d')!
    pen.fillStyle = '#8a5a44'
    pen.fillRect(0, 0, 400, 300)
    return [...new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg' })).arrayBuffer())]
  })
  const sent = await page.request.put(`${apiOf(garden)}/files/${fileId}`, {
    data: Buffer.from(photo),
    headers: { 'content-type': 'image/jpeg' },
  })
  expect(sent.ok(), await sent.text()).toBe(true)
  const corner = (xPx: number, yPx: number, xM: number, yM: number) => ({
    pixel: { xPx, yPx },
    at: { xM, yM },
  })
  const place = await haveTiers(page, garden, {
    name: 'Photo wall',
    widthM: 4,
    usableHeightM: 1.2,
    firstForkM: 0.6,
    photo: {
      fileId,
      widthPx: 400,
      heightPx: 300,
      marks: [corner(40, 30, 0, 1.8), corner(360, 30, 4, 1.8), corner(360, 270, 4, 0), corner(40, 270, 0, 0)],
    },
  })
  await havePlant(page, garden, place, {
    name: 'Pear',
    system: 'level-tiers',
    xM: 2,
    plantedOn: '2019-11-10',
  })
  await page.goto(`${garden}/places/${place}/wood?on=${on}`)
  await page.getByText('Draw a stem').click()
  await expect(page.locator('.elevation image').first()).toBeAttached()
  await page.getByLabel('over the photo of the place').uncheck()
  await expect(page.locator('.elevation image')).toHaveCount(0)

  // From the foot up to the first wire and out along it, with a shaking hand.
  const foot = (await page.locator('[data-foot]').first().boundingBox())!
  const [footX, footY] = [foot.x + foot.width / 2, foot.y + foot.height / 2]
  const nodes = page.locator('[data-node] circle:first-of-type')
  const wire = Math.max(
    ...(await nodes.evaluateAll((all) =>
      all.map((one) => {
        const { y, height } = one.getBoundingClientRect()
        return y + height / 2
      }),
    )),
  )
  await page.mouse.move(footX, footY)
  await page.mouse.down()
  for (let i = 0; i <= 12; i++) await page.mouse.move(footX + (i % 2), footY + ((wire - footY) * i) / 12)
  for (let i = 1; i <= 20; i++) await page.mouse.move(footX + i * 9, wire + (i % 3) - 1)
  await page.mouse.up()
  const figures = page.getByLabel('Thickness, length, buds')
  await expect(figures).toBeFocused()
  await page.keyboard.type('11 140 16')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-wood]')).toHaveCount(1)
  await expect(page.getByText(/^0 points/)).toBeVisible()

  // The outline takes the next one, without a pointer.
  await page.getByText('Select', { exact: true }).click()
  const twig = page.locator('[data-twig]').first()
  await expect(twig).toBeVisible()
  await twig.focus()
  await page.keyboard.press('n')
  await expect(page.getByLabel('Thickness, length, buds')).toBeFocused()
  await page.keyboard.type('6 40 5 @30')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-wood]')).toHaveCount(2)
  await twig.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowDown')
  await expect(page.locator('[data-twig]').nth(1)).toBeFocused()
  await expect(page.getByText(/6 mm, 40(\.0)? ?cm @ 30 cm|6 mm, 0\.40 m @ 30 cm/)).toBeVisible()
})

test('a plant without a system is drawn, tied and looked after all the same; silly lines are answered', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const on = winterDay()
  const place = await haveTiers(page, garden, { name: 'Wall', widthM: 3, usableHeightM: 1, firstForkM: 0.6 })
  await havePlant(page, garden, place, { name: 'Jasmine', kindId: 'star-jasmine', xM: 1.5, plantedOn: on })
  await page.goto(`${garden}/places/${place}/wood?on=${on}`)
  const input = page.getByLabel('Thickness, length, buds')
  for (const [text, answer] of [
    ['blue', 'is not a word that can be used here'],
    ['9', 'Then its length'],
    ['9 99m', 'is not the length of a stem'],
    ['9 120 1.5', 'is not a number of buds'],
  ] as const) {
    await input.fill(text)
    await expect(page.getByText(answer)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Add the stem' })).toBeDisabled()
  }
  await input.fill('5 600')
  await expect(page.getByText(/grows .* in a season. Is it older\?/)).toBeVisible()
  await input.fill('5 120 2y')
  await page.getByRole('button', { name: 'Add the stem' }).click()
  await expect(page.locator('[data-wood]')).toHaveCount(1)
  await page.getByRole('heading', { name: 'Wall', exact: true }).click()
  await page.keyboard.press('2')
  await expect(page.getByText('There is no system for this kind yet.')).toBeVisible()
})

test('the first plant stands at once; what is taken in the hand for the next is kept when it is told that it was saved', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const place = await haveTiers(page, garden, { name: 'Wall', widthM: 4 })
  await page.goto(`${garden}/places/${place}/wood`)
  let save: () => void
  const isHeld = new Promise<void>((resolve) => (save = resolve))
  await page.route('**/plants/*', async (route) => {
    await isHeld
    await route.continue()
  })
  const [left, name] = [page.getByLabel('Distance from the left'), page.getByLabel('Name', { exact: true })]
  await left.fill('0.4 m')
  await name.fill('First')
  await page.getByRole('button', { name: 'Add the plant here' }).click()
  await expect(page.getByRole('radio', { name: 'Select' })).toBeChecked()
  await page.getByRole('radio', { name: 'Add a plant' }).check()
  await left.fill('0.8 m')
  await name.fill('Second')
  const saved = page.waitForResponse(/\/plants\//)
  save!()
  await saved
  await page.waitForTimeout(500)
  await expect(left).toHaveValue('0.80 m')
  await expect(name).toHaveValue('Second')
  await page.getByRole('button', { name: 'Add the plant here' }).click()
  await expect(page.getByRole('radio', { name: 'Select' })).toBeChecked()
  await expect(page.locator('[data-foot]')).toHaveCount(2)
})
