import { MAX_ENTRIES } from '@klados/contract'
import type { GardenFile, ImportReply } from '@klados/contract'
import type { PoolClient } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { missingIds } from '../database/missing.ts'
import { findDocument, missingDocuments, writeDocument } from '../documents/queries.ts'
import type { DocumentKind } from '../documents/queries.ts'
import { AppError } from '../errors.ts'
import { makeSmall } from '../files/image.ts'
import { insertFile } from '../files/queries.ts'
import { appendEntries } from '../journal/queries.ts'

interface Into {
  readonly gardenId: string
  readonly accountId: string
}

/**
 * Takes a file into a garden: what is not there is added, what is there and differs becomes a further revision, what is
 * the same is left alone, so that taking a file in twice changes nothing the second time. Counts what changed. All or
 * nothing: the caller's transaction is rolled back by any refusal.
 */
export async function takeIn(client: PoolClient, into: Into, file: GardenFile): Promise<ImportReply> {
  await requireReferences(client, into.gardenId, file)
  let files = 0
  for (const { id, contentBase64 } of file.files) {
    const image = await makeSmall(Buffer.from(contentBase64, 'base64'))
    if (await insertFile(client, into.gardenId, into.accountId, { id, ...image })) files++
  }
  return {
    files,
    places: await takeDocuments(client, into, 'place', file.places),
    frames: await takeDocuments(client, into, 'frame', file.frames),
    plants: await takeDocuments(client, into, 'plant', file.plants),
    stores: await takeDocuments(client, into, 'stores', file.stores),
    entries: await takeEntries(client, into, file.entries),
  }
}

async function takeDocuments(
  client: PoolClient,
  into: Into,
  kind: DocumentKind,
  documents: readonly { readonly id: string; readonly isRemoved: boolean; readonly body: unknown }[],
): Promise<number> {
  let changed = 0
  for (const { id, isRemoved, body } of documents) {
    const stored = await findDocument(client, into.gardenId, kind, id)
    if (stored && stored.isRemoved === isRemoved && isSame(stored.body, body)) continue
    const save = { saveId: uuidv7(), basedOn: stored?.version ?? 0, isRemoved, note: '', body }
    if (!(await writeDocument(client, { ...into, kind, id }, save)))
      throw new AppError('document/version-conflict', `Someone saved this ${kind} meanwhile; try again`)
    changed++
  }
  return changed
}

async function takeEntries(
  client: PoolClient,
  { gardenId, accountId }: Into,
  entries: GardenFile['entries'],
): Promise<number> {
  const fresh = new Set(await missingIds(client, 'entry', gardenId, entries.map((entry) => entry.id))) // prettier-ignore
  const added = entries.filter((entry) => fresh.has(entry.id))
  for (let i = 0; i < added.length; i += MAX_ENTRIES)
    await appendEntries(client, gardenId, accountId, added.slice(i, i + MAX_ENTRIES))
  return added.length
}

/** Whatever the file names must be in the file or in the garden already. */
async function requireReferences(client: PoolClient, gardenId: string, file: GardenFile): Promise<void> {
  const refuse = (what: string, id: string, where: string): never => {
    throw new AppError('exchange/missing-reference', `${where} names ${what} ${id}, which is neither in the file nor in this garden`) // prettier-ignore
  }
  const known = {
    place: new Set(file.places.map((one) => one.id)),
    plant: new Set(file.plants.map((one) => one.id)),
    file: new Set(file.files.map((one) => one.id)),
    entry: new Set(file.entries.map((one) => one.id)),
  }
  const beyond = (ids: Iterable<string | null>, own: ReadonlySet<string>) => [...new Set([...ids].flatMap((id) => (id !== null && !own.has(id) ? [id] : [])))] // prettier-ignore
  const places = beyond([...file.frames, ...file.plants].map((one) => one.body.placeId).concat(file.entries.map((one) => one.placeId)), known.place) // prettier-ignore
  const [place] = await missingDocuments(client, gardenId, 'place', places)
  if (place) refuse('place', place, 'A frame, plant or entry')
  const [plant] = await missingDocuments(client, gardenId, 'plant', beyond(file.entries.map((one) => one.plantId), known.plant)) // prettier-ignore
  if (plant) refuse('plant', plant, 'An entry')
  const [photo] = await missingIds(client, 'file', gardenId, beyond(file.places.map((one) => one.body.photo?.fileId ?? null), known.file)) // prettier-ignore
  if (photo) refuse('photo', photo, 'A place')
  const [entry] = await missingIds(client, 'entry', gardenId, beyond(file.entries.map((one) => one.supersedes), known.entry)) // prettier-ignore
  if (entry) refuse('entry', entry, 'An entry')
}

/** Equal as JSON, whatever the order of keys: the database does not keep it. */
function isSame(a: unknown, b: unknown): boolean {
  const sorted = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(sorted)
      : value && typeof value === 'object'
        ? Object.fromEntries(Object.entries(value).sort(([x], [y]) => (x < y ? -1 : 1)).map(([key, own]) => [key, sorted(own)])) // prettier-ignore
        : value
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
}
