import type { AppendReply, JournalPage } from '@klados/contract'
import { appendFileSync, chownSync, mkdirSync, rmSync } from 'node:fs'
import { connect, createServer } from 'node:net'
import type { AddressInfo, Socket } from 'node:net'
import { join } from 'node:path'
import pg from 'pg'
import { afterAll, describe, expect, it } from 'vitest'
import { freePort } from '../../../scripts/lib/free-port.mjs'
import { inWork } from '../../../scripts/lib/paths.mjs'
import { createDatabase, startPostgres } from '../../../scripts/lib/postgres.mjs'
import { runQuietly } from '../../../scripts/lib/run.mjs'
import { createAnnouncements } from '../src/database/announcements.ts'
import { noteEntry, savePlace, signUp, startHarness } from './harness.ts'

type Cluster = Awaited<ReturnType<typeof startPostgres>>

/** The address that a server of ours knows, whoever of the two answers there. */
async function movableAddress() {
  const sockets = new Set<Socket>()
  let port = 0
  const server = createServer((socket) => {
    const further = connect(port, '127.0.0.1')
    for (const [one, other] of [
      [socket, further],
      [further, socket],
    ] as const) {
      sockets.add(one)
      one.pipe(other)
      one.on('error', () => other.destroy())
      one.on('close', () => {
        sockets.delete(one)
        other.destroy()
      })
    }
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return {
    port: (server.address() as AddressInfo).port,
    leadTo: (next: number) => {
      port = next
      for (const socket of sockets) socket.destroy()
    },
    close: () => {
      for (const socket of sockets) socket.destroy()
      server.close()
    },
  }
}

const through = (url: string, port: number) => Object.assign(new URL(url), { port }).toString()
let first: Cluster
let standby: { readonly base: string; readonly data: string; readonly port: number }
const closing: (() => unknown)[] = []

/** Runs one of PostgreSQL's programs as the user that the clusters belong to. */
const tool = (name: string, args: readonly string[]) =>
  runQuietly(join(first.bin, name), [...args], {
    cwd: standby?.base ?? '/',
    env: { PATH: process.env.PATH, HOME: first.user?.home ?? process.env.HOME, LC_ALL: 'C.UTF-8' },
    ...(first.user ? { uid: first.user.uid, gid: first.user.gid } : {}),
  })
const start = (data: string, port: number) =>
  tool('pg_ctl', [
    '-D',
    data,
    '-l',
    join(data, 'said.log'),
    '-w',
    'start',
    '-o',
    `-c port=${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`,
  ])
/** Asks a cluster as its superuser. */
async function ask<T extends pg.QueryResultRow>(
  port: number,
  sql: string,
  database = 'postgres',
): Promise<T[]> {
  const client = new pg.Client({ connectionString: through(first.ownerUrl(database), port) })
  client.on('error', () => undefined)
  await client.connect()
  try {
    return (await client.query<T>(sql)).rows
  } finally {
    await client.end()
  }
}
const inSync = (port: number) =>
  expect
    .poll(async () => ask(port, `select sync_state from pg_stat_replication`), { timeout: 30_000 })
    .toEqual([{ sync_state: 'sync' }])

afterAll(async () => {
  for (const close of closing) await close()
  for (const data of [standby?.data, first?.data])
    if (data) await tool('pg_ctl', ['-D', data, '-m', 'immediate', 'stop']).catch(() => undefined)
  if (standby) rmSync(standby.base, { recursive: true, force: true })
  first?.remove()
})

describe('two databases of which the first is lost, by Debian’s own tools as docs/servers.md says', () => {
  it('lose nothing that was acknowledged; the second goes on, and the first comes back as its replica', async () => {
    first = await startPostgres(inWork(`failover-first-${process.pid}`))
    await createDatabase(first, 'klados')
    const address = await movableAddress()
    address.leadTo(first.port)
    const harness = await startHarness({
      urls: {
        ownerUrl: through(first.ownerUrl('klados'), address.port),
        databaseUrl: through(first.appUrl('klados'), address.port),
      },
    })
    closing.push(() => harness.close(), address.close)

    // A second that follows the first, and without which the first acknowledges nothing.
    const base = first.data.replace('failover-first', 'failover-second').replace(/\/data$/, '')
    mkdirSync(base, { recursive: true })
    if (first.user) chownSync(base, first.user.uid, first.user.gid)
    standby = { base, data: join(base, 'data'), port: await freePort() }
    const source = through(first.adminUrl, first.port)
    await tool('pg_basebackup', [
      '-d',
      `${source}?application_name=second`,
      '-D',
      standby.data,
      '-R',
      '-X',
      'stream',
      '-c',
      'fast',
      '-C',
      '-S',
      'second',
    ])
    await start(standby.data, standby.port)
    await ask(first.port, `alter system set synchronous_standby_names = 'second'`)
    await ask(first.port, `select pg_reload_conf()`)
    await inSync(first.port)

    const owner = await signUp(harness.app)
    const placeId = await savePlace(harness.app, owner)
    const write = async (count: number) => {
      const entries = Array.from({ length: count }, () => noteEntry(placeId))
      const reply = await harness.app.inject({
        method: 'POST',
        url: `/api/gardens/${owner.gardenId}/entries`,
        headers: { cookie: owner.cookie },
        payload: { entries },
      })
      return { status: reply.statusCode, entries, reply: reply.json<AppendReply>() }
    }
    const acknowledged: string[] = []
    const taken = async (count: number) => {
      const { status, entries } = await write(count)
      if (status === 200) acknowledged.push(...entries.map(({ id }) => id))
      return status
    }
    const hears: unknown[] = []
    // As another server on the same address hears it.
    const announcements = createAnnouncements(harness.options.databaseUrl, harness.pool)
    closing.unshift(() => announcements.close())
    announcements.hear(owner.gardenId, (news) => hears.push(news))
    for (let n = 0; n < 40; n++) expect(await taken(5)).toBe(200)
    await expect.poll(() => hears).toContainEqual({ entriesTo: 200 })

    // The first is gone from one moment to the next; till the address leads to the second, all are asked to wait.
    await tool('pg_ctl', ['-D', first.data, '-m', 'immediate', 'stop'])
    expect((await write(1)).status).toBe(503)
    await tool('pg_ctl', ['-D', standby.data, '-w', 'promote'])
    // Till its first checkpoint it counts itself to the first's line, and nothing would be rewound to it.
    await ask(standby.port, 'checkpoint')
    await ask(standby.port, `alter system set synchronous_standby_names = ''`)
    await ask(standby.port, `select pg_reload_conf()`)
    address.leadTo(standby.port)
    await expect.poll(() => taken(5), { timeout: 20_000 }).toBe(200)
    for (let n = 0; n < 10; n++) expect(await taken(5)).toBe(200)
    const { entries } = (
      await harness.app.inject({
        url: `/api/gardens/${owner.gardenId}/journal`,
        headers: { cookie: owner.cookie },
      })
    ).json<JournalPage>()
    expect(entries.map(({ seq }) => seq)).toEqual(entries.map((_, n) => n + 1))
    expect(entries.map(({ id }) => id)).toEqual(acknowledged)
    // Whoever listened is told that there may be anything, and hears from the second what is written from then on.
    const breaks = () => hears.filter((news) => news === 'anything').length
    await expect.poll(breaks, { timeout: 20_000 }).toBe(2)
    expect(await taken(5)).toBe(200)
    await expect.poll(() => hears).toContainEqual({ entriesTo: acknowledged.length })

    // The first, whatever it had that the second had not, comes back as what follows the second.
    await start(first.data, first.port)
    await tool('pg_ctl', ['-D', first.data, '-m', 'fast', '-w', 'stop'])
    await tool('pg_rewind', [
      '--target-pgdata',
      first.data,
      '--source-server',
      through(first.adminUrl, standby.port),
      '-R',
    ])
    // Among what was rewound are the second's settings, and with them the place that it followed the first from.
    await ask(standby.port, `select pg_create_physical_replication_slot('first')`)
    appendFileSync(join(first.data, 'postgresql.auto.conf'), `primary_slot_name = 'first'\n`)
    await start(first.data, first.port)
    expect(await taken(5)).toBe(200)
    const there = () => ask<{ n: number }>(first.port, `select count(*)::integer as n from entry`, 'klados')
    await expect.poll(there, { timeout: 20_000 }).toEqual([{ n: acknowledged.length }])
  }, 180_000)
})
