import {
  MAX_ENTRIES,
  entrySchema,
  frameBodySchema,
  placeBodySchema,
  plantBodySchema,
  storesBodySchema,
} from '@klados/contract'
import pg from 'pg'
import type { Pool, PoolClient } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { hashPassword } from '../accounts/password.ts'
import { insertAccount } from '../accounts/queries.ts'
import { newToken } from '../accounts/session.ts'
import { inTransaction, withAccountsRole } from '../database/transaction.ts'
import { writeDocument } from '../documents/queries.ts'
import { createGarden, insertMember } from '../gardens/queries.ts'
import { appendEntries } from '../journal/queries.ts'
import { DEMO_GROWER_EMAIL } from './queries.ts'
import { DEMO_LATITUDE_DEG, makeTarnClose } from './tarn-close.ts'
import type { DemoGarden } from './demo-garden.ts'

/**
 * Makes the demo garden in a database without accounts. A demo that nobody has written in is made anew on a
 * later day, so that its work is due today; one that somebody used is left as it is.
 */
export async function seedDemo(ownerUrl: string, pool: Pool, now: Date): Promise<'seeded' | 'kept'> {
  const today = localDate(now)
  if (!(await clearUnusedDemo(ownerUrl, today))) return 'kept'
  const garden = makeTarnClose(today)
  const passwordHash = await hashPassword(newToken())
  await inTransaction(pool, (client) => writeDemo(client, garden, passwordHash))
  return 'seeded'
}

async function writeDemo(client: PoolClient, demo: DemoGarden, passwordHash: string): Promise<void> {
  const crew = [
    { id: uuidv7(), email: DEMO_GROWER_EMAIL, name: 'Rowan', passwordHash },
    { id: uuidv7(), email: 'isla@tarn-close.invalid', name: 'Isla', passwordHash },
    { id: uuidv7(), email: 'tam@tarn-close.invalid', name: 'Tam', passwordHash },
  ]
  await withAccountsRole(client, async () => {
    for (const member of crew) await insertAccount(client, { ...member, isDemo: true })
  })
  const [rowan, isla, tam] = crew as [(typeof crew)[0], (typeof crew)[0], (typeof crew)[0]]
  const gardenId = uuidv7()
  await createGarden(client, {
    id: gardenId,
    name: 'Tarn Close',
    ownerId: rowan.id,
    isDemo: true,
    latitudeDeg: DEMO_LATITUDE_DEG,
  })
  await insertMember(client, gardenId, isla.id, 'grower')
  await insertMember(client, gardenId, tam.id, 'viewer')
  const key = (kind: 'place' | 'frame' | 'plant' | 'stores', id: string) => ({
    gardenId,
    kind,
    id,
    accountId: rowan.id,
  })
  const save = (basedOn: number, body: unknown, note = '') => ({
    saveId: uuidv7(),
    basedOn,
    isRemoved: false,
    note,
    body,
  })
  for (const { id, body } of demo.places)
    await writeDocument(client, key('place', id), save(0, placeBodySchema.parse(body)))
  for (const { id, body, notes } of demo.frames) {
    for (const [n, note] of notes.entries()) {
      await writeDocument(
        client,
        key('frame', id),
        save(n, frameBodySchema.parse(earlier(body, notes.length - 1 - n)), note),
      )
    }
  }
  for (const { id, body } of demo.plants)
    await writeDocument(client, key('plant', id), save(0, plantBodySchema.parse(body)))
  const stores = storesBodySchema.parse({ catalogue: null, onHand: demo.onHand })
  await writeDocument(client, key('stores', uuidv7()), save(0, stores))
  for (let i = 0; i < demo.entries.length; i += MAX_ENTRIES) {
    const batch = demo.entries.slice(i, i + MAX_ENTRIES).map((entry) => entrySchema.parse(entry))
    await appendEntries(client, gardenId, isla.id, batch)
  }
}

/** An earlier revision of a tier frame had fewer tiers. */
function earlier(
  body: DemoGarden['frames'][number]['body'],
  back: number,
): DemoGarden['frames'][number]['body'] {
  const { pattern } = body.design
  if (pattern.kind !== 'tiers' || back === 0) return body
  return {
    ...body,
    design: { ...body.design, pattern: { ...pattern, levels: pattern.levels.slice(0, -back) } },
  }
}

/** True when the database is free for a fresh demo. Deleting is the owner's: the app's role cannot. */
async function clearUnusedDemo(ownerUrl: string, today: string): Promise<boolean> {
  const owner = new pg.Client({ connectionString: ownerUrl })
  owner.on('error', () => undefined)
  await owner.connect()
  try {
    const accounts = await owner.query(`select from account limit 1`)
    if (accounts.rowCount === 0) return true
    const { rows } = await owner.query<{ id: string }>(
      `select g.garden_id as id from garden g
       where g.is_demo and to_char(g.created_at, 'YYYY-MM-DD') < $1
         and not exists (select from entry e where e.garden_id = g.garden_id and e.received_at > g.created_at)
         and not exists (select from document d where d.garden_id = g.garden_id and d.saved_at > g.created_at)`,
      [today],
    )
    if (rows.length === 0) return false
    await owner.query(`delete from garden where garden_id = $1`, [rows[0]!.id])
    await owner.query(`delete from account where email like '%@tarn-close.invalid'`)
    return true
  } finally {
    await owner.end()
  }
}

function localDate(now: Date): string {
  const pad = (n: number) => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}`
}
