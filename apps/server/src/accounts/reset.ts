import type { ResetLink } from '@klados/contract'
import type { Pool } from 'pg'
import { inTransaction } from '../database/transaction.ts'
import { insertResetLink } from './queries.ts'
import type { LinkGround } from './queries.ts'
import { hashToken, newToken } from './session.ts'

const LINK_HOURS = 24

/**
 * A link for one account that sets a new password once within a day; links made for it before are void. What it was made
 * on is looked at again when it is used; the operator's link, without a ground, needs none.
 */
export async function makeResetLink(
  accounts: Pool,
  accountId: string,
  now: Date,
  ground: LinkGround | null,
): Promise<ResetLink> {
  const token = newToken()
  const expiresAt = new Date(now.getTime() + LINK_HOURS * 3_600_000)
  await inTransaction(accounts, (client) =>
    insertResetLink(client, { tokenHash: hashToken(token), accountId, expiresAt }, ground),
  )
  // Behind the hash, so that no server or proxy on the way writes it into a log.
  return { path: `/new-password#${token}`, expiresAt: expiresAt.toISOString() }
}
