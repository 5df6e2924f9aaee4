import type { Session } from '@klados/contract'
import type { Pool, PoolClient } from 'pg'
import { asAccount } from '../database/transaction.ts'

export interface SignedIn {
  readonly accountId: string
  readonly name: string
  readonly email: string
  readonly units: 'metric' | 'imperial'
}

export async function insertAccount(
  client: PoolClient,
  account: { id: string; email: string; name: string; passwordHash: string },
): Promise<boolean> {
  const { rowCount } = await client.query(
    `insert into account (account_id, email, name, password_hash) values ($1, $2, $3, $4)
     on conflict (email) do nothing`,
    [account.id, account.email, account.name, account.passwordHash],
  )
  return rowCount === 1
}

export async function findPassword(
  pool: Pool,
  email: string,
): Promise<{ accountId: string; hash: string } | undefined> {
  const { rows } = await pool.query<{ accountId: string; hash: string }>(
    `select account_id as "accountId", password_hash as hash from account where email = $1`,
    [email],
  )
  return rows[0]
}

export async function findAccountId(client: PoolClient, email: string): Promise<string | undefined> {
  const { rows } = await client.query<{ id: string }>(
    `select account_id as id from account where email = $1`,
    [email],
  )
  return rows[0]?.id
}

export async function updateUnits(pool: Pool, accountId: string, units: string): Promise<void> {
  await pool.query(`update account set units = $2 where account_id = $1`, [accountId, units])
}

export async function insertSession(
  pool: Pool,
  tokenHash: Buffer,
  accountId: string,
  expiresAt: Date,
): Promise<void> {
  await pool.query(`delete from session where expires_at < now()`)
  await pool.query(`insert into session (token_hash, account_id, expires_at) values ($1, $2, $3)`, [
    tokenHash,
    accountId,
    expiresAt,
  ])
}

export async function deleteSession(pool: Pool, tokenHash: Buffer): Promise<void> {
  await pool.query(`delete from session where token_hash = $1`, [tokenHash])
}

export async function findSession(pool: Pool, tokenHash: Buffer): Promise<SignedIn | null> {
  const { rows } = await pool.query<SignedIn>({
    name: 'find-session',
    text: `select a.account_id as "accountId", a.name, a.email, a.units
           from session s join account a using (account_id)
           where s.token_hash = $1 and s.expires_at > now()`,
    values: [tokenHash],
  })
  return rows[0] ?? null
}

export function findMemberships(pool: Pool, accountId: string): Promise<Session['memberships']> {
  return asAccount(pool, accountId, async (client) => {
    const { rows } = await client.query<Session['memberships'][number]>(
      `select g.garden_id as "gardenId", g.name as "gardenName", m.role
       from membership m join garden g using (garden_id)
       where m.account_id = $1 order by g.name`,
      [accountId],
    )
    return rows
  })
}
