import { MAX_ENTRIES } from '@klados/contract'
import type { GardenFile, ImportAnswers, ImportCounts, ImportLine, ImportQuestion } from '@klados/contract'
import type { PoolClient } from 'pg'
import { v7 as uuidv7 } from 'uuid'
import { missingIds } from '../database/missing.ts'
import { findDocument, missingDocuments, writeDocument } from '../documents/queries.ts'
import type { DocumentKind } from '../documents/queries.ts'
import { AppError } from '../errors.ts'
import type { SmallImage } from '../files/image.ts'
import { insertFile } from '../files/queries.ts'
import { createGarden, gardensMade } from '../gardens/queries.ts'
import { requireRoom } from '../gardens/room.ts'
import { appendEntries, findHeads } from '../journal/queries.ts'
import type { EntryHead } from '../journal/judge.ts'
import { collectIds, makeNewIds, withNewIds } from './new-ids.ts'
import { readElements, readGarden } from './reader.ts'
import type { Element } from './reader.ts'

/**
 * Into a garden made from the file, under new ids; or back into the garden that the file is of, under its
 * own.
 */
export interface ImportJob {
  readonly mode: 'new' | 'same'
  readonly path: string
  readonly sizeBytes: number
  readonly gardenId: string
  readonly accountId: string
  readonly answers: ImportAnswers
  readonly limitBytes: number
  readonly limitGardens: number
}

/** What taking a file in needs from outside; `keep` puts a photo by until its turn comes to be written. */
export interface ImportTools {
  readonly client: PoolClient
  readonly now: Date
  readonly makeSmall: (sent: Buffer) => Promise<SmallImage>
  readonly keep: {
    readonly put: (id: string, image: SmallImage) => Promise<void>
    readonly take: (id: string) => Promise<SmallImage>
  }
  readonly onShare: (share: number) => void
}

const documentLists = [
  ['places', 'place'],
  ['frames', 'frame'],
  ['plants', 'plant'],
  ['stores', 'stores'],
] as const
type DocumentElement = Element<'places' | 'frames' | 'plants' | 'stores'>

/** How many times the file is gone through. */
const PASSES = 3

/**
 * Takes a file into a garden, in the caller's transaction: all of it, or by any refusal nothing. First the
 * file is gone through for what it is, then checked to its end and its photos made small, and only then
 * written, so that others wait for the garden's row for the time of writing alone.
 */
export async function takeIn(
  job: ImportJob,
  tools: ImportTools,
): Promise<Exclude<ImportLine, { share: number }>> {
  const { client } = tools
  let bytes = 0
  const onBytes = (more: number) => tools.onShare(Math.min(1, (bytes += more) / (PASSES * job.sizeBytes)))
  const garden = await readGarden(job.path, onBytes)
  if (job.mode === 'same' && garden.id !== null && garden.id !== job.gardenId)
    throw new AppError(
      'exchange/other-garden',
      `This file is of another garden, ${garden.name}; make a new garden from it`,
    )
  await client.query(`select set_config('klados.garden', $1, true)`, [job.gardenId])
  if (job.mode === 'same') await requireRoom(client, job.gardenId, job.limitBytes)
  const found = await check(job, tools, onBytes)
  if (found.questions.length > 0) return { questions: found.questions }
  const ids = job.mode === 'new' ? makeNewIds(found.ids) : new Map<string, string>()
  if (job.mode === 'new') await makeGarden(job, client, garden)
  const counts = await write(job, tools, onBytes, ids)
  await requireRoom(client, job.gardenId, job.limitBytes)
  return { done: { gardenId: job.gardenId, counts } }
}

async function makeGarden(job: ImportJob, client: PoolClient, garden: GardenFile['garden']): Promise<void> {
  if ((await gardensMade(client, job.accountId)) >= job.limitGardens)
    throw new AppError('garden/too-many', `One account may make ${job.limitGardens} gardens`)
  const { name, latitudeDeg, currency } = garden
  await createGarden(client, { id: job.gardenId, ownerId: job.accountId, name, latitudeDeg, currency })
}

