import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { expect, test } from './fixtures.ts'
import type { Page, Route } from '@playwright/test'
import { PASSWORD, apiOf, havePlant, haveTiers, haveWall, signUp } from './people.ts'

const OURS = { 'klados-api': '3', 'content-type': 'application/json' }
const notesOf = async (page: Page, garden: string) =>
  (
    (await (await page.request.get(`${apiOf(garden)}/journal`)).json()) as {
      entries: { body: { text?: string }; at: string }[]
    }
  ).entries.map((entry) => entry.body.text)
const writeNote = async (page: Page, text: string) => {
  await page.getByLabel('A note').fill(text)
  await page.getByRole('button', { name: 'Save the note' }).click()
}
async function atWood(page: Page) {
  const { garden, email } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/wood`)
  await page.getByLabel('A note').waitFor()
  return { garden, wall, email }
}

test('an entry that the server refuses lies in the tray until it is mended, and keeps the next one from nothing', async ({
  page,
}) => {
  const { garden } = await atWood(page)
  const refuseBad = async (route: Route) => {
    const { entries } = JSON.parse(route.request().postData()!) as { entries: { body: { text: string } }[] }
    if (!entries.some((entry) => entry.body.text === 'bad')) return route.continue()
    return route.fulfill({
      headers: OURS,
      body: JSON.stringify({
        answers: entries.map(() => ({
          answer: 'refused',
          code: 'request/malformed',
          message: 'no',
          fields: [{ path: 'body.text', message: 'no' }],
        })),
      }),
    })
  }
  await page.route('**/entries', refuseBad)
  await writeNote(page, 'bad')
  await page.getByText('1 change was refused').click()
  await expect(page.getByText(/^Refused: bad \(Yard wall/)).toBeVisible()
  await writeNote(page, 'good')
  await expect.poll(() => notesOf(page, garden)).toEqual(['good'])
  await page.reload()
  await page.getByText('1 change was refused').click()
  await page.getByLabel('Text').fill('better')
  await page.getByRole('button', { name: 'Send the corrected entry' }).click()
  await expect.poll(() => notesOf(page, garden)).toEqual(['good', 'better'])
  await expect(page.getByText('1 change was refused')).toHaveCount(0)
  await expect(page.getByRole('listitem').filter({ hasText: 'better' })).toBeVisible()
})

test('a guest network that answers everything itself takes nothing, and what was written goes once it is through', async ({
  page,
}) => {
  const { garden } = await atWood(page)
  await page.route('**/api/**', (route) =>
    route.fulfill({ status: 200, contentType: 'text/html', body: '<html>Welcome, guest</html>' }),
  )
  await writeNote(page, 'in the waiting room')
  await expect(page.getByText(/^The server does not answer/)).toBeVisible()
  await expect(page.getByText('1 change is waiting to be sent.')).toBeVisible()
  await page.unroute('**/api/**')
  await expect.poll(() => notesOf(page, garden)).toEqual(['in the waiting room'])
  await expect(page.getByText(/^The server does not answer/)).toHaveCount(0)
})

test('a session that ends in the middle loses nothing: signed in again, it is sent', async ({
  page,
  context,
}) => {
  const { garden, email } = await atWood(page)
  await context.clearCookies()
  await writeNote(page, 'written when the session was over')
  // What lies on this device stays open; it is sent when they have signed in.
  await expect(page.getByText(/^You have been signed out/)).toBeVisible()
  await page.getByRole('link', { name: 'Sign in' }).click()
  await page.getByRole('heading', { name: 'Sign in' }).waitFor()
  await page.getByLabel('E-mail address').fill(email)
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await page.waitForURL(/\/places$/)
  await expect.poll(() => notesOf(page, garden)).toEqual(['written when the session was over'])
})

test('what is typed while a save is in flight stays, and the next save builds on the first', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/frame`)
  await page.getByRole('button', { name: 'Begin: Level tiers' }).click()
  let release: (() => void) | null = null
  await page.route('**/frames/*', async (route) => {
    if (route.request().method() === 'PUT') await new Promise<void>((resolve) => (release = resolve))
    await route.continue()
  })
  await page.getByLabel('Name of the frame').fill('First')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Kept on this device; it is saved when the server answers')).toBeVisible()
  await page.getByLabel('Name of the frame').fill('Typed meanwhile')
  await expect.poll(() => release !== null).toBe(true)
  release!()
  await expect(page.getByText('Not saved yet')).toBeVisible()
  await expect(page.getByLabel('Name of the frame')).toHaveValue('Typed meanwhile')
  await page.unroute('**/frames/*')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 2,/)).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Name of the frame')).toHaveValue('Typed meanwhile')
})

