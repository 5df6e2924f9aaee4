import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import { expect, test } from './fixtures.ts'
import type { BrowserContext, Page } from '@playwright/test'
import { freePort } from '../scripts/lib/free-port.mjs'
import config from './playwright.config.ts'
import { apiOf, haveWall, openDemo, signUp } from './people.ts'
import { isLong, isTaken } from './third.ts'

/** A server of this test's own on the tests' database, to be stopped and started; and a browser that keeps its profile. */
class Away {
  private child: ChildProcess | null = null
  private constructor(
    private readonly port: number,
    private readonly profile: string,
  ) {}

  static async begin(): Promise<Away> {
    return new Away(await freePort(), await mkdtemp(join(tmpdir(), 'klados-away-')))
  }

  get baseURL(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    const main = fileURLToPath(new URL('../apps/server/dist/main.mjs', import.meta.url))
    const env = {
      ...process.env,
      HOST: '127.0.0.1',
      PORT: String(this.port),
      KLADOS_DEMO: '1',
      KLADOS_LIMITS: 'off',
      NODE_ENV: 'production',
    }
    this.child = spawn(process.execPath, [main], { env, stdio: ['ignore', 'ignore', 'inherit', 'ipc'] })
    await once(this.child, 'message')
  }

  async stop(): Promise<void> {
    const child = this.child
    this.child = null
    if (!child) return
    child.kill('SIGKILL')
    await once(child, 'exit')
  }

  open(): Promise<BrowserContext> {
    return chromium.launchPersistentContext(this.profile, {
      ...config.use!.launchOptions,
      baseURL: this.baseURL,
      viewport: { width: 1280, height: 800 },
      locale: 'en-GB',
      serviceWorkers: 'allow',
    })
  }

  async end(): Promise<void> {
    await this.stop()
    await rm(this.profile, { recursive: true, force: true })
  }
}

/** The pages lie on this device, and the garden as far as it was read. */
async function isKept(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready
  })
  await expect
    .poll(() => copiedOf(page))
    .toEqual(expect.arrayContaining(['session', 'places', 'frames', 'plants', 'stores']))
}

/** What the copy holds, by the last part of what was asked. */
const copiedOf = (page: Page): Promise<string[]> =>
  page.evaluate(
    () =>
      new Promise<string[]>((resolve, reject) => {
        const opening = indexedDB.open('klados-copy')
        opening.onerror = () => reject(opening.error as Error)
        opening.onsuccess = () => {
          const keys = opening.result.transaction('answers').objectStore('answers').getAllKeys()
          keys.onsuccess = () => {
            opening.result.close()
            resolve((keys.result as [string, string][]).map(([, path]) => path.split('/').at(-1)!))
          }
        }
      }),
  )

/** A picture to be chosen as a photo. */
async function pictureOf(page: Page) {
  const png = await page.evaluate(async () => {
    const canvas = Object.assign(document.createElement('canvas'), { width: 900, height: 600 })
    canvas.getContext('2d')!.fillRect(100, 100, 500, 300)
    const blob = await new Promise<Blob>((resolve) => canvas.toBlob((made) => resolve(made!), 'image/png'))
    return [...new Uint8Array(await blob.arrayBuffer())]
  })
  return { name: 'wall.png', mimeType: 'image/png', buffer: Buffer.from(png) }
}

/** How many photos lie on this device. */
const keptPhotos = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const opening = indexedDB.open('klados-copy')
        opening.onerror = () => reject(opening.error as Error)
        opening.onsuccess = () => {
          const count = opening.result.transaction('photos').objectStore('photos').count()
          count.onsuccess = () => {
            opening.result.close()
            resolve(count.result)
          }
        }
      }),
  )

