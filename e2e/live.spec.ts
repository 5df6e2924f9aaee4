import { expect, test } from './fixtures.ts'
import type { Browser, Page } from '@playwright/test'
import { apiOf, haveEntries, havePlant, haveWall, join, signUp } from './people.ts'
import { grewBody, tieBody } from '../packages/core/test/bodies.ts'

const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10)

/** A vine with two ties that want to be looked at. */
async function tiedVine(page: Page, garden: string) {
  const place = await haveWall(page, garden)
  const plant = await havePlant(page, garden, place, { name: 'Old vine', kindId: 'wine-grape', xM: 2 })
  const trunk = crypto.randomUUID()
  const ties = [0.3, 0.8].map((alongM) => ({
    kind: 'tie.made',
    at: daysAgo(90),
    body: tieBody(crypto.randomUUID(), trunk, {
      alongM,
      hitch: 'figureEight',
      stemDiameterMm: 20,
      loopLengthMm: 140,
    }),
  }))
  await haveEntries(page, garden, place, plant, [
    {
      kind: 'piece.grew',
      at: daysAgo(100),
      body: grewBody(trunk, {
        path: [
          { xM: 2, yM: 0 },
          { xM: 2, yM: 1 },
        ],
        seasonsOld: 3,
        baseMm: 20,
      }),
    },
    ...ties,
  ])
  return { place, api: apiOf(garden) }
}

/** Somebody else of the same garden, in a browser of their own. */
async function another(browser: Browser, page: Page, garden: string): Promise<Page> {
  const theirs = await (await browser.newContext()).newPage()
  await signUp(theirs)
  await join(page, theirs, garden, 'grower')
  return theirs
}

test('what one of two writes stands on the other’s screen in seconds, and a look that both took is one', async ({
  page,
  browser,
}) => {
  const { garden } = await signUp(page)
  await tiedVine(page, garden)
  const theirs = await another(browser, page, garden)
  const looks = (at: Page) => at.getByRole('button', { name: 'Sound' })
  for (const at of [page, theirs]) {
    await at.goto(`${garden}/round`)
    await expect(looks(at)).toHaveCount(2)
  }
  await looks(theirs).first().click()
  await expect(looks(page)).toHaveCount(1)
  // Both look at the other tie, and neither has heard of the other's look: one of them has no signal.
  await theirs.context().setOffline(true)
  await looks(theirs).first().click()
  await looks(page).first().click()
  for (const at of [page, theirs]) await expect(looks(at)).toHaveCount(0)
  await theirs.context().setOffline(false)
  await expect(theirs.getByText(/waiting to be sent/)).toHaveCount(0, { timeout: 30_000 })
  for (const at of [page, theirs]) await expect(looks(at)).toHaveCount(0)
  await expect(page.getByText(/does not fit|needs your decision/i)).toHaveCount(0)

  // A place that is measured by one is the other's too.
  await theirs.goto(`${garden}/places`)
  await haveWall(page, garden, { name: 'Gable end' })
  await expect(theirs.getByRole('heading', { name: 'Gable end' })).toBeVisible()
  await theirs.context().close()
})

test('one window of a browser holds the stream, and another hears by it and takes over', async ({
  page,
  browser,
}) => {
  const { garden } = await signUp(page)
  await tiedVine(page, garden)
  const theirs = await another(browser, page, garden)
  const second = await page.context().newPage()
  let streams = 0
  for (const at of [page, second]) {
    at.on('request', (request) => {
      if (request.url().endsWith('/events')) streams++
    })
    await at.goto(`${garden}/round`)
    await expect(at.getByRole('button', { name: 'Sound' })).toHaveCount(2)
  }
  await theirs.goto(`${garden}/round`)
  await theirs.getByRole('button', { name: 'Sound' }).first().click()
  for (const at of [page, second]) await expect(at.getByRole('button', { name: 'Sound' })).toHaveCount(1)
  expect(streams).toBe(1)
  await page.close()
  await theirs.getByRole('button', { name: 'Sound' }).first().click()
  await expect(second.getByRole('button', { name: 'Sound' })).toHaveCount(0)
  await theirs.context().close()
})

