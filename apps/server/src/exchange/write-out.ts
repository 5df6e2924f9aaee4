import { EXCHANGE_VERSION, MAX_PAGE } from '@klados/contract'
import type { StoredEntry } from '@klados/contract'
import type { PoolClient } from 'pg'
import { listDocuments } from '../documents/queries.ts'
import { listFiles } from '../files/queries.ts'
import { findGarden } from '../gardens/queries.ts'
import { readEntries } from '../journal/queries.ts'

/** Everything that a garden is, as it stands: documents at their last version, the journal whole, the photos. */
export async function writeOut(client: PoolClient, gardenId: string): Promise<object> {
  const garden = (await findGarden(client, gardenId))!
  const documents = async (kind: Parameters<typeof listDocuments>[2]) =>
    (await listDocuments(client, gardenId, kind)).map(({ id, isRemoved, body }) => ({ id, isRemoved, body }))
  return {
    format: 'klados-garden',
    version: EXCHANGE_VERSION,
    garden: { name: garden.name, latitudeDeg: garden.latitudeDeg, currency: garden.currency },
    places: await documents('place'),
    frames: await documents('frame'),
    plants: await documents('plant'),
    stores: await documents('stores'),
    files: (await listFiles(client, gardenId)).map(({ id, mediaType, content }) => ({
      id,
      mediaType,
      contentBase64: content.toString('base64'),
    })),
    entries: await allEntries(client, gardenId),
  }
}

async function allEntries(client: PoolClient, gardenId: string): Promise<object[]> {
  const all: object[] = []
  for (let after = 0; ;) {
    const page: StoredEntry[] = await readEntries(client, gardenId, after, MAX_PAGE)
    if (page.length === 0) return all
    for (const { seq, by, ...entry } of page) {
      after = seq
      void by
      all.push(entry)
    }
  }
}