test('with the server stopped the round and every wood open after one visit; what is written then is there once', async () => {
  test.setTimeout(180_000)
  const away = await Away.begin()
  try {
    await away.start()
    let context = await away.open()
    let page = context.pages()[0] ?? (await context.newPage())
    const garden = await openDemo(page)
    const api = apiOf(garden)
    const places = (await (await page.request.get(`${api}/places`)).json()) as {
      id: string
      body: { name: string }
    }[]
    await page.goto(`${garden}/round`)
    await expect(page.getByRole('button', { name: 'Sound' }).first()).toBeVisible()
    await isKept(page)
    await context.close()
    await away.stop()

    context = await away.open()
    page = context.pages()[0] ?? (await context.newPage())
    await page.goto('/')
    await expect(page.getByRole('heading', { name: 'Lane fence' })).toBeVisible()
    await expect(page.getByText('The server does not answer.').first()).toBeVisible()
    await page.goto(`${garden}/round`)
    await expect(page.getByRole('button', { name: 'Sound' }).first()).toBeVisible()
    // Some of them each time; the long check opens them all.
    for (const { id, body } of places.filter((_, at) => isTaken(at))) {
      await page.goto(`${garden}/places/${id}/wood`)
      await expect(page.getByRole('heading', { name: body.name, exact: true })).toBeVisible()
    }

    // A morning's notes, a wall and a plant on it; then the browser is gone.
    const lane = places.find(({ body }) => body.name === 'Lane fence')!
    await page.goto(`${garden}/places/${lane.id}/wood`)
    const said = Array.from({ length: 12 }, (_, i) => `Without a signal, ${i + 1} of 12`)
    for (const text of said) {
      await page.getByLabel('A note').fill(text)
      await page.getByRole('button', { name: 'Save the note' }).click()
    }
    await page.getByLabel('A note').fill('Bark split below the second wire')
    await page.getByLabel('Add a photo', { exact: true }).setInputFiles(await pictureOf(page))
    const photo = page.getByRole('button', { name: 'Show larger: Bark split below the second wire' })
    await expect(photo).toBeVisible()
    await page.getByLabel('Distance from the left').fill('3 m')
    await page.getByLabel('Name', { exact: true }).fill('Away akebia')
    await page.getByRole('button', { name: 'Add the plant here' }).click()
    await expect(page.getByText(/\d+ changes are waiting to be sent/)).toBeVisible()
    await page.waitForTimeout(500)
    await context.close()

    const isShown = (at: Page) =>
      at
        .getByRole('img', { name: 'Bark split below the second wire' })
        .evaluate((image) => (image as HTMLImageElement).naturalWidth)
    await away.start()
    context = await away.open()
    page = context.pages()[0] ?? (await context.newPage())
    await page.goto(`${garden}/places/${lane.id}/wood`)
    await expect.poll(() => isShown(page)).toBe(900)
    const notes = async () => {
      const texts: string[] = []
      for (let after = 0; ; ) {
        const reply = await page.request.get(`${api}/journal?after=${after}`)
        const { entries, last } = (await reply.json()) as {
          entries: { kind: string; body: { text?: string } }[]
          last: number
        }
        texts.push(...entries.flatMap(({ kind, body }) => (kind === 'note.written' ? [body.text!] : [])))
        if (last === after) return texts.filter((text) => text.startsWith('Without a signal'))
        after = last
      }
    }
    await expect.poll(notes, { timeout: 30_000 }).toHaveLength(said.length)
    expect(await notes()).toEqual(said)
    await expect
      .poll(async () => {
        const plants = (await (await page.request.get(`${api}/plants`)).json()) as {
          body: { name: string }
        }[]
        return plants.filter(({ body }) => body.name === 'Away akebia').length
      })
      .toBe(1)
    await expect(page.getByText(/waiting to be sent/)).toHaveCount(0)
    const photos = async () => {
      const read = await page.request.get(`${api}/journal?after=0&kind=photo.taken`)
      return ((await read.json()) as { entries: { body: { fileId: string } }[] }).entries
    }
    // What is on its way is not waiting any more, and not there yet.
    await expect.poll(photos).toHaveLength(1)
    const file = await page.request.get(`${api}/files/${(await photos())[0]!.body.fileId}`)
    expect([file.status(), file.headers()['content-type']]).toEqual([200, 'image/jpeg'])
    // Sent, it is still there without the server.
    await away.stop()
    await page.reload()
    await expect.poll(() => isShown(page)).toBe(900)
    await context.close()
  } finally {
    await away.end()
  }
})

