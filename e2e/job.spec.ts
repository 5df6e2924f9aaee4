import { readFileSync } from 'node:fs'
import { expect, test } from './fixtures.ts'
import type { Locator, Page } from '@playwright/test'
import { PASSWORD, apiOf, haveWall, newEmail, signUp } from './people.ts'

/** Where a figure stands on the slip, by its label. */
const figure = (page: Page, label: string) =>
  page.locator('.slip-row', { has: page.getByText(label, { exact: true }) }).locator('dd')

test('the whole job by mouse: sign up, measure, design, save, plant, draw, tie, and mark a tie done', async ({
  page,
}) => {
  await page.goto('/sign-in')
  // What one has is said at the door, and is where one begins.
  await page.getByRole('button', { name: 'A wall', exact: true }).click()
  await expect(page.getByLabel('Your name')).toBeFocused()
  await page.getByLabel('Your name').fill('Mouse')
  await page.getByLabel('Name of your garden').fill('Mouse garden')
  await page.getByLabel('E-mail address').fill(newEmail())
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Create an account' }).click()

  await page.getByLabel('Name', { exact: true }).fill('Yard wall')
  await page.getByLabel('Width').fill(`30' 2 1/4"`)
  await page.getByLabel('Width').fill('920 cm')
  await page.getByLabel('Usable height').fill('1,65 m')
  await page.getByLabel('First fork above soil').fill('30cm')
  await page.getByRole('button', { name: 'Add an upright band' }).click()
  await page.getByRole('img', { name: 'Elevation of Yard wall' }).click({ position: { x: 400, y: 120 } })
  await page.getByLabel('What it is').fill('drainpipe')
  await page.getByLabel('Begins at', { exact: true }).fill('3.57 m')
  await page.getByLabel('Ends at', { exact: true }).fill('3.61 m')
  await page.getByRole('button', { name: 'Save and design its frame' }).click()

  await page.getByRole('button', { name: 'Begin: Diamonds' }).click()
  await expect(figure(page, 'Cells')).toHaveText('11 whole, 1 half')
  await expect(figure(page, 'Nodes, one eye each')).toHaveText('36')
  await expect(figure(page, 'Wire, centre to centre')).toHaveText('42.18 m')
  // Two of the nodes at 3.60 m stood on the pipe and moved the centimetre to its edge, and half a hole further.
  await expect(figure(page, 'Moved to avoid spots')).toHaveText('2')
  await expect(page.getByText('moved 17 mm').first()).toBeVisible()

  const node = page.locator('[data-node="c1.0"] circle').first()
  const box = (await node.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + 30, box.y + 30, { steps: 4 })
  await page.mouse.up()
  await expect(figure(page, 'Moved by hand')).toHaveText('1')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Moved by hand')).toHaveCount(0)

  await page.getByLabel('What changed').fill('as measured')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  await page.getByLabel('Longest piece you can handle').fill('12 m')
  await page.getByLabel('Cell width').fill('54in')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 2,/)).toBeVisible()
  await page.getByText('Revisions (2)').click()
  await page
    .getByRole('listitem')
    .filter({ hasText: 'as measured' })
    .getByRole('button', { name: 'Open as a draft' })
    .click()
  await expect(figure(page, 'Cells')).toHaveText('11 whole, 1 half')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 3,/)).toBeVisible()

  const csv = page.waitForEvent('download')
  await page.getByText('Take with you').click()
  await page.getByRole('button', { name: 'Mark-out (CSV)' }).click()
  const lines = readFileSync((await (await csv).path())!, 'utf8')
    .trimEnd()
    .split('\r\n')
  expect(lines).toHaveLength(37)
  expect(lines[0]).toBe('mark,what,along_mm,height_mm,out_mm,ideal_along_mm,ideal_height_mm,moved_mm,state')
  await page.getByRole('link', { name: 'Sheet to print' }).click()
  await page.waitForURL(/\/sheet/)
  await expect(page.getByRole('heading', { name: 'Diamonds, Yard wall' })).toBeVisible()
  await expect(page.getByText('Piece A, cut')).toBeVisible()

  await page.getByRole('link', { name: 'Plants', exact: true }).click()
  await page.getByLabel('Kind').selectOption('ivy')
  await expect(page.getByText('The pattern needs 12, one at each start node')).toBeVisible()
  await page.getByRole('button', { name: 'Add the plant at node 2', exact: true }).click()
  await page.getByLabel('Planted on').fill('2020-03-01')
  await page.getByRole('button', { name: 'Add the plant here' }).click()
  await expect(figure(page, 'Planted')).toBeVisible()

  // A month back on the rings: what is tied there is due today.
  await page.getByRole('slider', { name: 'Day shown' }).press('PageDown')
  await expect(page.getByText(/^As it was on/)).toBeVisible()
  await page.getByRole('radio', { name: 'Draw a stem' }).check()
  // Corners at the foot, beside, above and beside again: nodes are found by where they are, since ids are
  // names.
  const nodes = await page.locator('[data-node] circle:first-of-type').evaluateAll((circles) =>
    circles.map((circle) => {
      const { x, y, width, height } = circle.getBoundingClientRect()
      return { x, y, width, height }
    }),
  )
  const lowest = Math.max(...nodes.map((node) => node.y))
  const highest = Math.min(...nodes.map((node) => node.y))
  const near = (wanted: number) => (node: { y: number }) => Math.abs(node.y - wanted) < 8
  const alongX = (list: typeof nodes) => [...list].sort((a, b) => a.x - b.x)
  const [feet, tops, sides] = [lowest, highest, (lowest + highest) / 2].map((y) =>
    alongX(nodes.filter(near(y))),
  )
  for (const at of [feet![0]!, sides![1]!, tops![1]!, sides![2]!]) {
    await page.mouse.click(at.x + at.width / 2 + 3, at.y + at.height / 2 - 2)
  }
  await expect(page.getByText(/^4 points, 2\.7\d m$/)).toBeVisible()
  // A double click on the last node ends the stem.
  const last = (await page.locator('[data-node="s0.2"] circle').first().boundingBox())!
  await page.mouse.click(last.x + last.width / 2 + 3, last.y + last.height / 2 - 2)
  await page.getByRole('button', { name: 'Tie at 2 crossings' }).click()
  await expect(page.getByText('Recorded: Tie at 2 crossings')).toBeVisible()
  await page.getByRole('button', { name: 'Undo Tie at 2 crossings' }).click()
  await expect(figure(page, 'Ties')).toHaveText('0')
  await page.getByRole('button', { name: 'Tie at 2 crossings' }).click()
  await expect(figure(page, 'Ties')).toHaveText('2')

  await page.getByRole('link', { name: 'To do', exact: true }).click()
  await expect(page.getByText('2 ties to look at, in 1 place')).toBeVisible()
  await page.getByRole('button', { name: 'Sound' }).first().click()
  await expect(page.getByText('1 tie to look at, in 1 place')).toBeVisible()
  await page.reload()
  await expect(page.getByText('1 tie to look at, in 1 place')).toBeVisible()
  await page.getByRole('button', { name: 'Put off two weeks' }).click()
  await expect(page.getByText(/^Nothing is due/)).toBeVisible()
})

