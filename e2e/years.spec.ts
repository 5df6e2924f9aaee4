import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { haveLargeGarden } from './large-garden.ts'
import { signUp } from './people.ts'

/** More than are read into a window, and enough that the device folds them. */
const ENTRIES = 22_000
const DUE = 16

test('a garden of thirty years opens from what stands; its history comes when a place is opened', async ({
  page,
}) => {
  test.setTimeout(120_000)
  const { garden } = await signUp(page)
  await page.goto('about:blank')
  const places = await haveLargeGarden(page, garden, ENTRIES)
  const sound = page.getByRole('button', { name: 'Sound', exact: true })
  await page.goto(`${garden}/round`)
  await expect(sound).toHaveCount(DUE, { timeout: 60_000 })

  // What the server has folded may lag behind what was written this second.
  await expect.poll(() => isHere(page), { timeout: 60_000 }).toBe(true)

  // A look is told at once from the fold; taken back, the plant's own entries are brought for it.
  await sound.first().click()
  await expect(sound).toHaveCount(DUE - 1)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(sound).toHaveCount(DUE)
  await sound.first().click()
  await expect(sound).toHaveCount(DUE - 1)
  await expect(page.getByText(/waiting to be sent/)).toHaveCount(0)

  // Eight vines with a trunk and last year's three canes; the thirty years before them on their rings.
  await page.goto(`${garden}/places/${places[0]!}/wood`)
  await expect(page.locator('[data-wood]')).toHaveCount(8 * 4)
  const year = new Date().getFullYear()
  await page.goto(`${garden}/places/${places[0]!}/wood?on=${year - 12}-06-01`)
  await expect(page.locator('[data-wood]')).toHaveCount(8 * 4)
  await expect(page.getByText(`As it was on 1 June ${year - 12}`)).toBeVisible()

  // Opened again it is all there, from this device and the server together.
  await page.goto(`${garden}/round`)
  await expect(sound).toHaveCount(DUE - 1)
  await page.reload()
  await expect(sound).toHaveCount(DUE - 1)
})

test('a server that cannot tell what stands reads its journal out', async ({ page }) => {
  const { garden } = await signUp(page)
  await page.goto('about:blank')
  await haveLargeGarden(page, garden, 4800)
  await page.route(/\/api\/.*\/standing/, (route) => route.fulfill({ status: 503, body: '' }))
  await page.goto(`${garden}/round`)
  await expect(page.getByRole('button', { name: 'Sound', exact: true })).toHaveCount(DUE)
})

test('a place whose years are not on the device yet opens with what stands, and has them when the server answers', async ({
  page,
  context,
}) => {
  const { garden } = await signUp(page)
  await page.goto('about:blank')
  const places = await haveLargeGarden(page, garden, 4800)
  // Its history does not come by itself.
  await context.route(/\/journal\?after=0$/, (route) => route.abort())
  await page.goto(`${garden}/places/${places[0]!}/wood`)
  await expect(page.locator('[data-wood]')).toHaveCount(8 * 4)
  await page.getByRole('link', { name: 'To do', exact: true }).click()
  await page.getByRole('button', { name: 'Sound', exact: true }).first().waitFor()
  await context.setOffline(true)
  const away = page.getByText('What stands now is shown. The earlier years')
  await page.locator(`a[href*="${places[1]!}/wood?tie="]`).first().click()
  await expect(away).toBeVisible()
  await expect(page.locator('[data-wood]')).toHaveCount(8 * 4)
  await context.setOffline(false)
  await expect(away).toHaveCount(0, { timeout: 30_000 })
  await expect(page.locator('[data-wood]')).toHaveCount(8 * 4)
})

test('after a release that folds otherwise a garden opens all the same, with the server and without it', async ({
  page,
}) => {
  test.setTimeout(120_000)
  const { garden } = await signUp(page)
  await page.goto('about:blank')
  await haveLargeGarden(page, garden, 4800)
  const sound = page.getByRole('button', { name: 'Sound', exact: true })
  await page.goto(`${garden}/round`)
  await expect(sound).toHaveCount(DUE)
  // What the server has folded may lag behind what was written this second: a tie of long ago stood here for a moment.
  await expect.poll(() => isHere(page), { timeout: 30_000 }).toBe(true)
  await sound.first().click()
  await expect(sound).toHaveCount(DUE - 1)

  await foldedBy(page, 'the release before')
  await page.reload()
  await expect(sound).toHaveCount(DUE - 1)
  // Folded anew beside that, once it is looked at quietly.
  await expect.poll(() => foldedBy(page), { timeout: 30_000 }).not.toBe('the release before')

  await foldedBy(page, 'the release before')
  await page.route('**/api/**', (route) => route.abort())
  await page.reload()
  await expect(sound).toHaveCount(DUE - 1)
  expect(await foldedBy(page)).not.toBe('the release before')
})

/** Whether all that was ever written of the one garden lies on the device. */
const isHere = async (page: Page) => (await inCopy(page, 'reach', '(one) => one.base'))[0] === 0
/** By which rules the one garden of this device is folded; or has it say so. */
const foldedBy = async (page: Page, rules?: string) => {
  const change = rules === undefined ? '' : `one.rules = '${rules}', `
  return (await inCopy(page, 'folded', `(one) => (${change}one.rules)`))[0]
}

/** Asks each record in a store of the copy on this device; what is changed in it is kept. */
const inCopy = (page: Page, store: string, ask: string): Promise<unknown[]> =>
  page.evaluate(`new Promise((resolve, reject) => {
    const opening = indexedDB.open('klados-copy')
    opening.onerror = () => reject(opening.error)
    opening.onsuccess = () => {
      const said = []
      const transaction = opening.result.transaction('${store}', 'readwrite')
      transaction.objectStore('${store}').openCursor().onsuccess = ({ target: { result: cursor } }) => {
        if (!cursor) return
        const one = cursor.value
        said.push((${ask})(one))
        cursor.update(one)
        cursor.continue()
      }
      transaction.oncomplete = () => {
        opening.result.close()
        resolve(said)
      }
    }
  })`)
