import type { Pool, PoolClient } from 'pg'
import { asAccount } from '../database/transaction.ts'
import { emailTaken } from '../errors.ts'

/** So long a visitor has a copy; the database takes away what is older. */
export const DEMO_HOURS = 24
/** Of PostgreSQL's error codes. */
const UNIQUE_VIOLATION = '23505'
/** Of nobody: no real domain, so that nobody can sign up with one. */
const visitorEmail = (accountId: string) => `visitor-${accountId}@tarn-close.invalid`

/** Copies the model of the day for an account; false where there is none. */
export async function copyDemo(
  client: PoolClient,
  copy: { readonly day: string; readonly gardenId: string; readonly accountId: string },
): Promise<boolean> {
  const { rows } = await client.query<{ copied: boolean }>(`select copy_demo($1, $2, $3) as copied`, [
    copy.day,
    copy.gardenId,
    copy.accountId,
  ])
  return rows[0]!.copied
}

export async function hasModel(pool: Pool | PoolClient, day: string): Promise<boolean> {
  const { rows } = await pool.query<{ there: boolean }>(`select has_demo_model($1) as there`, [day])
  return rows[0]!.there
}

export async function countDemos(client: PoolClient): Promise<number> {
  const { rows } = await client.query<{ count: number }>(`select demo_copies() as count`)
  return rows[0]!.count
}

/** Takes away what is older than a day, and the visitors whose it was. */
export async function endDemos(pool: Pool): Promise<void> {
  await pool.query(`select end_demos()`)
}

/** The copy that an account has, if any. */
export function findOwnDemo(pool: Pool, accountId: string): Promise<string | undefined> {
  return asAccount(pool, accountId, async (client) => {
    const { rows } = await client.query<{ id: string }>(
      `select g.garden_id as id from membership m join garden g using (garden_id)
       where m.account_id = $1 and m.role = 'owner' and g.is_demo
         and g.created_at > now() - make_interval(hours => ${DEMO_HOURS})`,
      [accountId],
    )
    return rows[0]?.id
  })
}

/** A visitor's account, in a transaction under the accounts' role. */
export async function insertVisitor(
  client: PoolClient,
  visitor: {
    readonly id: string
    readonly name: string
    readonly units: string
    readonly passwordHash: string
  },
): Promise<void> {
  await client.query(
    `insert into account (account_id, email, name, password_hash, is_demo, units) values ($1, $2, $3, $4, true, $5)`,
    [visitor.id, visitorEmail(visitor.id), visitor.name, visitor.passwordHash, visitor.units],
  )
}

/**
 * Makes a visitor's account somebody's own, in a transaction under the accounts' role; false where it is no visitor's,
 * `account/email-taken` where somebody has the address. It is as old as this moment: what was sent to the address before
 * was not sent to this account. Nobody stays signed in.
 */
export async function ownVisitor(
  client: PoolClient,
  account: {
    readonly id: string
    readonly email: string
    readonly name: string
    readonly units: string
    readonly passwordHash: string
  },
): Promise<boolean> {
  let rowCount: number | null
  try {
    ;({ rowCount } = await client.query(
      `update account set email = $2, name = $3, password_hash = $4, units = $5, is_demo = false, created_at = now()
       where account_id = $1 and is_demo and email = $6`,
      [
        account.id,
        account.email,
        account.name,
        account.passwordHash,
        account.units,
        visitorEmail(account.id),
      ],
    ))
  } catch (error) {
    if ((error as { code?: string }).code === UNIQUE_VIOLATION) throw emailTaken()
    throw error
  }
  await client.query(`delete from session where account_id = $1`, [account.id])
  return rowCount === 1
}

/** Makes a copy its owner's own garden; false where it is no copy of theirs. */
export async function keepDemo(client: PoolClient, gardenId: string, accountId: string): Promise<boolean> {
  const { rows } = await client.query<{ kept: boolean }>(`select keep_demo($1, $2) as kept`, [
    gardenId,
    accountId,
  ])
  return rows[0]!.kept
}
