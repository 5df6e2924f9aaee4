import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { haveEntries, havePlant, haveTiers, journalId, signUp, winterDay } from './people.ts'
import { grewBody } from '../packages/core/test/bodies.ts'

const line = (...points: [xM: number, yM: number][]) => points.map(([xM, yM]) => ({ xM, yM }))

interface Grown {
  readonly id?: string
  readonly on?: { readonly pieceId: string; readonly alongM: number }
  readonly path: { xM: number; yM: number }[]
  readonly seasonsOld: number
  readonly baseMm: number
  readonly role?: string
  readonly buds?: number
}

/** An entry for a piece of wood that stands on a day. */
const grew = (at: string, { id = crypto.randomUUID(), on, path, seasonsOld, baseMm, role, buds }: Grown) => ({
  kind: 'piece.grew',
  at,
  body: grewBody(id, {
    ...(on && { parent: { on: 'piece', ...on } }),
    path,
    seasonsOld,
    baseMm,
    buds: buds ?? null,
    role: role ?? null,
  }),
})

/** Every press of a key, to hold the bench to what it promises. */
function counted(page: Page) {
  let presses = 0
  return {
    press: async (key: string) => {
      presses += 1
      await page.keyboard.press(key)
    },
    type: async (text: string) => {
      presses += text.length
      await page.keyboard.type(text)
    },
    get presses() {
      return presses
    },
  }
}

test('a vine by keyboard alone: six canes called out, chosen among, planned, and cut and tied so', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const on = winterDay()
  const place = await haveTiers(page, garden, {
    name: 'Vine wall',
    widthM: 2.2,
    usableHeightM: 0.8,
    firstForkM: 0.9,
  })
  const plant = await havePlant(page, garden, place, {
    name: 'Old vine',
    kindId: 'wine-grape',
    xM: 1.1,
    plantedOn: `${Number(on.slice(0, 4)) - 8}-04-01`,
    system: 'cane-two',
    budGoal: { by: 'plain', aim: 24, min: 20, max: 28 },
  })
  const [trunk, left, right] = [crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()]
  await haveEntries(page, garden, place, plant, [
    grew(on, { id: trunk, path: line([1.1, 0], [1.1, 0.8]), seasonsOld: 8, baseMm: 40, role: 'trunk' }),
    grew(on, {
      id: left,
      on: { pieceId: trunk, alongM: 0.8 },
      path: line([1.1, 0.8], [0.98, 0.84]),
      seasonsOld: 2,
      baseMm: 14,
    }),
    grew(on, {
      id: right,
      on: { pieceId: trunk, alongM: 0.8 },
      path: line([1.1, 0.8], [1.22, 0.84]),
      seasonsOld: 2,
      baseMm: 14,
    }),
  ])
  await page.goto(`${garden}/places/${place}/wood?on=${on}`)
  await page.getByText('Record the wood').click()
  const source = page.getByLabel('Grows from')
  await source.selectOption(left)
  await page.getByLabel('Thickness, length, buds').focus()
  const keys = counted(page)
  const call = async (stem: string) => {
    await keys.type(stem)
    await keys.press('Enter')
    await expect(page.getByLabel('Thickness, length, buds')).toHaveValue('')
  }
  await call('7 30 3 @4')
  await call('9 130 16')
  await source.selectOption(right)
  await page.getByLabel('Thickness, length, buds').focus()
  await call('14 180 15 @3')
  await call('8 120 15')
  await source.selectOption(trunk)
  await page.getByLabel('Thickness, length, buds').focus()
  await call('9 99 12 @40')
  await call('10 90 9 graft')
  expect(keys.presses).toBeLessThanOrEqual(70)

  // From the first look to the plan: two presses where the proposal is taken as it is.
  await page.getByRole('heading', { name: 'Vine wall' }).click()
  const choose = counted(page)
  await choose.press('2')
  const table = page.getByRole('table', { name: 'Which canes, which spurs?' })
  await expect(table.getByRole('row')).toHaveCount(7)
  const row = (thick: string) => table.getByRole('row').filter({ hasText: thick })
  await expect(row('9 mm').first()).toContainText('lay left')
  await expect(row('8 mm')).toContainText('lay right')
  await expect(row('7 mm')).toContainText('cut above 2 buds')
  await expect(row('14 mm')).toContainText('cut above 2 buds')
  await expect(row('14 mm')).toContainText('too thick with long joints')
  await expect(row('10 mm')).toContainText('from below the graft')
  await expect(page.getByText(/from the trunk/).first()).toBeVisible()

  // Why not the thick one: it can be asked, taken, and given a reason; and back.
  const thick = (await row('14 mm').getByRole('button').textContent())!.trim()
  await choose.press(thick.toLowerCase())
  const slip = page.getByRole('complementary', { name: 'Wood' })
  await expect(slip.getByText('too thick with long joints')).toBeVisible()
  const lay = slip.getByRole('button', { name: /lay right/ }).first()
  const n = (await lay.textContent())!.trim().charAt(0)
  await choose.press(n)
  await expect(slip.getByLabel(/Your reason/)).toBeVisible()
  await slip.getByLabel(/Your reason/).fill('it looked strong')
  await page.getByRole('heading', { name: 'Vine wall' }).click()
  await choose.press('Escape')
  await expect(slip.getByText('your choice')).toBeVisible()
  await slip.getByRole('button', { name: 'Back to the proposal' }).click()
  await page.getByRole('heading', { name: 'Vine wall' }).click()
  await choose.press('Control+Enter')
  expect(choose.presses).toBeLessThan(30)

  await expect(slip.getByRole('heading', { name: 'To do on Old vine' })).toBeVisible()
  await expect(slip.getByRole('list', { name: 'Marking list' })).toContainText('lay left')
  await slip.getByRole('button', { name: 'Record as cut and tied' }).click()
  await expect(slip.getByText('Nothing is planned on Old vine')).toBeVisible()
  await page.getByRole('heading', { name: 'Vine wall' }).click()
  await page.keyboard.press('1')
  await expect(slip.getByText('How earlier choices turned out')).toBeVisible()
  await expect(page.locator('[data-tie]')).not.toHaveCount(0)
  await expect(page.locator('[data-wood]')).toHaveCount(7)

  // Undone as one, the wood stands as it stood.
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-wood]')).toHaveCount(9)
  await expect(page.locator('[data-tie]')).toHaveCount(0)
  await page.keyboard.press('3')
  await expect(slip.getByRole('list', { name: 'Marking list' })).toBeVisible()
})

