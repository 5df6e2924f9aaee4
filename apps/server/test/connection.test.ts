import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { migrate } from '../src/database/migrate.ts'
import { inTransaction } from '../src/database/transaction.ts'
import { startHarness } from './harness.ts'
import type { Harness } from './harness.ts'

let harness: Harness
let owner: pg.Client
beforeAll(async () => {
  harness = await startHarness()
  owner = new pg.Client({ connectionString: harness.ownerUrl })
  await owner.connect()
})
afterAll(async () => {
  await owner.end()
  await harness.close()
})

const uncaught: unknown[] = []
const catchAll = (error: unknown) => uncaught.push(error)
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

describe('a connection that the database ends', () => {
  it('while it is checked out and idle fails the work at hand, and nothing else', async () => {
    process.on('uncaughtException', catchAll)
    try {
      const work = inTransaction(harness.pool, async (client) => {
        const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid')
        await owner.query('select pg_terminate_backend($1)', [rows[0]!.pid])
        await pause(200)
        return client.query('select 1')
      })
      await expect(work).rejects.toThrow()
      await pause(50)
      expect(uncaught).toEqual([])
      const next = await inTransaction(harness.pool, (client) => client.query('select 1 as one'))
      expect(next.rows).toEqual([{ one: 1 }])
    } finally {
      process.off('uncaughtException', catchAll)
    }
  })

  it('is answered as a server that is away for a moment, not as a failure', async () => {
    const block = await owner.query<{ pid: number }>('select pg_backend_pid() as pid')
    await owner.query('begin')
    await owner.query('lock table account in access exclusive mode')
    const asked = harness.app.inject({
      method: 'POST',
      url: '/api/session',
      payload: { email: 'a@example.org', password: 'x' },
    })
    await pause(300)
    const admin = new pg.Client({ connectionString: harness.ownerUrl })
    await admin.connect()
    await admin.query(
      `select pg_terminate_backend(pid) from pg_stat_activity where wait_event_type = 'Lock' and pid <> $1 and datname = current_database()`,
      [block.rows[0]!.pid],
    )
    await admin.end()
    const reply = await asked
    await owner.query('rollback')
    expect(reply.statusCode).toBe(503)
    expect(reply.headers['retry-after']).toBeDefined()
  })
})

describe('a database that a later release has been at', () => {
  it('is refused by name and left as it is', async () => {
    const folder = fileURLToPath(new URL('../migrations', import.meta.url))
    await owner.query(`insert into migration (name, run_on) values ('0999_of_tomorrow', now())`)
    await expect(migrate(harness.ownerUrl, folder)).rejects.toThrow(/later release.*0999_of_tomorrow/)
    await owner.query(`delete from migration where name = '0999_of_tomorrow'`)
    expect(await migrate(harness.ownerUrl, folder)).toEqual([])
    const empty = join(mkdtempSync(join(tmpdir(), 'klados-')), 'migrations')
    mkdirSync(empty)
    writeFileSync(join(empty, '0001_foundation.sql'), '-- Up Migration')
    await expect(migrate(harness.ownerUrl, empty)).rejects.toThrow(/later release/)
  })
})
