import { frameSchema, idSchema, placeSchema, plantSchema, saveFrameSchema, savePlaceSchema, savePlantSchema, saveStoresSchema, storesSchema } from '@klados/contract' // prettier-ignore
import { z } from 'zod'
import { missingIds } from '../database/missing.ts'
import { caller } from '../access.ts'
import type { App, Area } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import type { Pool } from 'pg'
import {
  findDocument,
  isSaved,
  listDocuments,
  listRevisions,
  missingDocuments,
  writeDocument,
} from './queries.ts'
import type { DocumentKind, Save } from './queries.ts'

const params = z.object({ gardenId: idSchema, id: idSchema })

/** Places, frames, plants and stores are documents with versions and differ in their bodies alone. */
export const documentRoutes: Area = async (app, { pool }) => {
  documentArea(app, pool, 'place', '/api/gardens/:gardenId/places', placeSchema, savePlaceSchema)
  documentArea(app, pool, 'frame', '/api/gardens/:gardenId/frames', frameSchema, saveFrameSchema)
  documentArea(app, pool, 'plant', '/api/gardens/:gardenId/plants', plantSchema, savePlantSchema)
  documentArea(app, pool, 'stores', '/api/gardens/:gardenId/stores', storesSchema, saveStoresSchema)
}

function documentArea(
  app: App,
  pool: Pool,
  kind: DocumentKind,
  path: string,
  stored: z.ZodType,
  save: z.ZodType<Save & { body: object }>,
): void {
  app.get(
    path,
    { config: { access: 'viewer' }, schema: { response: { 200: z.array(stored) } } },
    (request) => {
      const { gardenId } = caller(request)
      return inGarden(pool, gardenId, (client) => listDocuments(client, gardenId, kind))
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
    { config: { access: 'grower' }, schema: { params, body: save, response: { 200: stored } } },
    (request) => {
      const key = { ...caller(request), kind, id: request.params.id }
      return saveDocument(pool, key, request.body)
    },
  )
}

async function saveDocument(
  pool: Pool,
  key: { gardenId: string; accountId: string; kind: DocumentKind; id: string },
  save: Save & { body: object },
) {
  return inGarden(pool, key.gardenId, async (client) => {
    const { gardenId, kind, id } = key
    if (!(await isSaved(client, gardenId, save.saveId))) {
      if ('placeId' in save.body) {
        const missing = await missingDocuments(client, gardenId, 'place', [String(save.body.placeId)])
        if (missing.length > 0) throw new AppError('document/unknown-place', 'The place that this stands at is not in this garden') // prettier-ignore
      }
      const photo = 'photo' in save.body ? (save.body.photo as { fileId: string } | null) : null
      if (photo && (await missingIds(client, 'file', gardenId, [photo.fileId])).length > 0)
        throw new AppError(
          'document/unknown-file',
          'The photo of this place is not in this garden; send it first',
        )
      if (!(await writeDocument(client, key, save))) {
        const current = await findDocument(client, gardenId, kind, id)
        if (!current) throw new AppError('document/not-found', `There is no such ${kind}; save it as new`)
        throw new AppError('document/version-conflict', `Someone saved version ${current.version} of this ${kind} meanwhile`, current) // prettier-ignore
      }
    }
    const saved = await findDocument(client, gardenId, kind, id)
    // The save id of another document: neither stored again nor answered as if it were.
    if (!saved)
      throw new AppError('document/not-found', `This save belongs to another document than this ${kind}`)
    return saved
  })
}
