import type { Pool, PoolClient } from 'pg'

export type Work<T> = (client: PoolClient) => Promise<T>

/** Runs `work` in a transaction: commits when it returns, rolls back when it throws, gives the connection back always. */
export async function inTransaction<T>(pool: Pool, work: Work<T>): Promise<T> {
  const client = await pool.connect()
  let broken: Error | undefined
  try {
    await client.query('begin')
    const result = await work(client)
    await client.query('commit')
    return result
  } catch (error) {
    await client.query('rollback').catch((failure: Error) => {
      broken = failure
    })
    throw error
  } finally {
    client.release(broken)
  }
}

/** A transaction in which row-level security shows one garden only. */
export function inGarden<T>(pool: Pool, gardenId: string, work: Work<T>): Promise<T> {
  return inTransaction(pool, async (client) => {
    await client.query(`select set_config('klados.garden', $1, true)`, [gardenId])
    return work(client)
  })
}

/** A transaction in which row-level security shows an account's own memberships. */
export function asAccount<T>(pool: Pool, accountId: string, work: Work<T>): Promise<T> {
  return inTransaction(pool, async (client) => {
    await client.query(`select set_config('klados.account', $1, true)`, [accountId])
    return work(client)
  })
}
