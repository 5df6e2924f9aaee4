import {
  MAX_ENTRIES,
  entrySchema,
  frameBodySchema,
  placeBodySchema,
  plantBodySchema,
  storesBodySchema,
} from '@klados/contract'
import type { PoolClient } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { hashPassword } from '../accounts/password.ts'
import { findAccountId, insertAccount } from '../accounts/queries.ts'
import { newToken } from '../accounts/session.ts'
import { withAccountsRole } from '../database/transaction.ts'
import { writeDocument } from '../documents/queries.ts'
import { createGarden, insertMember } from '../gardens/queries.ts'
import { appendEntries } from '../journal/queries.ts'
import { foldGarden } from '../standing/fold-garden.ts'
import type { DemoGarden } from './demo-garden.ts'
import { hasModel } from './queries.ts'
import { DEMO_LATITUDE_DEG } from './seasons.ts'

/** Whom a visitor is taken for. */
export const GROWER = 'Rowan'

/** The crew of the demo, which every copy has beside its owner; their passwords are nobody's. */
const CREW = [
  { name: GROWER, email: 'rowan@tarn-close.invalid' },
  { name: 'Isla', email: 'isla@tarn-close.invalid' },
  { name: 'Tam', email: 'tam@tarn-close.invalid' },
] as const

/**
 * Writes the model that copies of a day are made from, with its work due that day, in the caller's transaction; nothing
 * where another server on this database has done so.
 */
export async function writeModel(client: PoolClient, day: string, demo: DemoGarden): Promise<void> {
  await client.query(`select pg_advisory_xact_lock(hashtext('klados demo model'))`)
  if (await hasModel(client, day)) return
  const passwordHash = await hashPassword(newToken())
  const crew = await withAccountsRole(client, async () => {
    for (const member of CREW)
      await insertAccount(client, { ...member, id: uuidv7(), passwordHash, isDemo: true })
    const ids = []
    for (const { email } of CREW) ids.push(await findAccountId(client, email))
    return ids
  })
  const [rowan, isla, tam] = crew as [string, string, string]
  const gardenId = uuidv7()
  await createGarden(client, {
    id: gardenId,
    name: 'Tarn Close',
    ownerId: rowan,
    demoDay: day,
    latitudeDeg: DEMO_LATITUDE_DEG,
  })
  await insertMember(client, gardenId, isla, 'grower')
  await insertMember(client, gardenId, tam, 'viewer')
  const key = (kind: 'place' | 'frame' | 'plant' | 'stores', id: string) => ({
    gardenId,
    kind,
    id,
    accountId: rowan,
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
    await appendEntries(client, gardenId, isla, batch)
  }
  await foldGarden(client, gardenId)
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
