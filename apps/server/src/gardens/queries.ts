import type { Garden, GardenSettings, Role } from '@klados/contract'
import type { Pool, PoolClient } from 'pg'
import { inGarden } from '../database/transaction.ts'

/** Makes a garden and its first owner; runs in the transaction of whoever asks. */
export async function createGarden(
  client: PoolClient,
  garden: {
    id: string
    name: string
    ownerId: string
    /** Of the model of this day, from which visitors get their copies. */
    demoDay?: string
    latitudeDeg?: number
    currency?: string
    timeZone?: string
  },
): Promise<void> {
  await client.query(`select set_config('klados.garden', $1, true)`, [garden.id])
  await client.query(
    `insert into garden (garden_id, name, is_demo, demo_day, latitude_deg, currency, made_by, time_zone)
     values ($1, $2, $3::text is not null, $3, $4, $5, $6, $7)`,
    [
      garden.id,
      garden.name,
      garden.demoDay ?? null,
      garden.latitudeDeg ?? 52,
      garden.currency ?? 'EUR',
      garden.ownerId,
      garden.timeZone ?? null,
    ],
  )
  await insertMember(client, garden.id, garden.ownerId, 'owner')
}

export function findRole(pool: Pool, gardenId: string, accountId: string): Promise<Role | null> {
  return inGarden(pool, gardenId, async (client) => {
    const { rows } = await client.query<{ role: Role }>({
      name: 'find-role',
      text: `select role from membership where garden_id = $1 and account_id = $2`,
      values: [gardenId, accountId],
    })
    return rows[0]?.role ?? null
  })
}

/** Whether a garden has this id, whoever's it is. */
export function isGarden(pool: Pool, gardenId: string): Promise<boolean> {
  return inGarden(pool, gardenId, async (client) => {
    const { rowCount } = await client.query(`select from garden where garden_id = $1`, [gardenId])
    return rowCount! > 0
  })
}

export async function findGarden(
  client: PoolClient,
  gardenId: string,
): Promise<GardenSettings & Pick<Garden, 'id' | 'members'>> {
  const { rows } = await client.query<GardenSettings & { id: string }>(
    `select garden_id as id, name, latitude_deg as "latitudeDeg", currency, time_zone as "timeZone" from garden where garden_id = $1`,
    [gardenId],
  )
  const members = await client.query<Garden['members'][number]>(
    `select account_id as "accountId", name, email, role
     from member_contact where garden_id = $1 order by name, account_id`,
    [gardenId],
  )
  return { ...rows[0]!, members: members.rows }
}

/** Whether it is a copy of the demo garden, which stays one person's. */
export async function isDemoGarden(client: PoolClient, gardenId: string): Promise<boolean> {
  const { rows } = await client.query<{ demo: boolean }>(
    `select is_demo as demo from garden where garden_id = $1`,
    [gardenId],
  )
  return rows[0]?.demo ?? false
}

export async function updateGarden(
  client: PoolClient,
  gardenId: string,
  settings: GardenSettings,
): Promise<void> {
  const { name, latitudeDeg, currency, timeZone } = settings
  await client.query(
    `update garden set name = $2, latitude_deg = $3, currency = $4,
       time_zone = case when $5 then $6 else time_zone end
     where garden_id = $1`,
    [gardenId, name, latitudeDeg, currency, timeZone !== undefined, timeZone ?? null],
  )
}

export async function insertMember(
  client: PoolClient,
  gardenId: string,
  accountId: string,
  role: Role,
): Promise<boolean> {
  const { rowCount } = await client.query(
    `insert into membership (garden_id, account_id, role) values ($1, $2, $3) on conflict do nothing`,
    [gardenId, accountId, role],
  )
  return rowCount === 1
}

/**
 * Changes a role; `null` takes the member out. The owners' rows are locked, so that two cannot demote each
 * other.
 */
export async function setMember(
  client: PoolClient,
  gardenId: string,
  accountId: string,
  role: Role | null,
): Promise<'done' | 'no-such-member' | 'last-owner'> {
  const { rows } = await client.query<{ accountId: string; role: Role }>(
    `select account_id as "accountId", role from membership where garden_id = $1 order by account_id for update`,
    [gardenId],
  )
  if (!rows.some((member) => member.accountId === accountId)) return 'no-such-member'
  const otherOwners = rows.filter((member) => member.role === 'owner' && member.accountId !== accountId)
  if (role !== 'owner' && otherOwners.length === 0) return 'last-owner'
  if (role === null) {
    await client.query(`delete from membership where garden_id = $1 and account_id = $2`, [
      gardenId,
      accountId,
    ])
  } else {
    await client.query(
      `update membership set role = $3, since = now() where garden_id = $1 and account_id = $2 and role <> $3`,
      [gardenId, accountId, role],
    )
  }
  return 'done'
}

/** How many gardens the account has made that are still there. */
export async function gardensMade(client: PoolClient, accountId: string): Promise<number> {
  const { rows } = await client.query<{ made: number }>(`select gardens_made($1) as made`, [accountId])
  return rows[0]!.made
}

/** What all the gardens weigh that were made by the account whose allowance this one is taken from. */
export async function bytesBeside(client: PoolClient, gardenId: string): Promise<number> {
  const { rows } = await client.query<{ bytes: number }>({
    name: 'bytes-beside',
    text: `select bytes_beside($1) as bytes`,
    values: [gardenId],
  })
  return rows[0]!.bytes
}

/** False where the account is no owner, or the garden is the demo's model. */
export async function deleteGarden(
  client: PoolClient,
  gardenId: string,
  accountId: string,
): Promise<boolean> {
  const { rows } = await client.query<{ deleted: boolean }>(`select delete_garden($1, $2) as deleted`, [
    gardenId,
    accountId,
  ])
  return rows[0]!.deleted
}

/** Whether a link that the owner makes for the member opens nothing but what the member does in this garden. */
export async function mayReset(
  client: PoolClient,
  gardenId: string,
  ownerId: string,
  memberId: string,
): Promise<boolean> {
  const { rows } = await client.query<{ may: boolean }>(`select may_reset($1, $2, $3) as may`, [
    gardenId,
    ownerId,
    memberId,
  ])
  return rows[0]!.may
}
