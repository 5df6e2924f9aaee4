import { once } from 'node:events'
import type { Socket } from 'node:net'
import { setTimeout as pause } from 'node:timers/promises'
import { v7 as uuidv7 } from 'uuid'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { buildApp } from '../src/app.ts'
import type { App } from '../src/area.ts'
import { createPress } from '../src/files/press.ts'
import { MAX_PAGE_BYTES } from '../src/journal/queries.ts'
import { noLimits } from '../src/limits.ts'
import { noteEntry, savePlace, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'
import { ask, listen, stepping, until } from './lines.ts'
import type { Asked } from './lines.ts'
import { runs } from '../../../packages/core/test/runs.ts'

let harness: Harness
let owner: Person
const LONG = 'x'.repeat(1990)
beforeAll(async () => {
  harness = await startHarness()
  owner = await signUp(harness.app)
  await savePlace(harness.app, owner)
})
afterAll(() => harness.close())

const garden = (rest: string, person = owner) => `/api/gardens/${person.gardenId}${rest}`
const isIdle = (app: App) => Object.values(app.held.counts()).every((count) => count === 0)
const write = async (person: Person, place: string, count: number, text = LONG) => {
  for (let n = 0; n < count; n += 250) {
    const entries = Array.from({ length: Math.min(250, count - n) }, () =>
      noteEntry(place, { body: { v: 1, text } }),
    )
    await harness.app.inject({
      method: 'POST',
      url: garden('/entries', person),
      headers: { cookie: person.cookie },
      payload: { entries },
    })
  }
}

describe('a caller who is gone', () => {
  const fileId = uuidv7()
  let photo: Buffer
  beforeAll(async () => {
    photo = await sharp({ create: { width: 200, height: 100, channels: 3, background: '#b59c7a' } })
      .jpeg()
      .toBuffer()
    await harness.app.inject({
      method: 'PUT',
      url: garden(`/files/${fileId}`),
      headers: { cookie: owner.cookie, 'content-type': 'image/jpeg' },
      payload: photo,
    })
  })
  const multipart = () => {
    const body = Buffer.from(
      `--b\r\ncontent-disposition: form-data; name="gardenId"\r\n\r\n${uuidv7()}\r\n--b\r\ncontent-disposition: form-data; name="file"; filename="g.json"\r\ncontent-type: application/json\r\n\r\n{}\r\n--b--\r\n`,
    )
    return { body, headers: { 'content-type': 'multipart/form-data; boundary=b' } }
  }

  it.each<readonly [string, () => Omit<Asked, 'cookie'> & { readonly body?: Buffer }]>([
    ['a photo that is sent', () => ({ method: 'PUT', path: garden(`/files/${uuidv7()}`), body: photo })],
    [
      'a photo that is sent in pieces',
      () => ({
        method: 'PUT',
        path: garden(`/files/${uuidv7()}/pieces?from=0&of=${photo.length}`),
        body: photo,
      }),
    ],
    ['a photo that is read', () => ({ path: garden(`/files/${fileId}`) })],
    ['what stands', () => ({ path: garden('/standing') })],
    ['the journal', () => ({ path: garden('/journal') })],
    ['the garden as a file', () => ({ path: garden('/export') })],
    ['a garden from a file', () => ({ method: 'POST', path: '/api/gardens-from-file', ...multipart() })],
    ['the stream of news', () => ({ path: garden('/events'), headers: { accept: 'text/event-stream' } })],
  ])('gives everything back at whatever step of %s', async (_, request) => {
    let step = 0
    let leaveAt = 0
    let leave: () => Promise<void> = async () => undefined
    const onStep = async () => {
      if (++step === leaveAt) await leave()
    }
    const app = await buildApp({
      ...harness.options,
      pool: stepping(harness.pool, onStep),
      accounts: stepping(harness.accounts, onStep),
    })
    const port = await listen(app)
    try {
      for (leaveAt = 1; ; leaveAt++) {
        step = 0
        const { body, ...asked } = request()
        const socket = await ask(port, {
          ...asked,
          cookie: owner.cookie,
          ...(body ? { length: body.length } : {}),
        })
        leave = async () => {
          socket.destroy()
          // The server has seen it before its next step.
          await pause(20)
        }
        if (body) socket.write(body)
        socket.resume()
        await Promise.race([once(socket, 'data'), once(socket, 'close')])
        socket.destroy()
        await until(
          () => isIdle(app),
          `${JSON.stringify(app.held.counts())} after leaving at step ${leaveAt}`,
        )
        if (step < leaveAt) break
      }
      expect(leaveAt).toBeGreaterThan(3)
    } finally {
      await app.close()
    }
  })
})

describe('answers that nobody reads', () => {
  it('hold no connection of the database, and end when nothing is taken of them', async () => {
    const slow = await signUp(harness.app)
    const place = await savePlace(harness.app, slow)
    await write(slow, place, 4000)
    const app = await buildApp({
      ...harness.options,
      limits: { ...noLimits, lines: { leastBytesPerS: 1000, overMs: 4000 } },
    })
    const isUnread = () => (app.held.counts().exports ?? 0) > 0
    const port = await listen(app)
    const lines: Socket[] = []
    try {
      const paths = ['/standing', '/export', '/journal'].map((one) => garden(one, slow))
      for (let n = 0; n < 12; n++) lines.push(await ask(port, { path: paths[n % 3]!, cookie: slow.cookie }))
      const { pool } = harness
      await until(
        () => isUnread() && pool.waitingCount === 0 && pool.idleCount === pool.totalCount,
        'all idle',
      )
      const reply = await app.inject({ url: garden('/places'), headers: { cookie: owner.cookie } })
      expect(reply.statusCode).toBe(200)
      await until(() => isIdle(app), 'unread answers end')
    } finally {
      for (const line of lines) line.destroy()
      await app.close()
    }
  })

  it('are bounded: a page of long entries ends where it is full, and the next goes on', async () => {
    const wordy = await signUp(harness.app)
    const place = await savePlace(harness.app, wordy)
    await write(wordy, place, 2500)
    const seen: number[] = []
    const sizes: number[] = []
    for (let after = 0; ; ) {
      const reply = await harness.app.inject({
        url: garden(`/journal?after=${after}`, wordy),
        headers: { cookie: wordy.cookie },
      })
      const page = reply.json<{ entries: { seq: number }[]; last: number; head: number }>()
      if (page.entries.length === 0) break
      expect(page.last).toBe(page.entries.at(-1)!.seq)
      expect(page.head).toBe(2500)
      sizes.push(reply.rawPayload.length)
      seen.push(...page.entries.map(({ seq }) => seq))
      after = page.last
    }
    expect(seen).toEqual(Array.from({ length: 2500 }, (_, n) => n + 1))
    expect(sizes.length).toBeGreaterThan(2)
    expect(Math.max(...sizes)).toBeLessThan(MAX_PAGE_BYTES * 1.5)
  })
})

describe('senders that trickle', () => {
  it('are ended, and shut nothing for others meanwhile', async () => {
    const app = await buildApp({
      ...harness.options,
      limits: { ...noLimits, lines: { leastBytesPerS: 1000, overMs: 1200 } },
    })
    const port = await listen(app)
    try {
      const slow = [await signUp(harness.app), await signUp(harness.app), await signUp(harness.app)]
      const lines: Socket[] = []
      for (const { gardenId, cookie } of slow) {
        for (let n = 0; n < 3; n++)
          lines.push(
            await ask(port, {
              method: 'PUT',
              path: `/api/gardens/${gardenId}/files/${uuidv7()}`,
              cookie,
              headers: { 'content-type': 'image/jpeg' },
              length: 1_000_000,
            }),
          )
        lines.push(
          await ask(port, {
            method: 'POST',
            path: '/api/gardens-from-file',
            cookie,
            headers: { 'content-type': 'multipart/form-data; boundary=b' },
            length: 1_000_000,
          }),
        )
      }
      const trickle = setInterval(() => lines.forEach((line) => line.writable && line.write('-')), 100)
      const photo = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#b59c7a' } })
        .png()
        .toBuffer()
      const reply = await app.inject({
        method: 'PUT',
        url: garden(`/files/${uuidv7()}`),
        headers: { cookie: owner.cookie, 'content-type': 'image/png' },
        payload: photo,
      })
      expect(reply.statusCode).toBe(200)
      const file = (await app.inject({ url: garden('/export'), headers: { cookie: owner.cookie } })).body
      const form = `--b\r\ncontent-disposition: form-data; name="gardenId"\r\n\r\n${uuidv7()}\r\n--b\r\ncontent-disposition: form-data; name="file"; filename="g.json"\r\ncontent-type: application/json\r\n\r\n${file}\r\n--b--\r\n`
      const taken = await app.inject({
        method: 'POST',
        url: '/api/gardens-from-file',
        headers: { cookie: owner.cookie, 'content-type': 'multipart/form-data; boundary=b' },
        payload: form,
      })
      expect(taken.body).toContain('"done"')
      await until(() => lines.every((line) => line.destroyed), 'trickling lines end')
      clearInterval(trickle)
      await until(() => isIdle(app), 'what trickled is given back')
    } finally {
      await app.close()
    }
  })
})

describe('a form that is none', () => {
  it.each([
    '--b\r\ncontent-disposition: form-data; name="file"; filename="x"\r\n\r\nhalf',
    'nothing of a form',
    '',
  ])('is malformed, and not a failure of ours: %j', async (payload) => {
    const reply = await harness.app.inject({
      method: 'POST',
      url: '/api/gardens-from-file',
      headers: { cookie: owner.cookie, 'content-type': 'multipart/form-data; boundary=b' },
      payload,
    })
    expect([reply.statusCode, reply.json<{ error: { code: string } }>().error.code]).toEqual([
      400,
      'request/malformed',
    ])
  })

  it('nor is a new garden under an id that is taken, whoever’s it is', async () => {
    const other = await signUp(harness.app)
    for (const gardenId of [owner.gardenId, other.gardenId]) {
      const form = `--b\r\ncontent-disposition: form-data; name="gardenId"\r\n\r\n${gardenId}\r\n--b\r\ncontent-disposition: form-data; name="file"; filename="g.json"\r\n\r\n{}\r\n--b--\r\n`
      const reply = await harness.app.inject({
        method: 'POST',
        url: '/api/gardens-from-file',
        headers: { cookie: owner.cookie, 'content-type': 'multipart/form-data; boundary=b' },
        payload: form,
      })
      expect([reply.statusCode, reply.json<{ error: { code: string } }>().error.code]).toEqual([
        409,
        'garden/taken',
      ])
    }
  })
})

describe('the process that looks at photos', () => {
  it('is killed where it swells, and the photo is asked for again later, not refused', async () => {
    const press = createPress({ mostBytes: 40 * 1024 ** 2 })
    const large = await sharp({ create: { width: 6000, height: 5000, channels: 3, background: '#7a9cb5' } })
      .jpeg({ progressive: true })
      .toBuffer()
    await expect(press.makeSmall(large)).rejects.toMatchObject({ code: 'server/busy' })
    press.close()
  })

  it('takes the largest photos that are taken within its bound', async () => {
    const press = createPress()
    const grain = await sharp({
      create: {
        width: 1000,
        height: 775,
        channels: 3,
        noise: { type: 'gaussian', mean: 128, sigma: 20 },
        background: 'black',
      },
    })
      .png({ compressionLevel: 1 })
      .toBuffer()
    const picture = { width: 8000, height: 6200, channels: 3 as const, background: 'black' }
    // Progressive takes the most room; the long check tries the other too.
    for (const progressive of runs(1) > 1 ? [true, false] : [true]) {
      const large = await sharp({ create: picture })
        .composite([{ input: grain, tile: true }])
        .jpeg({ progressive, quality: 60 })
        .toBuffer()
      expect(await press.makeSmall(large)).toMatchObject({ widthPx: 1800 })
    }
    press.close()
  })
})

describe('a photo in pieces', () => {
  const size = 40_000
  let photo: Buffer
  beforeAll(async () => {
    photo = await sharp({
      create: {
        width: 500,
        height: 400,
        channels: 3,
        noise: { type: 'gaussian', mean: 128, sigma: 60 },
        background: 'black',
      },
    })
      .jpeg({ quality: 90 })
      .toBuffer()
  })
  const url = (fileId: string, rest = '') => garden(`/files/${fileId}/pieces${rest}`)
  const send = (
    fileId: string,
    from: number,
    content: Buffer = photo.subarray(from, from + size),
    of = photo.length,
  ) =>
    harness.app.inject({
      method: 'PUT',
      url: url(fileId, `?from=${from}&of=${of}`),
      headers: { cookie: owner.cookie, 'content-type': 'image/jpeg' },
      payload: content,
    })
  const soFar = async (fileId: string) =>
    (await harness.app.inject({ url: url(fileId), headers: { cookie: owner.cookie } })).json<{
      upTo: number
      file: object | null
    }>()

  it('goes on where it stopped, is whole with its last, and lies nowhere half after that', async () => {
    expect(photo.length).toBeGreaterThan(2 * size)
    const fileId = uuidv7()
    expect(await soFar(fileId)).toEqual({ upTo: 0, file: null })
    expect((await send(fileId, 0)).json()).toEqual({ upTo: size, file: null })
    // Its answer lost, it is sent again; one from beyond is told where to go on.
    expect((await send(fileId, 0)).json()).toEqual({ upTo: size, file: null })
    expect((await send(fileId, 2 * size)).json()).toEqual({ upTo: size, file: null })
    expect(await soFar(fileId)).toEqual({ upTo: size, file: null })
    let upTo = size
    while (upTo < photo.length) upTo = (await send(fileId, upTo)).json<{ upTo: number }>().upTo
    expect(await soFar(fileId)).toMatchObject({ upTo: 0, file: { id: fileId, widthPx: 500, heightPx: 400 } })
    expect((await send(fileId, 0)).json()).toMatchObject({ file: { id: fileId } })
  })

  it('that is no picture is refused and forgotten; one beyond its end, or too large, is not taken', async () => {
    const fileId = uuidv7()
    const nothing = Buffer.alloc(1000)
    expect((await send(fileId, 0, nothing, 900)).statusCode).toBe(400)
    expect((await send(fileId, 0, Buffer.alloc(600_000), 900_000)).statusCode).toBe(413)
    expect((await send(fileId, 0, nothing, 1000)).json()).toMatchObject({
      error: { code: 'file/not-an-image' },
    })
    expect(await soFar(fileId)).toEqual({ upTo: 0, file: null })
  })

  it('that has become another under its id begins anew; one that nobody goes on with expires', async () => {
    const fileId = uuidv7()
    await send(fileId, 0)
    expect((await send(fileId, 0, Buffer.alloc(10), 20)).json()).toEqual({ upTo: 10, file: null })
    await harness.pool.query(`select expire_pieces(0)`)
    expect(await soFar(fileId)).toEqual({ upTo: 0, file: null })
  })
})