test('from signing in to a wire saved takes fewer than forty presses', async ({ page }) => {
  const { garden, email } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.request.delete('/api/session')
  await page.goto('/sign-in')
  let presses = 0
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      await page.keyboard.press(key)
      presses++
    }
  }
  const tabTo = async (wanted: Locator) => {
    await wanted.first().waitFor()
    for (let tabs = 0; tabs < 40; tabs++) {
      if (await wanted.first().evaluate((element) => element === document.activeElement)) return
      await press('Tab')
    }
    throw new Error('the keyboard does not reach it')
  }
  await tabTo(page.getByLabel('E-mail address'))
  await page.keyboard.type(email)
  await press('Tab')
  await page.keyboard.type(PASSWORD)
  await press('Enter')
  await tabTo(page.getByRole('link', { name: 'Frame', exact: true }).last())
  await press('Enter')
  await page.waitForURL(`**/places/${wall}/frame`)
  await tabTo(page.getByRole('button', { name: 'Begin: Level tiers' }))
  await press('Enter')
  await tabTo(page.getByRole('button', { name: 'Go to the figures' }))
  await press('Enter')
  await tabTo(page.getByLabel('Tier 1', { exact: true }))
  await press('Control+a')
  await page.keyboard.type('40 cm')
  await press('Control+s')
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  const [frame] = (await (await page.request.get(`${apiOf(garden)}/frames`)).json()) as [
    { body: { design: { pattern: { levels: { heightM: number }[] } } } },
  ]
  expect(frame.body.design.pattern.levels[0]!.heightM).toBe(0.4)
  expect(presses).toBeLessThan(40)
})