test('measures that are typed outlive a reload, of a new place too', async ({ page }) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/measures`)
  await page.getByLabel('Width').fill('11.6 m')
  await expect(page.getByText('Not saved yet; kept on this device')).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Width')).toHaveValue(/^11\.6/)
  await page.getByRole('button', { name: 'Save the place' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.goto(`${garden}/places/new/measures`)
  await page.getByLabel('Name', { exact: true }).fill('Potting bench')
  await page.reload()
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Potting bench')
})

test('two windows share what is unsent and unsaved, and neither writes over the other', async ({
  page,
  context,
}) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/frame`)
  await page.getByRole('button', { name: 'Begin: Level tiers' }).click()
  await page.getByLabel('Name of the frame').fill('Of the first window')
  await page.waitForTimeout(600)
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(other.getByLabel('Name of the frame')).toHaveValue('Of the first window')
  await other.getByLabel('Name of the frame').fill('Of the second window')
  await expect(page.getByLabel('Name of the frame')).toHaveValue('Of the second window')
  // Both at once, before either has heard of the other: both stay.
  await Promise.all([
    page.getByLabel('Name of the frame').fill('One'),
    other.getByLabel('Name of the frame').fill('Two'),
  ])
  await page.waitForTimeout(1000)
  // One behind the other where they were told apart in time, beside each other where they were not.
  const kept = await page.evaluate(() =>
    Object.entries(localStorage)
      .filter(([key]) => key.startsWith('klados.draft.'))
      .flatMap(([, text]) => {
        const { body, past } = (
          JSON.parse(text) as { value: { body: { name: string }; past: { name: string }[] } }
        ).value
        return [body, ...past].map(({ name }) => name)
      }),
  )
  expect(kept.some((name) => name.startsWith('One'))).toBe(true)
  expect(kept.some((name) => name.startsWith('Two'))).toBe(true)

  await page.goto(`${garden}/places/${wall}/wood`)
  await other.goto(`${garden}/places/${wall}/wood`)
  for (const one of [page, other]) await one.getByLabel('A note').waitFor()
  await context.setOffline(true)
  await writeNote(page, 'from one')
  await writeNote(other, 'from the other')
  await expect(other.getByText('2 changes are waiting to be sent.')).toBeVisible()
  await context.setOffline(false)
  await expect.poll(async () => (await notesOf(page, garden)).sort()).toEqual(['from one', 'from the other'])
  for (const one of [page, other]) await expect(one.getByText(/waiting to be sent/)).toHaveCount(0)
})

