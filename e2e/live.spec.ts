import { expect, test } from '@playwright/test'
import type { Browser, Page } from '@playwright/test'
import { haveEntries, havePlant, haveWall, signUp } from './people.ts'
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
}

/** Somebody else of the same garden, in a browser of their own. */
async function another(browser: Browser, page: Page, garden: string): Promise<Page> {
  const theirs = await (await browser.newContext()).newPage()
  const { email } = await signUp(theirs)
  const reply = await page.request.post(`/api${garden.replace('/g/', '/gardens/')}/members`, {
    data: { email, role: 'grower' },
  })
  expect(reply.ok()).toBe(true)
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
  await expect(theirs.getByText(/wait to be sent/)).toHaveCount(0, { timeout: 30_000 })
  for (const at of [page, theirs]) await expect(looks(at)).toHaveCount(0)
  await expect(page.getByText(/does not fit|wants your word/i)).toHaveCount(0)

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
