import type { AppendReply, JournalPage, Session } from '@klados/contract'
import { execFileSync } from 'node:child_process'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, describe, expect, it } from 'vitest'
import { inRoot, inWork } from '../../../scripts/lib/paths.mjs'
import { createDatabase, startPostgres } from '../../../scripts/lib/postgres.mjs'
import { startServer } from '../../../scripts/lib/test-server.mjs'
import { cookieOf, noteEntry, wallBody } from './harness.ts'

const ENTRIES = 500
const WRITERS = 4
const KILL_AFTER = 180

type Running = Awaited<ReturnType<typeof startServer>>
const folder = inWork(`crash-postgres-${process.pid}`)
let database: Awaited<ReturnType<typeof startPostgres>>
let server: Running

async function start(): Promise<void> {
  database = await startPostgres(folder)
  await createDatabase(database, 'klados')
  const urls = { DATABASE_URL: database.ownerUrl('klados'), APP_DATABASE_URL: database.appUrl('klados') }
  server = await startServer(urls, { hasDemo: false })
}

afterAll(async () => {
  await server.kill('SIGKILL')
  await database.stop('immediate')
  database.remove()
})

describe('kill -9 of the server and of PostgreSQL in the middle of 500 writes', () => {
  it('loses no acknowledged entry and keeps none twice', async () => {
    execFileSync(process.execPath, [inRoot('scripts/build-server.mjs')])
    await start()
    const send = (path: string, method: string, body: unknown, cookie = '') =>
      fetch(`${server.baseUrl}${path}`, {
        method,
        body: JSON.stringify(body),
        headers: { 'content-type': 'application/json', cookie },
      })
    const account = {
      name: 'Grower',
      email: 'crash@example.org',
      password: 'tie it loosely',
      gardenName: 'Home',
    }
    const cookie = cookieOf((await send('/api/accounts', 'POST', account)).headers.getSetCookie())
    const session = (await (
      await fetch(`${server.baseUrl}/api/session`, { headers: { cookie } })
    ).json()) as Session
    const garden = `/api/gardens/${session.memberships[0]!.gardenId}`
    const placeId = uuidv7()
    await send(`${garden}/places/${placeId}`, 'PUT', { saveId: uuidv7(), basedOn: 0, body: wallBody }, cookie)

    const entries = Array.from({ length: ENTRIES }, () => noteEntry(placeId))
    const acknowledged = new Set<string>()
    const queue = [...entries]
    const postmaster = database.pid()
    let isKilled = false
    const write = async () => {
      for (let entry = queue.shift(); entry && !isKilled; entry = queue.shift()) {
        const reply = await send(`${garden}/entries`, 'POST', { entries: [entry] }, cookie).catch(() => null)
        if (reply?.ok && ((await reply.json()) as AppendReply).answers[0]!.answer === 'taken')
          acknowledged.add(entry.id)
        if (acknowledged.size >= KILL_AFTER && !isKilled) {
          isKilled = true
          process.kill(postmaster, 'SIGKILL')
          await server.kill('SIGKILL')
        }
      }
    }
    await Promise.all(Array.from({ length: WRITERS }, write))
    expect(acknowledged.size).toBeGreaterThanOrEqual(KILL_AFTER)
    expect(acknowledged.size).toBeLessThan(ENTRIES)

    await start()
    const read = async () =>
      (await (
        await fetch(`${server.baseUrl}${garden}/journal`, { headers: { cookie } })
      ).json()) as JournalPage
    const survived = new Set((await read()).entries.map((entry) => entry.id))
    for (const id of acknowledged) expect(survived.has(id)).toBe(true)

    // What the grower's outbox does next: send everything that was not acknowledged, and some that was.
    const again = entries.filter((entry, i) => !acknowledged.has(entry.id) || i % 5 === 0)
    await send(`${garden}/entries`, 'POST', { entries: again }, cookie)
    const ids = (await read()).entries.map((entry) => entry.id)
    expect(ids).toHaveLength(ENTRIES)
    expect(new Set(ids)).toEqual(new Set(entries.map((entry) => entry.id)))
  }, 120_000)
})
