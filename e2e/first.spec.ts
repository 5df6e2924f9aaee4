import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { PASSWORD, newEmail, signUp } from './people.ts'

/** From the door to a frame on the bench, as somebody who is new goes; the steps that they take. */
async function fromTheDoor(page: Page, have: string, width: string, frame: RegExp): Promise<number> {
  let steps = 0
  const step = async (done: Promise<unknown>) => {
    await done
    steps++
  }
  await page.goto('/')
  await step(page.getByRole('button', { name: have, exact: true }).click())
  await step(page.getByLabel('Your name').fill('New'))
  await step(page.getByLabel('E-mail address').fill(newEmail()))
  await step(page.getByLabel('Password').fill(PASSWORD))
  await step(page.getByRole('button', { name: 'Create an account' }).click())
  // Garden and place have names to begin with.
  await expect(page.getByLabel('Name', { exact: true })).not.toHaveValue('')
  await step(page.getByLabel(/^(Width|Length)$/).fill(width))
  await step(page.getByRole('button', { name: 'Save and design its frame' }).click())
  await step(page.getByRole('button', { name: frame }).click())
  await page.getByLabel('Name of the frame').waitFor()
  return steps
}

const short = (page: Page) => page.getByRole('region', { name: 'In short' })

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } })

  test('a tub is asked for little; the verdict stays in sight, says what is not known and leads to it', async ({
    page,
  }) => {
    await page.setViewportSize({ width: 390, height: 844 })
    let steps = await fromTheDoor(page, 'A pot or tub outside', '40 cm', /^Begin: Stakes with spiral string/)
    await page.getByRole('button', { name: 'Ask for every figure' }).click()
    await expect(page.getByLabel('Largest post spacing')).toHaveCount(0)
    await expect(page.getByLabel('Handling length')).toBeHidden()
    await expect(short(page).getByText('Not known yet: what will climb it?')).toBeVisible()
    await short(page).getByRole('button', { name: 'Choose the plant' }).click()
    const plant = page.getByLabel('Plant it will carry')
    await expect(plant).toBeFocused()
    await plant.selectOption({ label: 'Hop' })
    steps += 2
    // What follows from the plant has followed: the string is wound the way that it twines.
    await expect(short(page).getByText(/^All \d+ checks hold\.$/)).toBeVisible()
    await expect(short(page).getByText(/^Least margin: /)).toBeInViewport()
    // As one types far down, too.
    const pot = page.getByLabel('I have this pot')
    const cost = async () => Number(/[\d.]+/.exec(await short(page).locator('strong').innerText())![0])
    const before = await cost()
    await pot.check()
    await expect(short(page)).toBeInViewport()
    await expect.poll(cost).toBeLessThan(before)
    await short(page).getByRole('button', { name: 'Next: save this frame' }).click()
    await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeFocused()
    await page.keyboard.press('Enter')
    // The form is gone, and the hand is where it was.
    await expect(page.getByRole('link', { name: 'Sheet to print' })).toBeFocused()
    await short(page).getByRole('link', { name: 'Next: build it from the sheet' }).click()
    await page.getByRole('heading', { name: 'Before you start' }).waitFor()
    // With three for the pot one has: its sheet is in the hand.
    expect(steps + 3).toBeLessThanOrEqual(13)
  })
})

test('a row says what does not hold and leads there; what stands already is never billed', async ({
  page,
}) => {
  await fromTheDoor(page, 'A row or the ground for one', '8 m', /^Begin: Row/)
  await page.getByLabel('Plant it will carry').selectOption({ label: 'Raspberry' })
  const spacing = page.getByLabel('Plant spacing')
  const asWanted = await spacing.inputValue()
  await page.getByLabel('Plant it will carry').selectOption({ label: 'Wine grape' })
  await expect(spacing).not.toHaveValue(asWanted)
  await page.getByLabel('Post depth in the ground', { exact: true }).fill('20 cm')
  await expect(short(page).getByText(/not hold/)).toBeVisible()
  await short(page).getByRole('button', { name: 'See what helps' }).click()
  await expect(page.locator('#bench-checks')).toBeFocused()
  // Not enough ground for its ties: another end is one press away.
  await page.getByLabel('Room beyond each end').fill('30 cm')
  const minds = page.locator('div', { hasText: 'brace the ends from within' }).last()
  await minds.getByRole('button').click()
  await expect(page.getByRole('radio', { name: 'braced' })).toBeChecked()
  await page.getByRole('radio', { name: 'already standing' }).check()
  await expect(short(page).getByText(/If it were built anew like this/)).toBeVisible()
  await expect(short(page).locator('strong')).toHaveCount(0)
  await expect(page.getByText('Hours for one person')).toHaveCount(0)
})