test('a spur-pruned vine stands in a few presses, and its places are counted', async ({ page }) => {
  const { garden } = await signUp(page)
  const on = winterDay()
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
    plantedOn: `${Number(on.slice(0, 4)) - 7}-04-01`,
    system: 'spur-cordon',
  })
  await page.goto(`${garden}/places/${place}/wood?on=${on}`)
  const keys = counted(page)
  await page.getByLabel('Years since planting').focus()
  await keys.press('Tab')
  await keys.press('Enter')
  await expect(page.locator('[data-wood]').nth(40)).toBeAttached()
  expect(keys.presses).toBeLessThanOrEqual(12)
  await page.getByRole('heading', { name: 'Vine wall' }).click()
  await page.keyboard.press('2')
  const slip = page.getByRole('complementary', { name: 'Wood' })
  await expect(slip.getByRole('heading', { name: 'Which shoot of each spur?' })).toBeVisible()
  await expect(slip.getByText('cut above 2 buds').first()).toBeVisible()
  await expect(slip.getByText(/out on its spur/).first()).toBeVisible()
})

test('a climbing rose and a level pear are asked their own questions, on a phone by thumb', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const { garden } = await signUp(page)
  const on = winterDay()
  const planted = `${Number(on.slice(0, 4)) - 4}-11-01`
  const place = await haveTiers(page, garden, {
    name: 'Gable',
    widthM: 6,
    usableHeightM: 1.6,
    firstForkM: 0.6,
  })
  const rose = await havePlant(page, garden, place, {
    name: 'Gable rose',
    kindId: 'climbing-rose',
    xM: 0.2,
    plantedOn: planted,
    system: 'rose-level',
  })
  await haveEntries(
    page,
    garden,
    place,
    rose,
    [4.1, 3.6, 2.9, 0.4].map((lengthM, i) =>
      grew(on, {
        path: line([0.2, 0], [0.25 + i * 0.1, lengthM]),
        seasonsOld: 1,
        baseMm: 11,
        buds: Math.round(lengthM * 20),
      }),
    ),
  )
  await page.goto(`${garden}/places/${place}/wood?on=${on}`)
  let taps = 0
  const tap = async (what: { click: () => Promise<void> }) => {
    taps += 1
    await what.click()
  }
  await tap(page.getByRole('group', { name: 'View' }).getByText('Choose'))
  const slip = page.getByRole('complementary', { name: 'Wood' })
  await expect(slip.getByRole('heading', { name: 'Which main stems, on which wires?' })).toBeVisible()
  await expect(slip.getByRole('button', { name: /lay right on wire 1/ })).toBeVisible()
  await expect(slip.getByRole('button', { name: /wait/ })).toContainText('too short for the first wire')
  await expect(slip.getByText(/look again on/)).toBeVisible()
  await expect(slip.getByText(/Thorns/)).toBeVisible()
  await tap(slip.getByRole('button', { name: 'Save as plan' }))
  await tap(slip.getByRole('button', { name: 'Record as cut and tied' }))
  await expect(slip.getByText('Nothing is planned on Gable rose')).toBeVisible()
  expect(taps).toBeLessThan(12)

  const pears = await haveTiers(page, garden, {
    name: 'Pear wall',
    widthM: 4,
    usableHeightM: 1.4,
    firstForkM: 0.35,
  })
  await havePlant(page, garden, pears, {
    name: 'Pear',
    kindId: 'pear',
    xM: 2,
    plantedOn: planted,
    system: 'level-tiers',
  })
  await page.goto(`${garden}/places/${pears}/wood?on=${on}`)
  await page.getByRole('button', { name: 'Add this wood' }).click()
  await page.getByRole('group', { name: 'View' }).getByText('Choose').click()
  await expect(slip.getByRole('heading', { name: 'Which leader?' })).toBeVisible()
  await expect(slip.getByRole('button', { name: /cut at .*, above \d+ buds/ })).toBeVisible()
  await expect(slip.getByText(/hold them at 45°/)).toBeVisible()
  await slip.getByRole('button', { name: 'Save as plan' }).click()
  await slip.getByRole('button', { name: 'Record as cut and tied' }).click()
  await expect(slip.getByText('Nothing is planned on Pear')).toBeVisible()
  await page.getByRole('group', { name: 'View' }).getByText('Choose').click()
  await expect(slip.getByText('There is nothing to choose on Pear now.')).toBeVisible()
})