test('a day’s work without the server, the browser killed in between and the server gone again in the middle of sending, is there once', async () => {
  test.setTimeout(150_000)
  const away = await Away.begin()
  // A long day in the long check, where all kinds of frame are gone through too.
  const [ENTRIES, PLANTS] = isLong ? [200, 20] : [60, 6]
  const [HALF, MOST] = [ENTRIES / 2, ENTRIES - 10]
  const text = (n: number) => `Without a signal, ${n}`
  try {
    await away.start()
    let context = await away.open()
    let page = context.pages()[0] ?? (await context.newPage())
    const { garden } = await signUp(page)
    page.setDefaultTimeout(20_000)
    const api = apiOf(garden)
    const wall = await haveWall(page, garden)
    await page.goto(`${garden}/places/${wall}/measures`)
    await page.getByLabel('Choose a photo').waitFor({ state: 'attached' })
    await page.goto(`${garden}/places/${wall}/wood`)
    await page.getByLabel('A note').waitFor()
    await isKept(page)
    await away.stop()

    const write = async (from: number, to: number) => {
      for (let n = from; n <= to; n++) {
        await page.getByLabel('A note').fill(text(n))
        await page.getByRole('button', { name: 'Save the note' }).click()
      }
    }
    await write(1, HALF)
    for (let n = 1; n < PLANTS; n++) {
      await page.getByRole('radio', { name: 'Add a plant' }).check()
      await page.getByLabel('Distance from the left').fill(`${n * 0.4} m`)
      await page.getByLabel('Name', { exact: true }).fill(`Away ${n}`)
      await page.getByRole('button', { name: 'Add the plant here' }).click()
      // The hand is free again once it stands.
      await expect(page.getByRole('radio', { name: 'Select' })).toBeChecked()
    }
    await page.goto(`${garden}/places/${wall}/measures`)
    await page.getByLabel('Choose a photo').setInputFiles(await pictureOf(page))
    await page.getByRole('button', { name: 'Mark 1' }).waitFor()
    await page.getByRole('button', { name: 'Save the place' }).click()
    await expect(page.getByText(/changes are waiting to be sent/)).toBeVisible()
    await page.waitForTimeout(500)
    await context.close()

    context = await away.open()
    page = context.pages()[0] ?? (await context.newPage())
    page.setDefaultTimeout(20_000)
    await page.goto(`${garden}/places/${wall}/wood`)
    await page.getByLabel('A note').waitFor()
    await write(HALF + 1, MOST - 10)
    // It comes back while one writes, is gone again in the middle of what it is sent, and comes back for good.
    const back = away.start()
    await write(MOST - 9, MOST)
    await back
    await expect.poll(() => page.request.get(`${api}/journal?after=0`).then((reply) => reply.ok())).toBe(true)
    await away.stop()
    await write(MOST + 1, ENTRIES)
    await away.start()

    const notes = async () => {
      const reply = await page.request.get(`${api}/journal?after=0`)
      const { entries } = (await reply.json()) as { entries: { kind: string; body: { text?: string } }[] }
      return entries.flatMap(({ kind, body }) => (kind === 'note.written' ? [body.text!] : []))
    }
    await expect.poll(async () => (await notes()).length, { timeout: 90_000 }).toBe(ENTRIES)
    expect(await notes()).toEqual(Array.from({ length: ENTRIES }, (_, i) => text(i + 1)))
    const namesOf = async (area: string) =>
      (
        (await (await page.request.get(`${api}/${area}`)).json()) as {
          body: { name: string; photo?: object }
        }[]
      ).map(({ body }) => body)
    await expect.poll(async () => (await namesOf('plants')).length, { timeout: 60_000 }).toBe(PLANTS - 1)
    expect((await namesOf('plants')).map(({ name }) => name).sort()).toEqual(
      Array.from({ length: PLANTS - 1 }, (_, i) => `Away ${i + 1}`).sort(),
    )
    await expect
      .poll(async () => (await namesOf('places'))[0]!.photo ?? null, { timeout: 60_000 })
      .not.toBeNull()
    await expect(page.getByText(/waiting to be sent/)).toHaveCount(0)

    // Sent and read back, the photo lies on the device like all else.
    await page.goto(`${garden}/places`)
    await expect.poll(() => keptPhotos(page), { timeout: 20_000 }).toBe(1)
    await away.stop()
    await page.goto(`${garden}/places/${wall}/measures`)
    await expect(page.locator('svg image').first()).toHaveAttribute('href', /^blob:/)
    await context.close()
  } finally {
    await away.end()
  }
})

test('who signs out leaves nothing on the device: without the server the door stays shut', async () => {
  const away = await Away.begin()
  try {
    await away.start()
    const context = await away.open()
    const page = context.pages()[0] ?? (await context.newPage())
    const { garden } = await signUp(page)
    await page.goto(`${garden}/places`)
    await page.getByRole('heading').first().waitFor()
    await isKept(page)
    await page.getByText('Back yard').click()
    await page.getByRole('button', { name: 'Sign out' }).click()
    await page.waitForURL(/sign-in/)
    await expect.poll(() => copiedOf(page)).toEqual([])
    await away.stop()
    await page.goto(`${garden}/places`)
    await expect(page.getByText(/^The server does not answer/)).toBeVisible()
    await expect(page.getByText('Back yard')).toHaveCount(0)
    await context.close()
  } finally {
    await away.end()
  }
})