test('the whole job by keyboard alone', async ({ page }) => {
  const focusOn = async (
    name: RegExp,
    role: 'link' | 'button' | 'textbox' | 'radio' | 'combobox' | 'slider' | 'summary',
  ) => {
    const wanted = (
      role === 'summary' ? page.locator('summary', { hasText: name }) : page.getByRole(role, { name })
    ).first()
    await wanted.waitFor()
    for (let tabs = 0; tabs < 160; tabs++) {
      if (await wanted.evaluate((element) => element === document.activeElement)) return
      // A group of radio buttons takes one tab; the arrows go round in it.
      const inSameGroup =
        role === 'radio' &&
        (await wanted.evaluate(
          (element) =>
            (element as HTMLInputElement).name === (document.activeElement as HTMLInputElement | null)?.name,
        ))
      await page.keyboard.press(inSameGroup ? 'ArrowRight' : 'Tab')
    }
    throw new Error(`the keyboard does not reach ${role} ${name}`)
  }
  const press = async (name: RegExp, role: 'link' | 'button' | 'summary' = 'button') => {
    await focusOn(name, role)
    await page.keyboard.press('Enter')
  }
  const type = async (name: RegExp, text: string) => {
    await focusOn(name, 'textbox')
    await page.keyboard.press('Control+A')
    await page.keyboard.type(text)
  }
  await page.goto('/sign-in')
  await press(/I am new here/)
  await type(/Your name/, 'Keys')
  await type(/Name of your garden/, 'Key garden')
  await type(/E-mail/, newEmail())
  await type(/Password/, PASSWORD)
  await page.keyboard.press('Enter')
  await press(/^A wall$/, 'link')
  await type(/^Name$/, 'Key wall')
  await type(/^Width$/, '4 m')
  await type(/^Usable height$/, '1.5 m')
  await press(/Save and design its frame/)
  await press(/Begin: Level tiers/)
  await expect(figure(page, 'Nodes, one eye each')).toHaveText('12')
  await press(/^Next$/)
  await type(/^Height above soil$/, '32 cm')
  await expect(figure(page, 'Moved by hand')).toHaveText('1')
  await press(/^Save$/)
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()

  await press(/^Plants$/, 'link')
  await type(/^Distance from the left$/, '2 m')
  await press(/Add the plant here/)
  await expect(figure(page, 'Planted')).toBeVisible()
  await focusOn(/Draw a stem/, 'radio')
  await page.keyboard.press('Space')
  await press(/Point by point/, 'summary')
  const point = async (x: string, y: string) => {
    await type(/^Distance from the left$/, x)
    await type(/^Height above soil$/, y)
    await press(/Add this point/)
  }
  await point('2 m', '0')
  await point('2 m', '1.3 m')
  await press(/End the stem/)
  await press(/^Tie at \d crossings$/)
  await expect(page.getByText(/^Recorded: Tie at/)).toBeVisible()
  const tied = Number(await figure(page, 'Ties').textContent())
  expect(tied).toBeGreaterThan(1)
  await press(/^Undo Tie at/)
  await expect(figure(page, 'Ties')).toHaveText('0')
  await press(/^Tie at \d crossings$/)
  // Made today, the ties are looked at in two days; the tie itself can be marked from the bench.
  await press(/^To do$/, 'link')
  await press(/shoot|cane/, 'link')
  await press(/^Sound$/)
  await expect(page.getByText('Recorded: Sound')).toBeVisible()
})
