import { once } from 'node:events'
import { request } from 'node:http'
import type { ClientRequest, IncomingMessage } from 'node:http'
import type { AddressInfo } from 'node:net'
import pg from 'pg'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { buildApp } from '../src/app.ts'
import type { App } from '../src/area.ts'
import { noteEntry, savePlace, signUp, startHarness } from './harness.ts'
import type { Harness, Person } from './harness.ts'

let harness: Harness
/** Two servers of their own on one database. */
let servers: [App, App]
beforeAll(async () => {
  harness = await startHarness()
  servers = [await buildApp(harness.options), await buildApp(harness.options)]
  const first = await signUp(servers[0])
  for (const server of servers) {
    await server.listen({ host: '127.0.0.1', port: 0 })
    // What is written before a server's line to the database stands is told as "again", with the first who listens.
    const stream = await listen(server, first)
    await stream.until((event) => event === 'again')
    stream.asked.destroy()
  }
})
afterAll(async () => {
  for (const server of servers) await server.close()
  await harness.close()
})

interface Stream {
  /** Waits for an event that fits; those that do not are passed over. */
  readonly until: (fits: (event: string, data: { to?: number; count?: number }) => boolean) => Promise<void>
  readonly ended: Promise<unknown>
  readonly asked: ClientRequest
}

async function listen(server: App, person: Person, gardenId = person.gardenId): Promise<Stream> {
  const { port } = server.server.address() as AddressInfo
  const headers = { cookie: person.cookie, accept: 'text/event-stream' }
  const asked = request({ host: '127.0.0.1', port, path: `/api/gardens/${gardenId}/events`, headers })
  asked.on('error', () => undefined)
  asked.end()
  const [reply] = (await once(asked, 'response')) as [IncomingMessage]
  expect(reply.statusCode).toBe(200)
  expect(reply.headers['content-type']).toBe('text/event-stream')
  expect(reply.headers['content-encoding']).toBeUndefined()
  let text = ''
  let look: () => void = () => undefined
  reply.setEncoding('utf8').on('data', (more: string) => {
    text += more
    look()
  })
  return {
    asked,
    ended: new Promise((resolve) => reply.once('close', resolve).on('error', () => undefined)),
    until: (fits) =>
      new Promise((resolve) => {
        look = () => {
          for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
            const [, event, data] = /^event: (\w+)\ndata: (.*)$/.exec(text.slice(0, end)) ?? []
            text = text.slice(end + 2)
            if (event && fits(event, JSON.parse(data!) as { to?: number })) return resolve()
          }
        }
        look()
      }),
  }
}

async function note(app: App, { gardenId, cookie }: Person, placeId: string): Promise<number> {
  const reply = await app.inject({
    method: 'POST',
    url: `/api/gardens/${gardenId}/entries`,
    headers: { cookie },
    payload: { entries: [noteEntry(placeId)] },
  })
  return reply.json<{ answers: { seq: number }[] }>().answers[0]!.seq
}

it('tells at one server what was written at the other, entries by their number and documents', async () => {
  const [here, there] = servers
  const person = await signUp(here)
  const stream = await listen(here, person)
  await stream.until((event, { to }) => event === 'entries' && to === 0)
  const place = await savePlace(there, person)
  await stream.until((event) => event === 'documents')
  // Whoever comes later is told how much has been saved: what they have read may have been read before that.
  const later = await listen(there, person)
  await later.until((event, { count }) => event === 'saves' && count === 1)
  later.asked.destroy()
  const seq = await note(there, person, place)
  await stream.until((event, { to }) => event === 'entries' && to === seq)
  // Many writes in a moment are told of by the last of them.
  const seqs = await Promise.all(Array.from({ length: 20 }, () => note(there, person, place)))
  await stream.until((event, { to }) => event === 'entries' && to === Math.max(...seqs))
  stream.asked.destroy()
})