test('without a signal one finds a tie bitten in, one gone and the plant dead; another has looked at the same, and it is one', async ({
  page,
  browser,
}) => {
  const { garden } = await signUp(page)
  const { place, api } = await tiedVine(page, garden)
  const theirs = await another(browser, page, garden)
  const sound = (at: Page) => at.getByRole('button', { name: 'Sound', exact: true })
  const ended = async (name: string) => {
    await page
      .getByRole('button', { name: /^Bitten in, gone/ })
      .first()
      .click()
    return page.getByRole('button', { name, exact: true })
  }
  for (const at of [page, theirs]) {
    await at.goto(`${garden}/round`)
    await expect(sound(at)).toHaveCount(2)
  }
  // A gloved hand presses twice: the tie that comes under the thumb then is not looked at by that.
  await sound(page).first().dblclick()
  await expect(page.getByText('1 done')).toBeVisible()
  await expect(sound(page)).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).click()
  for (const at of [page, theirs]) await expect(sound(at)).toHaveCount(2)
  await page.context().setOffline(true)
  // By mistake, taken back; then as it was: bitten in and tied anew, the other gone and left off.
  await (await ended('Rotted')).click()
  await expect(sound(page)).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(sound(page)).toHaveCount(2)
  await (await ended('Bitten in')).click()
  await expect(sound(page)).toHaveCount(1)
  const gone = await ended('Gone')
  await page.getByLabel('Tied again at once').uncheck()
  await gone.click()
  await expect(sound(page)).toHaveCount(0)
  await sound(theirs).first().click()
  await sound(theirs).first().click()
  await page.context().setOffline(false)
  await expect(page.getByText(/waiting to be sent/)).toHaveCount(0, { timeout: 30_000 })
  // What waits is told when the window next looks, so the journal is asked until it has come.
  const written = async () => {
    const read = await page.request.get(`${api}/journal?after=0&kind=tie.replaced,tie.ended`)
    const { entries } = (await read.json()) as { entries: { kind: string; body: { why: string } }[] }
    return entries.map(({ kind, body }) => [kind, body.why]).slice(-2)
  }
  await expect.poll(written, { timeout: 30_000 }).toEqual([
    ['tie.replaced', 'bitten'],
    ['tie.ended', 'gone'],
  ])
  for (const at of [page, theirs]) {
    await at.goto(`${garden}/places/${place}/wood`)
    await expect(at.getByText('a tie had bitten in; tied anew')).toBeVisible()
    await expect(at.locator('[data-tie]')).toHaveCount(1)
    await expect(at.getByText(/not fit/)).toHaveCount(0)
  }

  await page.getByText('Dead or taken out').click()
  await page.getByLabel('Since').fill('2019-01-01')
  await page.getByRole('button', { name: 'Record it as gone' }).click()
  await expect(page.getByLabel('Since')).toHaveJSProperty('validity.valid', false)
  await page.getByLabel('Since').fill(daysAgo(1))
  await page.getByLabel('Reason, as far as you know').fill('Canker')
  await page.getByRole('button', { name: 'Record it as gone' }).click()
  for (const at of [page, theirs]) {
    await expect(at.locator('[data-tie]')).toHaveCount(0)
    await at.getByRole('button', { name: 'Old vine', exact: true }).first().click()
    await expect(at.getByText('Canker')).toBeVisible()
  }
  // Its years before are there, and it can stand after all.
  await theirs.goto(`${garden}/places/${place}/wood?on=${daysAgo(30)}`)
  await expect(theirs.locator('[data-tie]')).toHaveCount(2)
  await page.getByRole('button', { name: 'It is alive: restore it' }).click()
  await expect(page.locator('[data-tie]')).toHaveCount(1)
  // Taken off as a mistake, which was one.
  await page.getByText('Dead or taken out').click()
  await page.getByRole('button', { name: 'Remove it (entered by mistake)' }).click()
  await expect(page.locator('[data-tie]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Restore' }).click()
  await expect(page.locator('[data-tie]')).toHaveCount(1)
  await theirs.context().close()
})