test('a row is counted plant after plant; a missing one is not, and the budget says how it stands', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const on = winterDay()
  const place = await haveTiers(page, garden, {
    name: 'Vine row',
    widthM: 12,
    usableHeightM: 0.8,
    firstForkM: 0.9,
  })
  for (let i = 0; i < 8; i++)
    await havePlant(page, garden, place, {
      name: `Vine ${i + 1}`,
      kindId: 'wine-grape',
      xM: 1 + 1.4 * i,
      plantedOn: `${Number(on.slice(0, 4)) - (i === 7 ? 1 : 6)}-04-01`,
      system: 'cane-two',
    })
  await page.goto(`${garden}/places/${place}/wood?on=${on}`)
  await page.getByRole('radio', { name: 'Vine 1', exact: true }).click()
  await page.getByRole('group', { name: 'View' }).getByText('Count').click()
  const slip = page.getByRole('complementary', { name: 'Wood' })
  await expect(slip.getByRole('heading', { name: 'Vine 1, 1 of 8' })).toBeVisible()
  await slip.getByLabel('Canes, spurs, buds, ties, minutes').focus()
  await page.keyboard.type('2 2 30 6 5 0.6kg')
  await page.keyboard.press('Enter')
  await expect(slip.getByRole('heading', { name: 'Vine 2, 2 of 8' })).toBeVisible()
  await slip.getByRole('button', { name: 'Same as the last' }).click()
  await page.keyboard.type('2 2 18')
  await page.keyboard.press('Enter')
  await expect(slip.getByRole('heading', { name: 'Vine 4, 4 of 8' })).toBeVisible()
  await slip.getByRole('button', { name: 'Mark as missing' }).click()
  const figure = (label: string) => slip.locator('.slip-row').filter({ hasText: label }).locator('dd').first()
  await expect(figure('Counted')).toHaveText('3 of 6')
  await expect(slip.getByText('78 of 90')).toBeVisible()
  await expect(figure('Not in the budget')).toHaveText('1 missing, 1 young')
  await page.getByRole('group', { name: 'Show' }).getByText('off target').click()
  await expect(page.getByRole('region', { name: 'Count the row' }).getByRole('row')).toHaveCount(2)

  // Five of the six that bear are weighed; the row's budget follows from them in one press.
  await slip.getByText('Budget from sample vines').click()
  await expect(slip.getByText('2 weighed; from 5 on they tell something about the row.')).toBeVisible()
  for (const n of [5, 6, 7]) {
    await slip.getByRole('button', { name: String(n), exact: true }).click()
    await slip.getByLabel('Canes, spurs, buds, ties, minutes').fill('0.6kg')
    await page.keyboard.press('Enter')
  }
  await expect(slip.getByText('33 (33 to 33)')).toBeVisible()
  await slip.getByRole('button', { name: 'Make 33 the target of this row' }).click()
  await expect(figure('Target in all')).toHaveText('198')
  // What was counted before it was weighed still holds.
  await expect(slip.getByText('78 of 99')).toBeVisible()
})

test('entries that come late and fit nothing are kept and told', async ({ page }) => {
  const { garden } = await signUp(page)
  const on = winterDay()
  const place = await haveTiers(page, garden, { name: 'Wall', widthM: 3, usableHeightM: 1, firstForkM: 0.6 })
  const plant = await havePlant(page, garden, place, { name: 'Pear', kindId: 'pear', xM: 1.5, plantedOn: on })
  await haveEntries(page, garden, place, plant, [
    {
      kind: 'piece.cut',
      at: on,
      body: { v: 1, pieceId: journalId(), alongM: 0.2, aboveBuds: null, reason: 'late' },
    },
  ])
  await page.goto(`${garden}/places/${place}/wood?on=${on}`)
  await expect(page.getByText(/1 entry does not fit/)).toBeVisible()
})
