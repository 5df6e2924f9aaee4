import { once } from 'node:events'
import { connect } from 'node:net'
import { setTimeout as pause } from 'node:timers/promises'
import { note, percentile, post, signUp, startKlados } from './klados.mjs'
import { watch } from './watch.mjs'

const MOST_MS = 500
const MOST_MB = 600
const UNREAD = 12
const TRICKLERS = 6

/** Callers who read nothing, leave at once, send next to nothing, or are told to wait: does anybody else notice? */
export async function soakLines({ journal, lineSeconds, isTimed, report }) {
  const klados = await startKlados('lines')
  try {
    const [reader, wordy] = [await signUp(klados.base), await signUp(klados.base)]
    await fill(klados.base, wordy, journal)
    const server = klados.serverPid()
    const parts = [
      [`${UNREAD} answers that nobody reads`, () => unread(klados, wordy, lineSeconds)],
      ['requests of each kind that are left at once', () => left(klados, wordy, 40)],
      [`${TRICKLERS} accounts that trickle photos and imports`, () => trickle(klados, lineSeconds)],
      ['a photo that is jammed, with notes beside it', () => jammed(klados, lineSeconds)],
      ...(isTimed
        ? [[`a window that is told to wait for ${lineSeconds} s`, () => busy(klados, lineSeconds)]]
        : []),
    ]
    for (const [name, work] of parts) {
      const watched = watch(klados.base, reader, server)
      const outcome = await work()
      const { times, mostMb, failures } = await watched.stop()
      const p95 = percentile(times, 0.95)
      report.say(
        name,
        `${outcome.said}; others' reads p95 ${p95.toFixed(0)} ms of ${times.length}, server ${mostMb.toFixed(0)} MB`,
        outcome.isMet && (!isTimed || p95 < MOST_MS) && mostMb < MOST_MB && failures === 0,
      )
    }
    report.say('the server that stood through all of it', 'is the same', klados.serverPid() === server)
  } finally {
    await klados.stop()
  }
}

async function fill(base, { gardenId, placeId, cookie }, count) {
  const text = 'x'.repeat(1990)
  for (let n = 0; n < count; n += 400) {
    const entries = await Promise.all(
      Array.from({ length: Math.min(400, count - n) }, () => note(placeId, text)),
    )
    const reply = await fetch(`${base}/api/gardens/${gardenId}/entries`, post({ entries }, cookie))
    if (!reply.ok) throw new Error(await reply.text())
  }
}

/** A request's head, and nothing read of what comes. */
async function ask(base, { cookie }, method, path, headers = {}) {
  const { hostname, port } = new URL(base)
  const socket = connect(Number(port), hostname)
  socket.on('error', () => undefined)
  await once(socket, 'connect')
  const lines = [`${method} ${path} HTTP/1.1`, `host: ${hostname}:${port}`, `cookie: ${cookie}`]
  for (const [name, value] of Object.entries(headers)) lines.push(`${name}: ${value}`)
  socket.write(`${lines.join('\r\n')}\r\n\r\n`)
  socket.pause()
  return socket
}

async function unread({ base }, person, seconds) {
  const kinds = ['standing', 'export', 'journal']
  const sockets = []
  for (let n = 0; n < UNREAD; n++)
    sockets.push(await ask(base, person, 'GET', `/api/gardens/${person.gardenId}/${kinds[n % kinds.length]}`))
  await pause(seconds * 1000)
  const isMet = await isServed(base, person)
  for (const socket of sockets) socket.destroy()
  return { said: `its owner is served ${isMet ? 'beside' : 'no more'}`, isMet }
}

async function left({ base }, person, times) {
  const of = `/api/gardens/${person.gardenId}`
  const photo = { 'content-type': 'image/jpeg', 'content-length': '200000' }
  const form = { 'content-type': 'multipart/form-data; boundary=b', 'content-length': '200000' }
  for (let n = 0; n < times; n++)
    for (const [method, path, headers] of [
      ['GET', `${of}/standing`],
      ['GET', `${of}/export`],
      ['GET', `${of}/journal`],
      ['GET', `${of}/events`, { accept: 'text/event-stream' }],
      ['PUT', `${of}/files/${crypto.randomUUID()}`, photo],
      ['PUT', `${of}/files/${crypto.randomUUID()}/pieces?from=0&of=200000`, photo],
      ['POST', '/api/gardens-from-file', form],
    ]) {
      const socket = await ask(base, person, method, path, headers)
      if (n % 3 > 0) await pause(n % 3)
      socket.destroy()
    }
  const isMet = (await isServed(base, person)) && (await isStored(base, person))
  return { said: `${times} of each; its owner's photo is ${isMet ? 'taken' : 'not taken'}`, isMet }
}

