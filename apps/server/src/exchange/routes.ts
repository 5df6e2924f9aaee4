import {
  EXCHANGE_VERSION,
  exchangeJsonSchema,
  fileHeaderSchema,
  gardenFileSchema,
  importReplySchema,
} from '@klados/contract'
import type { GardenFile } from '@klados/contract'
import { z } from 'zod'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { takeIn } from './take-in.ts'
import { writeOut } from './write-out.ts'

/** A garden of many seasons with its photos. */
const MAX_FILE_BYTES = 256 * 1024 * 1024

/** The whole garden out as a file and in again, and the schema of such files. */
export const exchangeRoutes: Area = async (app, { pool }) => {
  app.get('/api/schema/klados.json', { config: { access: 'public' } }, () => exchangeJsonSchema())

  app.get('/api/gardens/:gardenId/export', { config: { access: 'viewer' } }, async (request, reply) => {
    const { gardenId } = caller(request)
    const file = await inGarden(pool, gardenId, (client) => writeOut(client, gardenId))
    return reply.header('content-disposition', 'attachment; filename="garden.json"').send(file)
  })

  app.post(
    '/api/gardens/:gardenId/import',
    {
      config: { access: 'owner' },
      bodyLimit: MAX_FILE_BYTES,
      schema: { body: z.unknown(), response: { 200: importReplySchema } },
    },
    async (request) => {
      const { gardenId, accountId } = caller(request)
      const file = readFile(request.body)
      return inGarden(pool, gardenId, (client) => takeIn(client, { gardenId, accountId }, file))
    },
  )
}

/** The file, or a refusal that says what it is instead and where it is wrong. */
function readFile(body: unknown): GardenFile {
  const header = fileHeaderSchema.safeParse(body)
  if (!header.success || header.data.format !== 'klados-garden')
    throw new AppError('exchange/unknown-version', 'This is not a garden file of Klados')
  if (header.data.version !== EXCHANGE_VERSION) {
    throw new AppError('exchange/unknown-version', `This file is of version ${header.data.version}; this release reads version ${EXCHANGE_VERSION}`) // prettier-ignore
  }
  const file = gardenFileSchema.safeParse(body)
  if (file.success) return file.data
  const [issue] = file.error.issues
  throw new AppError('request/malformed', `The file is damaged at ${issue!.path.join('.')}: ${issue!.message}`) // prettier-ignore
}
