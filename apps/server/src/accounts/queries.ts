import type { Invitation, Language, Notice, Preferences, Session } from '@klados/contract'
import type { Pool, PoolClient } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { asAccount } from '../database/transaction.ts'
import { DEMO_HOURS } from '../demo/queries.ts'

export interface SignedIn {
  readonly accountId: string
  readonly name: string
  readonly email: string
  readonly units: 'metric' | 'imperial'
  readonly language: Language | null
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

export async function findAccountId(accounts: Pool | PoolClient, email: string): Promise<string | undefined> {
  const { rows } = await accounts.query<{ id: string }>(
    `select account_id as id from account where email = $1`,
    [email],
  )
  return rows[0]?.id
}

export async function updatePreferences(
  accounts: Pool,
  accountId: string,
  { units, language }: Preferences,
): Promise<void> {
  await accounts.query(
    `update account set units = coalesce($2, units), language = coalesce($3, language) where account_id = $1`,
    [accountId, units, language],
  )
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
  await dropResetLinks(client, accountId)
}

export async function insertSession(
  accounts: Pool,
  session: { tokenHash: Buffer; accountId: string; expiresAt: Date; agent: string },
): Promise<void> {
  const { tokenHash, accountId, expiresAt, agent } = session
  await accounts.query(`delete from session where expires_at < now()`)
  await accounts.query(
    `insert into session (token_hash, account_id, expires_at, agent) values ($1, $2, $3, $4)`,
    [tokenHash, accountId, expiresAt, agent],
  )
}

export interface StoredSession {
  readonly id: string
  readonly agent: string
  readonly openedAt: string
  readonly usedAt: string
  readonly isThis: boolean
}

const instant = (when: string) => `to_char((${when}) at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`

export async function listSessions(
  accounts: Pool,
  accountId: string,
  thisToken: Buffer,
): Promise<StoredSession[]> {
  const { rows } = await accounts.query<StoredSession>(
    `select session_id as id, agent, ${instant('created_at')} as "openedAt", ${instant('used_at')} as "usedAt",
       token_hash = $2 as "isThis"
     from session where account_id = $1 and expires_at > now() order by token_hash = $2 desc, used_at desc`,
    [accountId, thisToken],
  )
  return rows
}

/** False where it is not the account's, or is over. */
export async function endSession(accounts: Pool, accountId: string, sessionId: string): Promise<boolean> {
  const { rowCount } = await accounts.query(`delete from session where account_id = $1 and session_id = $2`, [
    accountId,
    sessionId,
  ])
  return rowCount === 1
}

export async function deleteSession(accounts: Pool, tokenHash: Buffer): Promise<void> {
  await accounts.query(`delete from session where token_hash = $1`, [tokenHash])
}

export async function deleteSessions(accounts: Pool, accountId: string): Promise<void> {
  await accounts.query(`delete from session where account_id = $1`, [accountId])
}

/** A session is marked as used no more often than this, or each request would write a row. */
const MARKED_EACH = '10 minutes'

export async function findSession(accounts: Pool, tokenHash: Buffer): Promise<SignedIn | null> {
  const { rows } = await accounts.query<SignedIn & { isStale: boolean }>({
    name: 'find-session',
    text: `select a.account_id as "accountId", a.name, a.email, a.units, a.language, a.is_demo as "isDemo",
             s.used_at < now() - interval '${MARKED_EACH}' as "isStale"
           from session s join account a using (account_id)
           where s.token_hash = $1 and s.expires_at > now()`,
    values: [tokenHash],
  })
  if (!rows[0]) return null
  const { isStale, ...signedIn } = rows[0]
  // Nobody waits for it, and one that is missed is made up for by the next.
  if (isStale)
    void accounts
      .query(`update session set used_at = now() where token_hash = $1`, [tokenHash])
      .catch(() => undefined)
  return signedIn
}

export function findMemberships(pool: Pool, accountId: string): Promise<Session['memberships']> {
  return asAccount(pool, accountId, async (client) => {
    const { rows } = await client.query<Session['memberships'][number]>(
      `select g.garden_id as "gardenId", g.name as "gardenName", m.role,
         case when g.is_demo then ${instant(`g.created_at + interval '${DEMO_HOURS} hours'`)} end as "goesAt"
       from membership m join garden g using (garden_id)
       where m.account_id = $1 order by g.name`,
      [accountId],
    )
    return rows
  })
}

/** What a member's link for another was made on; the operator's has none of it. */
export interface LinkGround {
  readonly gardenId: string
  readonly gardenName: string
  readonly madeBy: string
  readonly madeByName: string
  /** Of the member, when it was made. */
  readonly role: string
}

/** Keeps the link, alone of its account, and tells the account of it. */
export async function insertResetLink(
  client: PoolClient,
  link: { tokenHash: Buffer; accountId: string; expiresAt: Date },
  ground: LinkGround | null,
): Promise<void> {
  const { tokenHash, accountId, expiresAt } = link
  await client.query(`delete from reset_link where expires_at < now() or account_id = $1`, [accountId])
  await client.query(
    `insert into reset_link (token_hash, account_id, expires_at, in_garden, made_by, role)
     values ($1, $2, $3, $4, $5, $6)`,
    [tokenHash, accountId, expiresAt, ground?.gardenId, ground?.madeBy, ground?.role],
  )
  const about = { byName: ground?.madeByName ?? '', gardenName: ground?.gardenName ?? '' }
  await insertNotice(client, accountId, 'reset-link-made', about)
}

export async function dropResetLinks(client: Pool | PoolClient, accountId: string): Promise<void> {
  await client.query(`delete from reset_link where account_id = $1`, [accountId])
}

/**
 * Takes the link away and tells whose password it sets: two who use it at once find it once, and one whose ground has
 * gone meanwhile is nobody's.
 */
export async function takeResetLink(client: PoolClient, tokenHash: Buffer): Promise<string | undefined> {
  const { rows } = await client.query<{ id: string | null }>(`select use_reset_link($1) as id`, [tokenHash])
  return rows[0]?.id ?? undefined
}

export async function insertNotice(
  client: PoolClient,
  accountId: string,
  kind: Notice['kind'],
  about: { readonly byName: string; readonly gardenName: string } = { byName: '', gardenName: '' },
): Promise<void> {
  await client.query(
    `insert into account_notice (account_id, notice_id, kind, by_name, garden_name) values ($1, $2, $3, $4, $5)`,
    [accountId, uuidv7(), kind, about.byName, about.gardenName],
  )
}

export async function findNotices(accounts: Pool, accountId: string): Promise<Notice[]> {
  const { rows } = await accounts.query<Notice>(
    `select notice_id as id, kind, by_name as "byName", garden_name as "gardenName", ${instant('at')} as at
     from account_notice where account_id = $1 order by notice_id`,
    [accountId],
  )
  return rows
}

export async function deleteNotice(accounts: Pool, accountId: string, noticeId: string): Promise<void> {
  await accounts.query(`delete from account_notice where account_id = $1 and notice_id = $2`, [
    accountId,
    noticeId,
  ])
}

/** The codes of before are void. */
export async function replaceRecoveryCodes(
  client: PoolClient,
  accountId: string,
  hashes: readonly Buffer[],
): Promise<void> {
  await client.query(`delete from recovery_code where account_id = $1`, [accountId])
  await client.query(
    `insert into recovery_code (account_id, code_hash) select $1, h from unnest($2::bytea[]) as h`,
    [accountId, hashes],
  )
}

export async function countRecoveryCodes(accounts: Pool, accountId: string): Promise<number> {
  const { rows } = await accounts.query<{ count: number }>(
    `select count(*) as count from recovery_code where account_id = $1`,
    [accountId],
  )
  return rows[0]!.count
}

/** Takes a code away and tells whose it was; none where the address and the code do not belong together. */
export async function takeRecoveryCode(
  client: PoolClient,
  email: string,
  codeHash: Buffer,
): Promise<string | undefined> {
  const { rows } = await client.query<{ id: string }>(
    `delete from recovery_code r using account a
     where a.account_id = r.account_id and a.email = $1 and r.code_hash = $2 and not a.is_demo
     returning r.account_id as id`,
    [email, codeHash],
  )
  return rows[0]?.id
}

/** Invitations that wait for an account's own word. */
export async function findInvitations(accounts: Pool, accountId: string): Promise<Invitation[]> {
  const { rows } = await accounts.query<Invitation>(
    `select garden_id as "gardenId", garden_name as "gardenName", role, invited_by as "invitedBy",
       ${instant('expires_at')} as "expiresAt"
     from invitations_for($1)`,
    [accountId],
  )
  return rows
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
  await accounts.query(`delete from guess where last < now() - interval '1 day'`)
}
