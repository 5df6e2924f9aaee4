import pg from 'pg'
import type { PoolClient } from 'pg'
import { APP_ROLE } from './pool.ts'
import type { Work } from './transaction.ts'

/** A transaction on a connection of its own, under the app's role: for a thread, which has no pool. */
export async function inOwnTransaction(databaseUrl: string, work: Work<void>): Promise<void> {
  const client = new pg.Client({
    connectionString: databaseUrl,
    options: `-c role=${APP_ROLE}`,
    connectionTimeoutMillis: 5000,
  })
  client.on('error', () => undefined)
  try {
    await client.connect()
    await client.query('begin')
    await work(client as unknown as PoolClient)
    await client.query('commit')
  } finally {
    await client.end().catch(() => undefined)
  }
}