/** What the elements of a file name, to be found in it or in the garden. */
class References {
  readonly own = { place: new Set<string>(), plant: new Set<string>(), file: new Set<string>() }
  readonly named = { place: new Set<string>(), plant: new Set<string>(), file: new Set<string>() }
  readonly heads = new Map<string, EntryHead>()
  readonly superseding: { readonly id: string; readonly head: EntryHead }[] = []

  document(kind: DocumentKind, { id, body }: DocumentElement): void {
    if (kind === 'place' || kind === 'plant') this.own[kind].add(id)
    if ('placeId' in body) this.named.place.add(body.placeId)
    if ('photo' in body && body.photo) this.named.file.add(body.photo.fileId)
  }

  entry(entry: Element<'entries'>): void {
    const { id, placeId, plantId, supersedes } = entry
    if (entry.kind === 'photo.taken') this.named.file.add(entry.body.fileId)
    const head = { placeId, plantId }
    this.heads.set(id, head)
    this.named.place.add(placeId)
    if (plantId !== null) this.named.plant.add(plantId)
    if (supersedes !== null) this.superseding.push({ id: supersedes, head })
  }

  /** Throws `exchange/missing-reference` for what is neither in the file nor in the garden. */
  async require(client: PoolClient, gardenId: string): Promise<void> {
    const beyond = (kind: 'place' | 'plant' | 'file') =>
      [...this.named[kind]].filter((id) => !this.own[kind].has(id))
    for (const kind of ['place', 'plant'] as const) {
      const [missing] = await missingDocuments(client, gardenId, kind, beyond(kind))
      if (missing) throw missingReference(kind, missing)
    }
    const [photo] = await missingIds(client, 'file', gardenId, beyond('file'))
    if (photo) throw missingReference('photo', photo)
    const earlier = this.superseding.flatMap(({ id }) => (this.heads.has(id) ? [] : [id]))
    const stored = new Map<string, EntryHead>(await findHeads(client, gardenId, earlier))
    for (const { id, head } of this.superseding) {
      const before = this.heads.get(id) ?? stored.get(id)
      if (!before) throw missingReference('entry', id)
      if (before.placeId !== head.placeId || before.plantId !== head.plantId)
        throw new AppError(
          'exchange/damaged',
          `An entry of the file takes the place of ${id}, which is of another plant or place`,
        )
    }
  }
}

function missingReference(what: string, id: string): AppError {
  return new AppError(
    'exchange/missing-reference',
    `The file names ${what} ${id}, which is neither in it nor in this garden`,
  )
}

/** Goes through everything once without writing. */
async function check(job: ImportJob, tools: ImportTools, onBytes: (bytes: number) => void) {
  const { client, now } = tools
  const references = new References()
  const ids = new Set<string>()
  const questions: ImportQuestion[] = []
  const isNew = job.mode === 'new'
  const onDocument = (kind: DocumentKind) => async (element: DocumentElement) => {
    references.document(kind, element)
    if (isNew) collectIds(element, ids)
    else if ((await standing(client, job, kind, element)).what === 'ask')
      questions.push(await questionOf(client, job.gardenId, kind, element))
  }
  await readElements(job.path, now, onBytes, {
    ...(Object.fromEntries(documentLists.map(([list, kind]) => [list, onDocument(kind)])) as object),
    files: async ({ id, contentBase64 }) => {
      references.own.file.add(id)
      if (isNew) ids.add(id)
      else if ((await missingIds(client, 'file', job.gardenId, [id])).length === 0) return
      await tools.keep.put(id, await tools.makeSmall(Buffer.from(contentBase64, 'base64')))
    },
    entries: (entry) => {
      references.entry(entry)
      if (isNew) collectIds(entry, ids)
    },
  })
  await references.require(client, job.gardenId)
  return { ids, questions }
}

type Standing =
  | { readonly what: 'leave' }
  | { readonly what: 'ask' }
  | { readonly what: 'write'; readonly basedOn: number }

/**
 * What is to become of a document of the file: new to the garden or newer than what it has, it is written;
 * the same, it is left alone; older or simply other, it waits for its answer.
 */