async function trickle({ base }, seconds) {
  const sockets = []
  for (let n = 0; n < TRICKLERS; n++) {
    const person = await signUp(base)
    const photo = { 'content-type': 'image/jpeg', 'content-length': '1000000' }
    for (let p = 0; p < 3; p++)
      sockets.push(
        await ask(base, person, 'PUT', `/api/gardens/${person.gardenId}/files/${crypto.randomUUID()}`, photo),
      )
    const form = { 'content-type': 'multipart/form-data; boundary=b', 'content-length': '1000000' }
    sockets.push(await ask(base, person, 'POST', '/api/gardens-from-file', form))
  }
  const drip = setInterval(() => sockets.forEach((socket) => socket.writable && socket.write('-')), 200)
  const other = await signUp(base)
  const isMet = (await isStored(base, other)) && (await isServed(base, other))
  await pause(seconds * 1000)
  clearInterval(drip)
  const ended = sockets.filter((socket) => socket.destroyed).length
  for (const socket of sockets) socket.destroy()
  return {
    said: `somebody else's photo is ${isMet ? 'taken' : 'not taken'}, ${ended} of ${sockets.length} ended`,
    isMet,
  }
}

async function jammed({ base }, seconds) {
  const person = await signUp(base)
  const photo = { 'content-type': 'image/jpeg', 'content-length': '1000000' }
  const socket = await ask(
    base,
    person,
    'PUT',
    `/api/gardens/${person.gardenId}/files/${crypto.randomUUID()}`,
    photo,
  )
  let taken = 0
  const until = Date.now() + seconds * 1000
  while (Date.now() < until) {
    const entries = [await note(person.placeId, 'beside')]
    const reply = await fetch(
      `${base}/api/gardens/${person.gardenId}/entries`,
      post({ entries }, person.cookie),
    )
    if (reply.ok) taken++
    await pause(200)
  }
  socket.destroy()
  return { said: `${taken} notes taken`, isMet: taken > seconds }
}

/** A browser's window whose every request is answered that the server is busy. */
async function busy({ base }, seconds) {
  const { chromium } = await import('@playwright/test')
  const { requireChromium } = await import('../lib/debian.mjs')
  const browser = await chromium.launch({ executablePath: await requireChromium(), args: ['--no-sandbox'] })
  try {
    const page = await browser.newPage({ baseURL: base, serviceWorkers: 'block' })
    const person = await signUp(base)
    const [name, value] = person.cookie.split('=')
    await page.context().addCookies([{ name, value, url: base }])
    await page.goto(`/g/${person.gardenId}/places/${person.placeId}/wood`)
    await page.getByLabel('A note').waitFor()
    await page.waitForLoadState('networkidle')
    let asked = 0
    await page.route('**/api/**', (route) => {
      asked++
      return route.fulfill({
        status: 503,
        headers: { 'klados-api': '3', 'retry-after': '5', 'content-type': 'application/json' },
        body: JSON.stringify({ error: { code: 'server/busy', message: 'busy' } }),
      })
    })
    const until = Date.now() + seconds * 1000
    for (let n = 0; Date.now() < until; n++) {
      await page.getByLabel('A note').fill(`busy ${n}`)
      await page.getByRole('button', { name: 'Save the note' }).click()
      await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')))
      await pause(1500)
    }
    return { said: `${asked} requests`, isMet: asked <= 10 }
  } finally {
    await browser.close()
  }
}

async function isServed(base, { gardenId, cookie }) {
  const reply = await fetch(`${base}/api/gardens/${gardenId}/places`, { headers: { cookie } })
  return reply.ok
}

/** One pixel, as PNG. */
const PIXEL =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
async function isStored(base, { gardenId, cookie }) {
  const reply = await fetch(`${base}/api/gardens/${gardenId}/files/${crypto.randomUUID()}`, {
    method: 'PUT',
    body: Buffer.from(PIXEL, 'base64'),
    headers: { cookie, 'content-type': 'image/png' },
  })
  return reply.ok
}
