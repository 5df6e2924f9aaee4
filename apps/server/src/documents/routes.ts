import {
  BODY_HEADER,
  MAX_PAGE,
  changedQuery,
  changedSchema,
  frameSchema,
  idSchema,
  placeSchema,
  plantSchema,
  saveFrameSchema,
  savePlaceSchema,
  savePlantSchema,
  saveStoresSchema,
  storesSchema,
} from '@klados/contract'
import { UPCASTS, isNewerBody, upcastBody } from '@klados/contract/upcasts'
import type { UpcastArea } from '@klados/contract/upcasts'
import { z } from 'zod'
import { missingIds } from '../database/missing.ts'
import { caller } from '../access.ts'
import type { App, Area, Shared } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { requireRoom } from '../gardens/room.ts'
import type { Pool, PoolClient } from 'pg'
import {
  findCheck,
  findDocument,
  findSave,
  listChanged,
  listDocuments,
  listRevisions,
  missingDocuments,
  writeDocument,
} from './queries.ts'
import type { DocumentKind, Save } from './queries.ts'

const params = z.object({ gardenId: idSchema, id: idSchema })
/** The documents of a kind come whole, or so many after an id. */
const pageQuery = z.object({
  after: idSchema.optional(),
  limit: z.coerce.number().int().min(1).max(MAX_PAGE).optional(),
})

interface DocumentArea {
  readonly kind: DocumentKind
  readonly area: UpcastArea
  readonly stored: z.ZodType
  readonly save: z.ZodType<Save & { body: object }>
}

/** Places, frames, plants and stores are documents with versions and differ in their bodies alone. */
const areas: readonly DocumentArea[] = [
  { kind: 'place', area: 'places', stored: placeSchema, save: savePlaceSchema },
  { kind: 'frame', area: 'frames', stored: frameSchema, save: saveFrameSchema },
  { kind: 'plant', area: 'plants', stored: plantSchema, save: savePlantSchema },
  { kind: 'stores', area: 'stores', stored: storesSchema, save: saveStoresSchema },
]

export const documentRoutes: Area = async (app, shared) => {
  for (const one of areas) documentArea(app, shared, one)
}

function documentArea(
  app: App,
  { pool, limits, announcements }: Shared,
  { kind, area, stored, save }: DocumentArea,
): void {
  const path = `/api/gardens/:gardenId/${area}`
  // What is stored was checked when it was saved: checked once more for each of thousands it keeps everybody waiting.
  const serializerCompiler = () => JSON.stringify
  app.get(
    path,
    {
      config: { access: 'viewer' },
      schema: { querystring: pageQuery, response: { 200: z.array(stored) } },
      serializerCompiler,
    },
    (request) => {
      const { gardenId } = caller(request)
      return inGarden(pool, gardenId, (client) => listDocuments(client, gardenId, kind, request.query))
    },
  )

  app.get(
    `${path}/changed`,
    {
      config: { access: 'viewer' },
      schema: { querystring: changedQuery, response: { 200: changedSchema(stored) } },
      serializerCompiler,
    },
    (request) => {
      const { gardenId } = caller(request)
      const { since, upcasts } = request.query
      return inGarden(pool, gardenId, async (client) => ({
        documents:
          upcasts === UPCASTS
            ? await listChanged(client, gardenId, kind, since)
            : await listDocuments(client, gardenId, kind),
        // After them: what is saved in between makes whoever asked read all, and never miss one.
        check: await findCheck(client, gardenId, kind),
      }))
    },
  )

  app.get(
    `${path}/:id`,
    { config: { access: 'viewer' }, schema: { params, response: { 200: stored } } },
    async (request) => {
      const { gardenId } = caller(request)
      const found = await inGarden(pool, gardenId, (client) =>
        findDocument(client, gardenId, kind, request.params.id),
      )
      if (!found) throw new AppError('document/not-found', `There is no such ${kind}`)
      return found
    },
  )

  app.get(
    `${path}/:id/revisions`,
    { config: { access: 'viewer' }, schema: { params, response: { 200: z.array(stored) } } },
    async (request) => {
      const { gardenId } = caller(request)
      const revisions = await inGarden(pool, gardenId, (client) =>
        listRevisions(client, gardenId, kind, request.params.id),
      )
      if (revisions.length === 0) throw new AppError('document/not-found', `There is no such ${kind}`)
      return revisions
    },
  )

  app.put(
    `${path}/:id`,
    {
      config: { access: 'grower' },
      schema: { params, body: save, response: { 200: stored } },
      preValidation: async (request) => {
        requireKnownBody(area, request.headers[BODY_HEADER])
        // A page that was opened under an earlier release writes as that one did.
        request.body = upcastSave(area, request.body) as typeof request.body
      },
    },
    async (request) => {
      const key = { ...caller(request), kind, id: request.params.id }
      const saved = await saveDocument(pool, key, request.body, limits.bytes)
      announcements.announce(key.gardenId, 'documents')
      return saved
    },
  )
}

/** What a later release wrote is held by whoever wrote it until this server is of that release too. */
function requireKnownBody(area: UpcastArea, header: string | string[] | undefined): void {
  if (header !== undefined && isNewerBody(area, Number(header)))
    throw new AppError(
      'document/newer-version',
      'This was written by a later release than this server; it can be saved when the server is of that release',
    )
}

function upcastSave(area: UpcastArea, save: unknown): unknown {
  if (typeof save !== 'object' || save === null || !('body' in save)) return save
  return { ...save, body: upcastBody(area, save.body) }
}

async function saveDocument(
  pool: Pool,
  key: { gardenId: string; accountId: string; kind: DocumentKind; id: string },
  save: Save & { body: object },
  limitBytes: number,
) {
  return inGarden(pool, key.gardenId, async (client) => {
    // A save that was sent before, its answer lost, is answered with what it made, not with what others made
    // since: the next save of the same hand is based on it.
    const before = await findSave(client, key, save.saveId)
    if (before) return before
    await requireRoom(client, key.gardenId, limitBytes)
    await requireNamed(client, key.gardenId, save.body)
    if (await writeDocument(client, key, save)) return (await findSave(client, key, save.saveId))!
    // The same save may have come in twice at once: then this one waited for the other.
    const meanwhile = await findSave(client, key, save.saveId)
    if (meanwhile) return meanwhile
    const current = await findDocument(client, key.gardenId, key.kind, key.id)
    if (!current) throw new AppError('document/not-found', `There is no such ${key.kind}; save it as new`)
    throw new AppError(
      'document/version-conflict',
      `Someone saved version ${current.version} of this ${key.kind} meanwhile`,
      { current },
    )
  })
}

/** A document may speak only of a place and a photo of its own garden. */
async function requireNamed(client: PoolClient, gardenId: string, body: object): Promise<void> {
  if ('placeId' in body) {
    const missing = await missingDocuments(client, gardenId, 'place', [String(body.placeId)])
    if (missing.length > 0)
      throw new AppError('document/unknown-place', 'The place that this stands at is not in this garden')
  }
  const photo = 'photo' in body ? (body.photo as { fileId: string } | null) : null
  if (photo && (await missingIds(client, 'file', gardenId, [photo.fileId])).length > 0)
    throw new AppError(
      'document/unknown-file',
      'The photo of this place is not in this garden; send it first',
    )
}