async function standing(
  client: PoolClient,
  job: ImportJob,
  kind: DocumentKind,
  element: DocumentElement,
): Promise<Standing> {
  const stored = job.mode === 'same' ? await findDocument(client, job.gardenId, kind, element.id) : undefined
  if (!stored) return { what: 'write', basedOn: 0 }
  if (stored.isRemoved === element.isRemoved && isSame(stored.body, element.body)) return { what: 'leave' }
  const isNewer =
    element.version !== null &&
    element.savedAt !== null &&
    element.version > stored.version &&
    element.savedAt > stored.savedAt
  const answer = isNewer ? 'take' : job.answers[element.id]
  if (answer === undefined) return { what: 'ask' }
  return answer === 'take' ? { what: 'write', basedOn: stored.version } : { what: 'leave' }
}

async function questionOf(
  client: PoolClient,
  gardenId: string,
  kind: DocumentKind,
  element: DocumentElement,
): Promise<ImportQuestion> {
  const { version, savedAt, savedBy, body } = (await findDocument(client, gardenId, kind, element.id))!
  const { name } = body as { name?: string }
  return {
    kind,
    id: element.id,
    name: name ?? '',
    stored: { version, savedAt, savedBy },
    file: { version: element.version, savedAt: element.savedAt },
  }
}

async function write(
  job: ImportJob,
  tools: ImportTools,
  onBytes: (bytes: number) => void,
  ids: ReadonlyMap<string, string>,
): Promise<ImportCounts> {
  const { client, now } = tools
  const { gardenId, accountId } = job
  const counts = { places: 0, frames: 0, plants: 0, stores: 0, files: 0, entries: 0 }
  const onDocument =
    (list: (typeof documentLists)[number][0], kind: DocumentKind) => async (element: DocumentElement) => {
      const what = await standing(client, job, kind, element)
      // Asked in the pass before, and answered; a document that somebody saved since then is a question that
      // nobody saw.
      if (what.what === 'ask')
        throw new AppError('document/version-conflict', `Someone saved this ${kind} meanwhile; try again`)
      if (what.what === 'leave') return
      const { id, isRemoved, body } = withNewIds(element, ids)
      const save = { saveId: uuidv7(), basedOn: what.basedOn, isRemoved, note: '', body }
      if (!(await writeDocument(client, { gardenId, accountId, kind, id }, save)))
        throw new AppError('document/version-conflict', `Someone saved this ${kind} meanwhile; try again`)
      counts[list]++
    }
  let batch: Element<'entries'>[] = []
  const flush = async () => {
    const fresh = new Set(
      await missingIds(
        client,
        'entry',
        gardenId,
        batch.map((entry) => entry.id),
      ),
    )
    const added = batch.filter((entry) => fresh.has(entry.id))
    if (added.length > 0) await appendEntries(client, gardenId, accountId, added)
    counts.entries += added.length
    batch = []
  }
  await readElements(job.path, now, onBytes, {
    ...(Object.fromEntries(documentLists.map(([list, kind]) => [list, onDocument(list, kind)])) as object),
    files: async ({ id }) => {
      if (job.mode === 'same' && (await missingIds(client, 'file', gardenId, [id])).length === 0) return
      const image = await tools.keep.take(id)
      const fileId = ids.get(id) ?? id
      if (await insertFile(client, gardenId, accountId, { id: fileId, mediaType: 'image/jpeg', ...image }))
        counts.files++
    },
    entries: async (entry) => {
      batch.push(withNewIds(entry, ids))
      if (batch.length === MAX_ENTRIES) await flush()
    },
  })
  await flush()
  return counts
}

/** Equal as JSON, whatever the order of keys: the database does not keep it. */
function isSame(a: unknown, b: unknown): boolean {
  const sorted = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(sorted)
      : value && typeof value === 'object'
        ? Object.fromEntries(
            Object.entries(value)
              .sort(([x], [y]) => (x < y ? -1 : 1))
              .map(([key, own]) => [key, sorted(own)]),
          )
        : value
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
}
