import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { PASSWORD, apiOf, haveWall, join, journalId, newEmail, signUp } from './people.ts'

const write = async (page: Page, text: string) => {
  await page.getByLabel('A note').fill(text)
  await page.getByRole('button', { name: 'Save the note' }).click()
}
const notesOf = async (page: Page, garden: string) =>
  (
    (await (await page.request.get(`${apiOf(garden)}/journal`)).json()) as {
      entries: { kind: string; by: string; body: { text?: string } }[]
    }
  ).entries.flatMap(({ kind, by, body }) => (kind === 'note.written' ? [`${by}: ${body.text}`] : []))

async function pictureOf(page: Page) {
  const bytes = await page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    canvas.width = canvas.height = 700
    const at = canvas.getContext('2d')!
    const noise = at.createImageData(700, 700)
    for (let n = 0; n < noise.data.length; n++) noise.data[n] = n % 4 === 3 ? 255 : (n * 7919) % 251
    at.putImageData(noise, 0, 0)
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.9))
    return [...new Uint8Array(await blob!.arrayBuffer())]
  })
  return { name: 'bark.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(bytes) }
}

test('a photo on a slow line holds up neither a note nor a new plant; what waits, for what and since when is said', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/wood`)
  await page.getByLabel('A note').waitFor()
  let isSlow = true
  const pieces: number[] = []
  await page.route('**/files/**', async (route) => {
    const size = route.request().postDataBuffer()?.length ?? 0
    if (size > 0) pieces.push(size)
    // As long as a line of one kilobyte a second would take, up to the end of this test's patience.
    if (isSlow && size > 0) await new Promise((resolve) => setTimeout(resolve, 12_000))
    await route.continue().catch(() => undefined)
  })
  await page.getByLabel('Add a photo', { exact: true }).setInputFiles(await pictureOf(page))
  await expect(page.getByText('Recorded: photo')).toBeVisible()
  await write(page, 'beside the photo')
  await page.getByLabel('Distance from the left').fill('3 m')
  await page.getByLabel('Name', { exact: true }).fill('Late pear')
  await page.getByRole('button', { name: 'Add the plant here' }).click()
  await expect.poll(() => notesOf(page, garden)).toEqual(['Test grower: beside the photo'])
  const plants = async () =>
    ((await (await page.request.get(`${apiOf(garden)}/plants`)).json()) as { body: { name: string } }[]).map(
      ({ body }) => body.name,
    )
  await expect.poll(plants).toEqual(['Late pear'])
  // Within five seconds of being written.
  const waiting = page.getByText('2 changes are waiting to be sent.')
  await expect(waiting).toBeVisible({ timeout: 5000 })
  await waiting.click()
  await expect(page.getByText(/A photo: 0 of \d+ kB sent\. Since \d\d:\d\d\./)).toBeVisible()
  await expect(page.getByText(/waits for its photo\. Since/)).toBeVisible()
  isSlow = false
  await expect(page.getByText(/waiting to be sent/)).toHaveCount(0, { timeout: 45_000 })
  expect(pieces.length).toBeGreaterThan(2)
  expect(Math.max(...pieces)).toBeLessThan(600_000)
})

test('whose account another window has signed in is told, and what is written here stays its writer’s', async ({
  page,
  context,
}) => {
  const { garden, email } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/wood`)
  await page.getByLabel('A note').waitFor()
  // The same browser, another window: somebody else signs in, who is in this garden too.
  const other = await context.newPage()
  const theirs = { name: 'Isla', email: newEmail(), password: PASSWORD, gardenName: 'Next door' }
  const reply = await context
    .browser()!
    .newContext()
    .then(async (apart) => {
      const guest = await apart.newPage()
      const made = await guest.request.post(`${new URL(page.url()).origin}/api/accounts`, { data: theirs })
      await guest.goto(new URL(page.url()).origin)
      await join(page, guest, garden, 'grower')
      await apart.close()
      return made
    })
  expect(reply.ok()).toBe(true)
  await other.request.delete('/api/session')
  await other.request.post('/api/session', { data: { email: theirs.email, password: PASSWORD } })

  await write(page, 'written by the first')
  await expect(page.getByText('Another window of this browser is now signed in as Isla.')).toBeVisible()
  await write(page, 'and this too')
  await expect(page.getByText('2 changes are waiting to be sent.')).toBeVisible({ timeout: 6000 })
  expect(await notesOf(other, garden)).toEqual([])
  await page.getByRole('button', { name: 'Continue as Isla' }).click()
  await page.waitForURL(/\/places$/)
  await page.goto(`${garden}/places/${wall}/wood`)
  await expect(page.getByText('2 changes by Test grower on this device are waiting')).toBeVisible()
  await write(page, 'written by the second')
  await expect.poll(() => notesOf(other, garden)).toEqual(['Isla: written by the second'])
  // Their writer comes back, and it goes under their name.
  await other.request.delete('/api/session')
  await other.request.post('/api/session', { data: { email, password: PASSWORD } })
  await page.goto(`${garden}/places/${wall}/wood`)
  await expect
    .poll(async () => (await notesOf(other, garden)).sort())
    .toEqual([
      'Isla: written by the second',
      'Test grower: and this too',
      'Test grower: written by the first',
    ])
})