test('a photo chosen without a signal is shown at once, made small on the device, and goes before its place', async ({
  page,
  context,
}) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/places/${wall}/measures`)
  const png = await page.evaluate(async () => {
    const canvas = Object.assign(document.createElement('canvas'), { width: 3600, height: 1800 })
    canvas.getContext('2d')!.fillRect(300, 300, 2000, 900)
    const blob = await new Promise<Blob>((resolve) => canvas.toBlob((made) => resolve(made!), 'image/png'))
    return [...new Uint8Array(await blob.arrayBuffer())]
  })
  await context.setOffline(true)
  await page.getByLabel('Choose a photo').setInputFiles({
    name: 'wall.heic',
    mimeType: 'image/heic',
    buffer: Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(64)]),
  })
  await expect(page.getByRole('alert')).toContainText('This is a HEIC picture')
  await page
    .getByLabel('Choose a photo')
    .setInputFiles({ name: 'wall.png', mimeType: 'image/png', buffer: Buffer.from(png) })
  await page.getByRole('button', { name: 'Mark 1' }).waitFor()
  await page.getByRole('button', { name: 'Save the place' }).click()
  await expect(page.getByText('2 changes are waiting to be sent.')).toBeVisible({ timeout: 20_000 })
  await context.setOffline(false)
  const stored = async () =>
    (
      (await (await page.request.get(`${apiOf(garden)}/places`)).json()) as {
        body: { photo: { fileId: string; widthPx: number } | null }
      }[]
    )[0]!.body.photo
  await expect.poll(async () => (await stored())?.widthPx, { timeout: 30_000 }).toBe(1800)
  const photo = await page.request.get(`${apiOf(garden)}/files/${(await stored())!.fileId}`)
  expect(photo.headers()['content-type']).toBe('image/jpeg')
})

test('outbox and drafts of the release before come up', async ({ page }) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  // A page of ours that runs nothing: the device is laid out before the application looks at it.
  await page.goto('/favicon.svg')
  await page.evaluate(
    async ({ gardenId, placeId }) => {
      const entry = {
        id: '0195a000-0000-7000-8000-0000000000e1',
        placeId,
        plantId: null,
        kind: 'note.written',
        at: '2026-03-01',
        recordedAt: '2026-03-01T12:00:00.000Z',
        supersedes: null,
        body: { v: 1, text: 'left by the release before' },
      }
      // A design as it was before it had snapping, settings and ends.
      const design = {
        pattern: { kind: 'tiers', heightsM: [0.5], maxSupportSpacingM: 2 },
        moveToleranceM: 0.04,
        dragged: {},
        wireId: 'stainless-2',
        tensionN: 150,
        endWrapM: 0.15,
        handlingLengthM: 12,
        rolls: [{ lengthM: 25, price: 14 }],
        fixingId: 'eye-100',
      }
      const draft = {
        frameId: '0195a000-0000-7000-8000-0000000000f1',
        basedOn: 0,
        body: { placeId, name: 'Old draft', design },
        past: [],
        future: [],
      }
      localStorage.setItem('klados.frame-drafts', JSON.stringify({ [draft.frameId]: draft }))
      await new Promise<void>((resolve, reject) => {
        indexedDB.deleteDatabase('klados-outbox').onsuccess = () => {
          const open = indexedDB.open('klados-outbox', 1)
          open.onupgradeneeded = () => {
            open.result.createObjectStore('entries')
            open.result.createObjectStore('saves')
          }
          open.onerror = () => reject(open.error)
          open.onsuccess = () => {
            const transaction = open.result.transaction('entries', 'readwrite')
            transaction.objectStore('entries').put({ gardenId, entry }, entry.id)
            transaction.oncomplete = () => {
              open.result.close()
              resolve()
            }
          }
        }
      })
    },
    { gardenId: garden.replace('/g/', ''), placeId: wall },
  )
  await page.goto(`${garden}/places/${wall}/frame`)
  await expect(page.getByLabel('Name of the frame')).toHaveValue('Old draft')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^Revision 1,/)).toBeVisible()
  await expect.poll(() => notesOf(page, garden)).toEqual(['left by the release before'])
})

test('a garden goes out as a file, becomes a new garden, and comes back into its own with a word for what is newer', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const wall = await haveWall(page, garden)
  await page.goto(`${garden}/people`)
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save it as a file' }).click()
  const buffer = readFileSync((await (await download).path())!)
  const file = { name: 'garden.json', mimeType: 'application/json', buffer }
  const body = (JSON.parse(buffer.toString()) as { places: { body: object }[] }).places[0]!.body
  await page.request.put(`${apiOf(garden)}/places/${wall}`, {
    data: { saveId: crypto.randomUUID(), basedOn: 1, body: { ...body, name: 'Measured again' } },
  })
  await page.getByLabel('Import a file of this garden').setInputFiles(file)
  await page.getByLabel('the one in the file').check()
  await page.getByRole('button', { name: 'Import with these choices' }).click()
  await expect(page.getByText('Imported: 1 places')).toBeVisible()
  await page
    .getByLabel('Create a new garden from a file')
    .setInputFiles({ ...file, buffer: Buffer.from('{"format":"klados-garden","version":9}') })
  await expect(page.getByRole('alert')).toContainText('This file is of version 9')
  await page.getByLabel('Create a new garden from a file').setInputFiles(file)
  await page.waitForURL((url) => url.pathname.endsWith('/places') && !url.pathname.startsWith(garden))
  await expect(page.getByRole('heading', { name: 'Yard wall' })).toBeVisible()
})

test('a password is changed, a forgotten one set by a link, a garden and an account are ended', async ({
  page,
  browser,
}) => {
  const { garden, email } = await signUp(page)
  await page.goto(`${garden}/people`)
  await page.getByLabel('Current password').fill(PASSWORD)
  await page.getByLabel('New password').fill('password123')
  await page.getByRole('button', { name: 'Change the password' }).click()
  await expect(page.getByRole('alert')).toContainText('too easy to guess')
  await page.getByLabel('New password').fill('cane by cane in March')
  await page.getByRole('button', { name: 'Change the password' }).click()
  await expect(page.getByText('Changed. Every other device has been signed out.')).toBeVisible()

  const guest = await (await browser.newContext()).newPage()
  const member = await signUp(guest)
  await page.getByLabel('Their e-mail address').fill(member.email)
  await page.getByRole('button', { name: 'Invite', exact: true }).click()
  await expect(page.getByText('Invited as grower, not accepted yet')).toBeVisible()
  await guest.goto(`${member.garden}/people`)
  await guest.getByRole('button', { name: 'Join Back yard' }).click()
  await guest.waitForURL(`${garden}/places`)
  await page.reload()
  await page.getByRole('button', { name: /^New password link for/ }).click()
  const link = await page.getByLabel(/^Give this link to/).inputValue()
  await guest.goto(link)
  await guest.getByLabel('New password').fill('wire by wire in April')
  await guest.getByRole('button', { name: 'Set the password' }).click()
  await guest.getByRole('link', { name: 'Sign in' }).click()
  await guest.getByLabel('E-mail address').fill(member.email)
  await guest.getByLabel('Password').fill('wire by wire in April')
  await guest.getByRole('button', { name: 'Sign in', exact: true }).click()
  await guest.waitForURL(/\/places$/)
  await expect(guest.getByText('an owner of Back yard, made a link')).toBeVisible()
  await guest.getByRole('button', { name: 'Dismiss' }).first().click()
  await expect(guest.getByText('an owner of Back yard, made a link')).toHaveCount(0)

  await guest.goto(`${garden}/people`)
  await guest.getByText('Leave Back yard').click()
  await guest.getByRole('button', { name: 'Leave the garden' }).click()
  await guest.waitForURL((url) => url.pathname.startsWith(member.garden))
  await page.reload()
  await page.getByText('Delete Back yard').click()
  await page.getByLabel('Type its name to confirm').fill('Back yard')
  await page.getByRole('button', { name: 'Delete the garden for good' }).last().click()
  await page.getByRole('heading', { name: 'You do not belong to a garden yet' }).waitFor()
  const again = await page.request.post('/api/session', {
    data: { email, password: 'cane by cane in March' },
  })
  expect(again.status()).toBe(204)
})

test.describe('with another clock', () => {
  test.use({ isApart: true })

  test('a clock that is wrong is told', async ({ page }) => {
    await page.clock.install({ time: new Date(Date.now() + 20 * 60_000) })
    const { garden } = await signUp(page)
    await page.goto(`${garden}/places`)
    await expect(page.getByText(/The clock of this device is (19|20) minutes ahead/)).toBeVisible()
  })
})

test('a place with what stands on it goes only when asked twice, is missed on the round, and comes back', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  const id = await haveTiers(page, garden, { name: 'Old wall' })
  await havePlant(page, garden, id, { kindId: 'pear', xM: 2 })
  await page.goto(`${garden}/places/${id}/measures`)
  await page.getByRole('button', { name: 'Remove this place' }).click()
  await expect(page.getByText(/On this place: 1 frame, 1 plant with its years/)).toBeVisible()
  await page.getByRole('button', { name: 'Keep this place' }).click()
  await page.getByRole('button', { name: 'Remove this place' }).click()
  await page.getByRole('button', { name: 'Remove it with all of that' }).click()
  await expect(page.getByText('Removed. Its frames and journal are kept.')).toBeVisible()
  await page.goto(`${garden}/round`)
  await expect(page.getByText(/Not on this round.*Old wall \(1 plant\)/)).toBeVisible()
  await page.getByRole('link', { name: 'Bring the place back' }).click()
  await page.getByText('Removed places (1)').click()
  await page.getByRole('button', { name: 'Bring Old wall back' }).click()
  await expect(page.getByRole('heading', { name: 'Old wall' })).toBeVisible()
})

test('what lies on a pipe stands in red before all else, and is asked about before it is to be built', async ({
  page,
}) => {
  const { garden } = await signUp(page)
  // Nowhere within reach of the wire's end is off the pipe.
  const pipe = { id: randomUUID(), kind: 'band', axis: 'vertical', fromM: 0, toM: 0.4, what: 'Gas pipe' }
  const id = await haveWall(page, garden, { name: 'Wall', avoid: [pipe] })
  await page.goto(`${garden}/places/${id}/frame`)
  await page.getByRole('button', { name: 'Begin: Level tiers' }).click()
  await page.getByRole('radio', { name: 'to be built' }).click()
  await expect(page.getByRole('radio', { name: 'idea' })).toBeChecked()
  await page.getByRole('button', { name: 'Mark it as to be built all the same' }).click()
  await expect(page.getByRole('radio', { name: 'to be built' })).toBeChecked()
  await page.getByRole('link', { name: 'Sheet to print' }).click()
  const first = page.locator('article section').first()
  await expect(first).toContainText('Do not drill or dig here before these are moved')
  await expect(first).toContainText('Gas pipe')
})
