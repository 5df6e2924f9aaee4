import type { PoolClient } from 'pg'
import { AppError } from '../errors.ts'
import { bytesBeside } from './queries.ts'

/**
 * Throws `garden/full` once the account that made this garden has used its allowance; asked before anything
 * is written.
 */
export async function requireRoom(client: PoolClient, gardenId: string, limitBytes: number): Promise<void> {
  const bytes = await bytesBeside(client, gardenId)
  if (bytes < limitBytes) return
  const mega = (n: number) => Math.round(n / 1024 ** 2)
  throw new AppError(
    'garden/full',
    `The gardens of this account hold ${mega(bytes)} MB of the ${mega(limitBytes)} MB that they may; delete photos or gardens, or ask whoever runs this server`,
  )
}