test('signing out without the server is done on the device at once, said, and made good later', async ({
  page,
  context,
}) => {
  const { garden, email } = await signUp(page)
  await page.goto(`${garden}/places`)
  await page.getByText('Back yard').first().waitFor()
  await page.waitForTimeout(800)
  await page.route('**/api/**', (route) => route.abort())
  await page.getByText('Back yard').first().click()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByText('You are signed out on this device.')).toBeVisible()
  const kept = () => page.evaluate(() => localStorage.getItem('klados.copy-of'))
  expect(await kept()).toBeNull()
  const isIn = async () =>
    ((await (await context.request.get('/api/session')).json()) as { account: object | null }).account !==
    null
  expect(await isIn()).toBe(true)
  await page.unroute('**/api/**')
  await page.goto('/')
  await page.waitForURL(/sign-in/)
  await expect.poll(isIn).toBe(false)
  await page.getByLabel('E-mail address').fill(email)
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await page.waitForURL(/\/places$/)
})

// Forty seconds of it, and ten requests, by `npm run soak`.
test('a busy server is left alone by all of a window, reading and writing together, and gone on with when it has time', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/wood`)
  await page.getByLabel('A note').waitFor()
  await page.waitForLoadState('networkidle').catch(() => undefined)
  let asked = 0
  await page.route('**/api/**', (route) => {
    asked++
    return route.fulfill({
      status: 503,
      headers: { 'klados-api': '3', 'retry-after': '5', 'content-type': 'application/json' },
      body: JSON.stringify({ error: { code: 'server/busy', message: 'busy' } }),
    })
  })
  const until = Date.now() + 14_000
  for (let n = 0; Date.now() < until; n++) {
    await write(page, `busy ${n}`)
    // Somebody looks away and back, and walks about.
    await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')))
    if (n === 2) await expect(page.getByText('The server is busy.')).toBeVisible()
    await page.waitForTimeout(1500)
  }
  expect(asked).toBeLessThanOrEqual(7)
  await page.unroute('**/api/**')
  await expect(page.getByText(/waiting to be sent/)).toHaveCount(0, { timeout: 40_000 })
  await expect(page.getByText('The server is busy.')).toHaveCount(0)
})

test.describe('with another clock', () => {
  test.use({ isApart: true })

  test('what was written by a clock that was days ahead is set right in one step', async ({ page }) => {
    const { garden } = await signUp(page)
    const wall = await haveWall(page, garden)
    await page.clock.install({ time: new Date(Date.now() + 9 * 86_400_000) })
    await page.goto(`${garden}/places/${wall}/wood`)
    for (const text of ['one', 'two', 'three']) await write(page, text)
    await page.getByText('3 changes were refused').click()
    await expect(page.getByText('The clock of this device was 9 days ahead')).toBeVisible()
    await page.clock.setSystemTime(new Date())
    await page.getByRole('button', { name: 'Correct all 3 dates' }).click()
    await expect
      .poll(() => notesOf(page, garden))
      .toEqual(['one', 'two', 'three'].map((text) => `Test grower: ${text}`))
    const { entries } = (await (await page.request.get(`${apiOf(garden)}/journal`)).json()) as {
      entries: { at: string }[]
    }
    for (const { at } of entries) expect(Math.abs(Date.parse(at) - Date.now())).toBeLessThan(2 * 86_400_000)
  })
})

test('a disk that is full: what is written is sent from memory, and leaving before that is warned of', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...args: Parameters<typeof put>) {
      if (this.name === 'items') throw new DOMException('full', 'QuotaExceededError')
      return put.apply(this, args)
    }
  })
  await page.goto(`${garden}/places/${wall}/wood`)
  await page.getByLabel('A note').waitFor()
  await page.route('**/entries', (route) => route.abort())
  await write(page, 'no room for this')
  await expect(page.getByText('1 change is kept in this window only.')).toBeVisible()
  let warned = ''
  page.once('dialog', (dialog) => {
    warned = dialog.type()
    void dialog.dismiss()
  })
  await page.close({ runBeforeUnload: true })
  await expect.poll(() => warned).toBe('beforeunload')
  await page.unroute('**/entries')
  await expect
    .poll(() => notesOf(page, garden), { timeout: 40_000 })
    .toEqual(['Test grower: no room for this'])
})

test('what a newer version wrote is said to be there, and the rest goes on', async ({ page }) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto('about:blank')
  await page.route(/\/api\/.*\/places$/, async (route) => {
    const reply = await route.fetch()
    const places = (await reply.json()) as { id: string; body: object; bodyVersion: number }[]
    const later = { ...places[0]!, id: crypto.randomUUID(), bodyVersion: 99, body: { of: 'shapes to come' } }
    return route.fulfill({ response: reply, json: [...places, later] })
  })
  await page.route('**/journal?**', async (route) => {
    const reply = await route.fetch()
    const json = (await reply.json()) as { entries: object[] }
    const entries = json.entries.map((entry, n) =>
      n === 0 ? { ...entry, body: { v: 9, said: 'otherwise' } } : entry,
    )
    return route.fulfill({ response: reply, json: { ...json, entries } })
  })
  const id = journalId()
  const note = { id, placeId: wall, plantId: null, kind: 'note.written', at: '2026-02-01', supersedes: null }
  await page.request.post(`${apiOf(garden)}/entries`, {
    data: { entries: [{ ...note, recordedAt: new Date().toISOString(), body: { v: 1, text: 'old words' } }] },
  })
  await page.goto(`${garden}/places/${wall}/wood`)
  await expect(
    page.getByText('1 place, frame or plant was written by a newer version of Klados'),
  ).toBeVisible()
  await expect(page.getByText('1 entry was written by a newer version of Klados')).toBeVisible()
  await expect(page.getByText('Written by a newer version of Klados', { exact: true })).toBeVisible()
  await write(page, 'and on')
  await expect(page.getByText('and on', { exact: true })).toBeVisible()
})
