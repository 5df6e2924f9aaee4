import type { Pool, PoolClient } from 'pg'
import { ACCOUNTS_ROLE, APP_ROLE } from './pool.ts'

export type Work<T> = (client: PoolClient) => Promise<T>

/**
 * Runs `work` in a transaction: commits when it returns, rolls back when it throws, gives the connection back
 * always.
 */
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

/** Part of a garden's transaction that makes an account: under the accounts' role, and back. */
export async function withAccountsRole<T>(client: PoolClient, work: () => Promise<T>): Promise<T> {
  await client.query(`set local role ${ACCOUNTS_ROLE}`)
  const result = await work()
  await client.query(`set local role ${APP_ROLE}`)
  return result
}

/** Work in a transaction that sees one garden as it was at its begin, whoever writes meanwhile. */
export async function inSnapshot<T>(pool: Pool, gardenId: string, work: Work<T>): Promise<T> {
  const client = await pool.connect()
  let broken = true
  try {
    await client.query('begin isolation level repeatable read read only')
    await client.query(`select set_config('klados.garden', $1, true)`, [gardenId])
    const result = await work(client)
    await client.query('commit')
    broken = false
    return result
  } finally {
    // Left early, by an error: the connection is not worth keeping.
    client.release(broken)
  }
}