it('gives every entry once and in one order to every reader, whichever server they ask and however slow they are', async () => {
  const [here, there] = servers
  const person = await signUp(here)
  const place = await savePlace(here, person)
  const [writers, each] = [4, 15]
  const writing = Array.from({ length: writers }, async (_, w) => {
    for (let n = 0; n < each; n++) await note((w + n) % 2 === 0 ? here : there, person, place)
  })
  const reads = async (server: App, limit: number, waitMs: number) => {
    const read: { seq: number; id: string }[] = []
    while (read.length < writers * each) {
      const url = `/api/gardens/${person.gardenId}/journal?after=${read.at(-1)?.seq ?? 0}&limit=${limit}`
      const reply = await server.inject({ url, headers: { cookie: person.cookie } })
      read.push(...reply.json<{ entries: typeof read }>().entries)
      await new Promise((resolve) => setTimeout(resolve, waitMs))
    }
    return read.map(({ seq, id }) => `${seq} ${id}`)
  }
  // While it is written: one who asks all the time, one through the other server, one on a slow line.
  const [quick, other, slow] = await Promise.all([
    reads(here, 500, 0),
    reads(there, 7, 5),
    reads(here, 3, 20),
  ])
  await Promise.all(writing)
  expect(new Set(quick).size).toBe(writers * each)
  expect(quick.map((one) => Number(one.split(' ')[0]))).toEqual(quick.map((_, i) => i + 1))
  expect(other).toEqual(quick)
  expect(slow).toEqual(quick)
})

it('tells nobody of a garden that is not theirs, and opens no stream to them', async () => {
  const [here, there] = servers
  const [mine, other] = [await signUp(here), await signUp(here)]
  const reply = await here.inject({
    url: `/api/gardens/${other.gardenId}/events`,
    headers: { cookie: mine.cookie, accept: 'text/event-stream' },
  })
  expect(reply.statusCode).toBe(404)
  const stream = await listen(here, mine)
  const heard: string[] = []
  const all = stream.until((event, { to }) => {
    heard.push(`${event} ${to}`)
    return event === 'documents'
  })
  await note(there, other, await savePlace(there, other))
  await savePlace(there, mine)
  await all
  expect(heard).toEqual(['saves undefined', 'entries 0', 'documents undefined'])
  stream.asked.destroy()
})

it('is a stream only for who asks for one, and no more of them than windows that one has', async () => {
  const [here] = servers
  const person = await signUp(here)
  const url = `/api/gardens/${person.gardenId}/events`
  const plain = await here.inject({ url, headers: { cookie: person.cookie, accept: 'application/json' } })
  expect([plain.statusCode, plain.json<{ error: { code: string } }>().error.code]).toEqual([
    406,
    'request/not-acceptable',
  ])
  const streams: Stream[] = []
  for (let n = 0; n < 20; n++) streams.push(await listen(here, person))
  const headers = { cookie: person.cookie, accept: 'text/event-stream' }
  expect((await here.inject({ url, headers })).statusCode).toBe(429)
  streams[0]!.asked.destroy()
  await streams[0]!.ended
  await expect.poll(async () => listen(here, person).then((one) => streams.push(one))).toBeGreaterThan(0)
  for (const { asked } of streams) asked.destroy()
})

it('goes on after the line between server and database broke, and says that anything may have been missed', async () => {
  const [here, there] = servers
  const person = await signUp(here)
  const stream = await listen(here, person)
  await stream.until((event) => event === 'entries')
  const admin = new pg.Client({ connectionString: harness.ownerUrl })
  await admin.connect()
  await admin.query(
    `select pg_terminate_backend(pid) from pg_stat_activity
     where datname = current_database() and query like 'listen %'`,
  )
  await admin.end()
  await stream.until((event) => event === 'again')
  const seq = await note(there, person, await savePlace(there, person))
  await stream.until((event, { to }) => event === 'entries' && to === seq)
  stream.asked.destroy()
})

it('tells of a file that came in at the other server, whatever it brought', async () => {
  const [here, there] = servers
  const person = await signUp(here)
  await note(here, person, await savePlace(here, person))
  const { cookie } = person
  const file = await here.inject({ url: `/api/gardens/${person.gardenId}/export`, headers: { cookie } })
  const stream = await listen(here, person)
  const form = new FormData()
  form.append('file', new Blob([file.body]), 'garden.json')
  const sent = new Response(form)
  const reply = await there.inject({
    method: 'POST',
    url: `/api/gardens/${person.gardenId}/import`,
    headers: { cookie, 'content-type': sent.headers.get('content-type')! },
    payload: Buffer.from(await sent.arrayBuffer()),
  })
  expect(reply.statusCode).toBe(200)
  await stream.until((event) => event === 'again')
  stream.asked.destroy()
})

it('ends when its server does, so that the server can', async () => {
  const own = await buildApp(harness.options)
  await own.listen({ host: '127.0.0.1', port: 0 })
  const person = await signUp(own)
  const stream = await listen(own, person)
  await Promise.all([own.close(), stream.ended])
})
