import type { Session } from '@klados/contract'
import type { Pool, PoolClient } from 'pg'
import { asAccount } from '../database/transaction.ts'

export interface SignedIn {
  readonly accountId: string
  readonly name: string
  readonly email: string
  readonly units: 'metric' | 'imperial'
  readonly isDemo: boolean
}

/** Runs in a transaction under the accounts' role. */
export async function insertAccount(
  client: PoolClient,
  account: {
    id: string
    email: string
    name: string
    passwordHash: string
    units?: SignedIn['units']
    isDemo?: boolean
  },
): Promise<boolean> {
  const { rowCount } = await client.query(
    `insert into account (account_id, email, name, password_hash, is_demo, units) values ($1, $2, $3, $4, $5, $6)
     on conflict (email) do nothing`,
    [
      account.id,
      account.email,
      account.name,
      account.passwordHash,
      account.isDemo ?? false,
      account.units ?? 'metric',
    ],
  )
  return rowCount === 1
}

export async function findPassword(
  accounts: Pool,
  email: string,
): Promise<{ accountId: string; hash: string } | undefined> {
  const { rows } = await accounts.query<{ accountId: string; hash: string }>(
    `select account_id as "accountId", password_hash as hash from account where email = $1`,
    [email],
  )
  return rows[0]
}

export async function findAccountId(accounts: Pool, email: string): Promise<string | undefined> {
  const { rows } = await accounts.query<{ id: string }>(
    `select account_id as id from account where email = $1`,
    [email],
  )
  return rows[0]?.id
}

export async function updateUnits(accounts: Pool, accountId: string, units: string): Promise<void> {
  await accounts.query(`update account set units = $2 where account_id = $1`, [accountId, units])
}

/** The new password, and an end to every session but the one that is kept. */
export async function updatePassword(
  client: PoolClient,
  accountId: string,
  passwordHash: string,
  keptSession: Buffer | null,
): Promise<void> {
  await client.query(`update account set password_hash = $2 where account_id = $1`, [accountId, passwordHash])
  await client.query(
    `delete from session where account_id = $1 and ($2::bytea is null or token_hash <> $2)`,
    [accountId, keptSession],
  )
  await client.query(`delete from reset_link where account_id = $1`, [accountId])
}

export async function insertSession(
  accounts: Pool,
  tokenHash: Buffer,
  accountId: string,
  expiresAt: Date,
): Promise<void> {
  await accounts.query(`delete from session where expires_at < now()`)
  await accounts.query(`insert into session (token_hash, account_id, expires_at) values ($1, $2, $3)`, [
    tokenHash,
    accountId,
    expiresAt,
  ])
}

export async function deleteSession(accounts: Pool, tokenHash: Buffer): Promise<void> {
  await accounts.query(`delete from session where token_hash = $1`, [tokenHash])
}

export async function deleteSessions(accounts: Pool, accountId: string): Promise<void> {
  await accounts.query(`delete from session where account_id = $1`, [accountId])
}

export async function findSession(accounts: Pool, tokenHash: Buffer): Promise<SignedIn | null> {
  const { rows } = await accounts.query<SignedIn>({
    name: 'find-session',
    text: `select a.account_id as "accountId", a.name, a.email, a.units, a.is_demo as "isDemo"
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

export async function insertResetLink(
  accounts: Pool,
  tokenHash: Buffer,
  accountId: string,
  expiresAt: Date,
): Promise<void> {
  await accounts.query(`delete from reset_link where expires_at < now() or account_id = $1`, [accountId])
  await accounts.query(`insert into reset_link (token_hash, account_id, expires_at) values ($1, $2, $3)`, [
    tokenHash,
    accountId,
    expiresAt,
  ])
}

/** Takes the link away and tells whose it was: two who use it at once find it once. */
export async function takeResetLink(client: PoolClient, tokenHash: Buffer): Promise<string | undefined> {
  const { rows } = await client.query<{ id: string }>(
    `delete from reset_link where token_hash = $1 and expires_at > now() returning account_id as id`,
    [tokenHash],
  )
  return rows[0]?.id
}

/** Deletes the account, or answers the gardens that it would leave without an owner. */
export async function deleteAccount(accounts: Pool, accountId: string): Promise<string[]> {
  const { rows } = await accounts.query<{ name: string }>(`select delete_account($1) as name`, [accountId])
  return rows.map((row) => row.name)
}

/** Adds turns to a key's count in its window and tells the sum. */
export async function takeTurns(
  accounts: Pool,
  key: string,
  seconds: number,
  turns: number,
): Promise<number> {
  const { rows } = await accounts.query<{ count: number }>({
    name: 'take-turns',
    text: `select take_turns($1, $2, $3) as count`,
    values: [key, seconds, turns],
  })
  return rows[0]!.count
}

/** Windows that nobody asks about any more. */
export async function forgetTurns(accounts: Pool): Promise<void> {
  await accounts.query(`delete from throttle where started < now() - interval '1 day'`)
}
