import { fileURLToPath } from 'node:url'
import type { JournalEntry } from '@klados/core/journal'
import type { Pool } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { migrate } from '../src/database/migrate.ts'
import { createAppPool } from '../src/database/pool.ts'
import { inGarden, inTransaction, withAccountsRole } from '../src/database/transaction.ts'
import { createGarden } from '../src/gardens/queries.ts'
import { insertAccount } from '../src/accounts/queries.ts'
import { appendEntries } from '../src/journal/queries.ts'
import { inWork } from '../../../scripts/lib/paths.mjs'
import { createDatabase, startPostgres } from '../../../scripts/lib/postgres.mjs'
import { report } from './measure.ts'

const ENTRIES = 4000

/**
 * Appends through the journal against inserts of the same rows into a bare table, same driver, same durable
 * database.
 */
export async function benchJournal(): Promise<void> {
  const database = await startPostgres(inWork('bench-postgres'))
  try {
    await createDatabase(database, 'bench')
    await migrate(database.ownerUrl('bench'), fileURLToPath(new URL('../migrations', import.meta.url)))
    const owner = createAppPool(database.ownerUrl('bench'), 1)
    await owner.query(
      `reset role; set role none; create table if not exists plain (like entry including indexes); grant all on plain to klados_app`,
    )
    await owner.end()
    const pool = createAppPool(database.appUrl('bench'))
    const accountId = uuidv7()
    const gardenId = uuidv7()
    await inTransaction(pool, async (client) => {
      const account = { id: accountId, email: `${accountId}@example.org`, name: 'Bench', passwordHash: '-' }
      await withAccountsRole(client, () => insertAccount(client, account))
      await createGarden(client, { id: gardenId, name: 'Bench', ownerId: accountId })
    })
    for (const batch of [1, 50]) {
      const plain = await rate(batch, (entries) => plainInsert(pool, gardenId, accountId, entries))
      const journal = await rate(batch, (entries) =>
        inGarden(pool, gardenId, (client) => appendEntries(client, gardenId, accountId, entries)),
      )
      const share = journal / plain
      const name = `journal appends, ${batch} at a time (plain ${Math.round(plain)}/s)`
      report(name, `${Math.round(journal)}/s, ratio ${share.toFixed(2)}`, 'ratio at least 0.5', share >= 0.5)
    }
    await pool.end()
  } finally {
    await database.stop()
    database.remove()
  }
}

async function rate(batch: number, append: (entries: JournalEntry[]) => Promise<unknown>): Promise<number> {
  const total = batch === 1 ? ENTRIES / 4 : ENTRIES
  const start = performance.now()
  for (let done = 0; done < total; done += batch) await append(Array.from({ length: batch }, newEntry))
  return (total * 1000) / (performance.now() - start)
}

const placeId = uuidv7()
function newEntry(): JournalEntry {
  return {
    id: uuidv7(),
    placeId,
    plantId: null,
    kind: 'note.written',
    at: '2026-03-01',
    recordedAt: '2026-03-01T12:00:00.000Z',
    supersedes: null,
    body: { v: 1, text: 'Buds moving on the east pear.' },
  }
}

let seq = 0
/** One insert for each batch, in a transaction of its own: what an application without a journal would do. */
function plainInsert(
  pool: Pool,
  gardenId: string,
  accountId: string,
  entries: JournalEntry[],
): Promise<unknown> {
  const values: unknown[] = []
  const rows = entries.map((entry) => {
    const row = [
      gardenId,
      ++seq,
      entry.id,
      entry.placeId,
      entry.plantId,
      entry.kind,
      entry.at,
      entry.recordedAt,
      new Date(),
      accountId,
      null,
      JSON.stringify(entry.body),
    ]
    values.push(...row)
    return `(${row.map((_, i) => `$${values.length - row.length + i + 1}`).join(', ')})`
  })
  return inTransaction(pool, (client) => client.query(`insert into plain values ${rows.join(', ')}`, values))
}
