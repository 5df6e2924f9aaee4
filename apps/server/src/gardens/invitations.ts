import type { Garden, Invitation, InvitationLink, Role } from '@klados/contract'
import type { PoolClient } from 'pg'
import { hashToken, newToken } from '../accounts/session.ts'
import { insertMember } from './queries.ts'

const DAYS = 14

/**
 * Invites whoever an address belongs to, whether anybody does, and answers the link that lets them in. Invited again, what
 * came before is void.
 */
export async function invite(
  client: PoolClient,
  gardenId: string,
  invitation: { readonly email: string; readonly role: Role; readonly invitedBy: string },
): Promise<InvitationLink> {
  const { email, role, invitedBy } = invitation
  const token = newToken()
  const { rows } = await client.query<{ expiresAt: string }>(
    `insert into invitation (garden_id, email, role, invited_by, token_hash, expires_at)
     values ($1, $2, $3, $4, $5, now() + make_interval(days => ${DAYS}))
     on conflict (garden_id, email) do update set role = excluded.role, invited_by = excluded.invited_by,
       token_hash = excluded.token_hash, invited_at = now(), expires_at = excluded.expires_at
     returning ${expiry}`,
    [gardenId, email, role, invitedBy, hashToken(token)],
  )
  // Behind the hash, so that no server or proxy on the way writes it into a log.
  return { path: `/join#${gardenId}.${token}`, ...rows[0]! }
}

const expiry = `to_char(expires_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "expiresAt"`

export async function listInvitations(
  client: PoolClient,
  gardenId: string,
): Promise<NonNullable<Garden['invitations']>> {
  const { rows } = await client.query<NonNullable<Garden['invitations']>[number]>(
    `select email, role, ${expiry} from invitation where garden_id = $1 and expires_at > now() order by email`,
    [gardenId],
  )
  return rows
}

/** What the link with this token opens, for whoever holds it. */
export async function findInvitation(
  client: PoolClient,
  gardenId: string,
  token: string,
): Promise<Invitation | undefined> {
  const { rows } = await client.query<Invitation>(
    `select i.garden_id as "gardenId", g.name as "gardenName", i.role, coalesce(p.name, '') as "invitedBy", ${expiry}
     from invitation i join garden g using (garden_id) left join person p on p.account_id = i.invited_by
     where i.garden_id = $1 and i.token_hash = $2 and i.expires_at > now()`,
    [gardenId, hashToken(token)],
  )
  return rows[0]
}

/** Makes the account a member by the link's token, or by its own address; false where nothing waits. */
export async function acceptInvitation(
  client: PoolClient,
  gardenId: string,
  accountId: string,
  by: { readonly token: string } | { readonly email: string },
): Promise<boolean> {
  const { rows } = await client.query<{ role: Role }>(
    `delete from invitation where garden_id = $1 and expires_at > now()
       and ${'token' in by ? 'token_hash' : 'email'} = $2
     returning role`,
    [gardenId, 'token' in by ? hashToken(by.token) : by.email],
  )
  if (!rows[0]) return false
  // Who is a member already keeps the role that they have.
  await insertMember(client, gardenId, accountId, rows[0].role)
  return true
}

export async function dropInvitation(client: PoolClient, gardenId: string, email: string): Promise<boolean> {
  const { rowCount } = await client.query(`delete from invitation where garden_id = $1 and email = $2`, [
    gardenId,
    email,
  ])
  return rowCount === 1
}