test('a fold that is opened by hand stays open under the hand', async ({ page }) => {
  await fromTheDoor(page, 'A wall', '4 m', /^Begin: Level tiers/)
  await page.getByRole('button', { name: 'Ask for every figure' }).click()
  const next = page.getByRole('button', { name: 'Next', exact: true })
  await expect(next).toBeHidden()
  await page.locator('summary', { hasText: 'Fixings' }).click()
  await next.focus()
  for (const node of [1, 2]) {
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: `Node ${node}` })).toBeVisible()
    await expect(next).toBeFocused()
  }
  // What the keys came to is said, too.
  await expect(page.getByText(/^Node 2: .* from the left/)).toBeAttached()
})

test('an empty garden begins with what one has; an empty list says what would fill it', async ({ page }) => {
  const { garden } = await signUp(page)
  await page.goto(`${garden}/round`)
  await page.getByRole('link', { name: 'Say what you have' }).click()
  await expect(page.getByRole('heading', { name: 'What have you got?' })).toBeVisible()
  await page.getByRole('link', { name: 'A pot or pole indoors' }).click()
  await expect(page.getByRole('heading', { name: 'A new place' })).toBeVisible()
})

test('four rows alike become four places, each with its plants in one press, and one press takes them out', async ({
  page,
}) => {
  await fromTheDoor(page, 'A row or the ground for one', '12 m', /^Begin: Row/)
  await page.getByLabel('Plant it will carry').selectOption({ label: 'Table grape' })
  await page.getByRole('radio', { name: 'already standing' }).check()
  await page.getByLabel('Number of identical frames').fill('4')
  await page.keyboard.press('Control+s')
  await page.getByRole('button', { name: 'Make 4 places of them' }).click()
  await expect(page.getByRole('heading', { name: /^Row( \d)?$/ })).toHaveText([
    'Row',
    'Row 2',
    'Row 3',
    'Row 4',
  ])
  const third = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Row 3' }) })
  await third.getByRole('link', { name: 'Plants', exact: true }).click()
  await page.getByRole('button', { name: 'Add 8 plants, one at each free spot' }).click()
  await expect(page.getByText('8 plants added.')).toBeVisible()
  // The bench is at the first of them, near enough to press it.
  await expect(page.getByRole('radio', { name: 'Table grape 1', exact: true })).toBeChecked()
  await page.getByRole('button', { name: 'Take them out again' }).click()
  await expect(page.getByRole('button', { name: 'Add 8 plants, one at each free spot' })).toBeVisible()
  await page.getByRole('link', { name: 'Frame', exact: true }).click()
  await expect(page.getByLabel('Number of identical frames')).toHaveValue('1')
})

test('from the door to what to cut at a first vine in fifteen steps', async ({ page }) => {
  let steps = await fromTheDoor(page, 'A row or the ground for one', '12 m', /^Begin: Row/)
  const step = async (done: Promise<unknown>) => {
    await done
    steps++
  }
  await step(page.keyboard.press('Control+s'))
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  await step(page.getByRole('link', { name: 'Plants', exact: true }).click())
  await expect(page.getByLabel('Training system')).toHaveValue('cane-two')
  await step(page.getByLabel('Planted on').fill('1 March 2021'))
  await step(page.getByRole('button', { name: /^Add \d+ plants/ }).click())
  await step(page.getByRole('button', { name: 'Add this wood' }).click())
  await step(page.getByRole('group', { name: 'View' }).getByText('Choose').click())
  // What it asks depends on the time of year: an answer to cut by, or what its year brings.
  await expect(
    page.getByRole('button', { name: 'Save as plan' }).or(page.getByText('Training system:')).first(),
  ).toBeVisible()
  expect(steps).toBeLessThanOrEqual(15)
})

test('a fence that nobody has looked at leads to its measurements', async ({ page }) => {
  await fromTheDoor(page, 'A fence', '8 m', /^Begin: Level tiers/)
  await short(page).getByRole('link', { name: 'Say how the fence is made' }).click()
  await expect(page.getByLabel('Board thickness')).toBeFocused()
})
