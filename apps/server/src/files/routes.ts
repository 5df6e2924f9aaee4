import { MAX_PHOTO_BYTES, fileReplySchema, idSchema } from '@klados/contract'
import { z } from 'zod'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { makeSmall } from './image.ts'
import { findFile, insertFile } from './queries.ts'

const params = z.object({ gardenId: idSchema, fileId: idSchema })
const PICTURES = ['image/jpeg', 'image/png', 'image/webp']

/** Photos of places. A photo is written once under an id of the sender's making; sent again it changes nothing. */
export const fileRoutes: Area = async (app, { pool }) => {
  await app.register(async (files) => {
    files.addContentTypeParser(PICTURES, { parseAs: 'buffer', bodyLimit: MAX_PHOTO_BYTES }, (_, body, done) =>
      done(null, body),
    )
    files.put(
      '/api/gardens/:gardenId/files/:fileId',
      {
        config: { access: 'grower' },
        bodyLimit: MAX_PHOTO_BYTES,
        schema: { params, response: { 200: fileReplySchema } },
      },
      async (request) => {
        const { gardenId, accountId } = caller(request)
        const { fileId } = request.params as z.infer<typeof params>
        if (!Buffer.isBuffer(request.body))
          throw new AppError('file/not-an-image', 'Send the picture itself, with its media type')
        const image = await makeSmall(request.body)
        return inGarden(pool, gardenId, async (client) => {
          await insertFile(client, gardenId, accountId, { id: fileId, ...image })
          const stored = (await findFile(client, gardenId, fileId))!
          return { id: stored.id, widthPx: stored.widthPx, heightPx: stored.heightPx }
        })
      },
    )
  })

  app.get(
    '/api/gardens/:gardenId/files/:fileId',
    { config: { access: 'viewer' }, schema: { params } },
    async (request, reply) => {
      const { gardenId } = caller(request)
      const file = await inGarden(pool, gardenId, (client) =>
        findFile(client, gardenId, request.params.fileId),
      )
      if (!file) throw new AppError('file/not-found', 'There is no such photo in this garden')
      // What lies under an id never changes; only members of the garden may keep it.
      return reply
        .type(file.mediaType)
        .header('cache-control', 'private, max-age=31536000, immutable')
        .send(file.content)
    },
  )
}
