import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, test } from './fixtures.ts'
import type { Page } from '@playwright/test'
import { writeDevice } from './device.ts'
import type { Device } from './device.ts'
import { signUp } from './people.ts'
import { isTaken } from './third.ts'

const frozen = fileURLToPath(new URL('./frozen', import.meta.url))
interface Ids {
  readonly accountId: string
  readonly gardenId: string
  readonly placeId: string
  readonly plantId: string
}

interface FrameAsSaved {
  readonly body: {
    readonly name: string
    readonly placeId: string
    readonly design: { readonly pattern: { readonly kind: string } & Readonly<Record<string, unknown>> }
  }
}

/** The garden of a release of before in the garden of somebody here, and its device in their hand. */
async function bringUp(page: Page, release: string) {
  const read = (name: string) => readFileSync(join(frozen, release, name), 'utf8')
  const ids = JSON.parse(read('ids.json')) as Ids
  const { garden } = await signUp(page)
  const gardenId = garden.replace('/g/', '')
  const session = await page.request.get('/api/session')
  const { account } = (await session.json()) as { account: { id: string } }
  const file = JSON.parse(read('garden.json')) as { garden: { id: string | null } }
  file.garden.id = null
  const taken = await page.request.post(`/api/gardens/${gardenId}/import`, {
    multipart: {
      file: { name: 'garden.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(file)) },
    },
  })
  expect(await taken.text()).toContain('"done"')
  const device = JSON.parse(
    read('device.json').replaceAll(ids.accountId, account.id).replaceAll(ids.gardenId, gardenId),
  ) as Device
  // A page of ours that runs nothing: the device is laid out before the application looks at it.
  await page.goto('/favicon.svg')
  await page.evaluate(async () => {
    localStorage.clear()
    for (const { name } of await indexedDB.databases()) {
      const gone = indexedDB.deleteDatabase(name!)
      await new Promise((resolve) => (gone.onsuccess = resolve))
    }
  })
  await writeDevice(page, device)
  return { garden, api: `/api/gardens/${gardenId}`, ...ids }
}

for (const release of readdirSync(frozen).filter((_, at) => isTaken(at))) {
  test(`a garden, an outbox and drafts of ${release} come up, and all that waited is there once`, async ({
    page,
  }) => {
    const { garden, api, placeId } = await bringUp(page, release)
    await page.goto(`${garden}/places/${placeId}/frame`)
    await expect(page.getByLabel('Name of the frame')).toHaveValue('Drawn and not saved')
    const journal = async () =>
      (
        (await (await page.request.get(`${api}/journal`)).json()) as {
          entries: { kind: string; body: { text?: string; fileId?: string } }[]
        }
      ).entries
    await expect
      .poll(async () => (await journal()).length, { timeout: 20_000 })
      .toBe(release >= 'r24' ? 7 : 5)
    const entries = await journal()
    expect(entries.filter(({ body }) => body.text === 'Written without a signal')).toHaveLength(1)
    const photos = entries.flatMap(({ kind, body }) => (kind === 'photo.taken' ? [body.fileId!] : []))
    expect(photos).toHaveLength(2)
    for (const fileId of photos)
      expect((await page.request.get(`${api}/files/${fileId}`)).headers()['content-type']).toBe('image/jpeg')
    const frames = (await (await page.request.get(`${api}/frames`)).json()) as FrameAsSaved[]
    expect(frames.flatMap(({ body }) => (body.placeId === placeId ? [body.name] : []))).toEqual([
      'Saved without a signal',
    ])
    // What stands in the open, from the release that froze it on: as it was, and told what its ends and cover are.
    for (const { body } of frames) {
      const { kind, ...pattern } = body.design.pattern
      // Releases up to r22 did not tell of ends, slabs and covers: brought up they have what nobody chose.
      expect(body.design).toMatchObject({ strainers: 1 })
      if (release <= 'r22') {
        expect(body.design).toMatchObject({ wireEnding: null })
        if (kind === 'row') expect(pattern).toMatchObject({ endSlabM: 0 })
        if (kind === 'net') expect(pattern).toMatchObject({ cover: 'net', offInWinter: false })
      }
      if (body.placeId === placeId) continue
      await page.goto(`${garden}/places/${body.placeId}/frame`)
      await expect(page.getByText(/checks hold\.|of \d+ checks\./).first()).toBeVisible()
    }
    await expect(page.getByText(/waiting to be sent/)).toHaveCount(0)
    await page.goto(`${garden}/places/${placeId}/wood`)
    await expect(page.getByText('Buds still tight.')).toBeVisible()
    await expect(page.getByText('Written without a signal')).toBeVisible()
  })

  test(`the copy of ${release} on a device opens without the server`, async ({ page, context }) => {
    const { garden, placeId } = await bringUp(page, release)
    // Pages and what they are made of come; nothing is to be had of the server.
    await context.route('**/api/**', (route) => route.abort())
    await page.goto(`${garden}/places/${placeId}/wood`)
    await expect(page.getByText('The server does not answer.').first()).toBeVisible()
    await expect(page.getByText('Buds still tight.')).toBeVisible()
    await expect(page.getByText('Written without a signal')).toBeVisible()
    await expect(
      page
        .getByText('3 changes are waiting to be sent.')
        .or(page.getByText('4 changes are waiting to be sent.')),
    ).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Yard wall' })).toBeVisible()
  })
}
