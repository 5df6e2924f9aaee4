import { MAX_PHOTO_BYTES, fileReplySchema, idSchema } from '@klados/contract'
import { z } from 'zod'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { requireRoom } from '../gardens/room.ts'
import { createSlots } from '../slots.ts'
import { createPress } from './press.ts'
import { deleteFile, findFile, findFileHead, insertFile } from './queries.ts'

const params = z.object({ gardenId: idSchema, fileId: idSchema })
/** Read whole before they are looked at: so many photos may be in memory at once. */
const AT_ONCE = 6
const AT_ONCE_OF_ONE = 2

/**
 * Photos of places and of the journal. A photo is written once under an id of the sender's making; sent again it changes
 * nothing.
 */
export const fileRoutes: Area = async (app, { pool, limits, throttle }) => {
  const press = createPress()
  const slots = createSlots(AT_ONCE, AT_ONCE_OF_ONE)
  app.addHook('onClose', async () => press.close())
  await app.register(async (files) => {
    // By their bytes pictures are told apart, not by what the sender calls them: any kind comes as far as
    // that.
    files.removeAllContentTypeParsers()
    files.addContentTypeParser('*', { parseAs: 'buffer', bodyLimit: MAX_PHOTO_BYTES }, (_, body, done) =>
      done(null, body),
    )
    files.put(
      '/api/gardens/:gardenId/files/:fileId',
      {
        config: { access: 'grower' },
        bodyLimit: MAX_PHOTO_BYTES,
        onRequest: async (request, reply) => {
          slots.hold(reply, caller(request).accountId)
          await throttle.take('photos of', caller(request).accountId, limits.photos)
        },
        schema: { params, response: { 200: fileReplySchema } },
      },
      async (request) => {
        const { gardenId, accountId } = caller(request)
        const { fileId } = request.params as z.infer<typeof params>
        const sent = request.body
        if (!Buffer.isBuffer(sent)) throw new AppError('file/not-an-image', 'Send the picture itself')
        const stored = await inGarden(pool, gardenId, async (client) => {
          const head = await findFileHead(client, gardenId, fileId)
          if (!head) await requireRoom(client, gardenId, limits.bytes)
          return head
        })
        if (stored) return stored
        const image = await press.makeSmall(sent)
        return inGarden(pool, gardenId, async (client) => {
          await insertFile(client, gardenId, accountId, { id: fileId, mediaType: 'image/jpeg', ...image })
          return (await findFileHead(client, gardenId, fileId))!
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

  app.delete(
    '/api/gardens/:gardenId/files/:fileId',
    { config: { access: 'grower' }, schema: { params } },
    async (request, reply) => {
      const { gardenId } = caller(request)
      const outcome = await inGarden(pool, gardenId, (client) =>
        deleteFile(client, gardenId, request.params.fileId),
      )
      if (outcome === 'in-use')
        throw new AppError('file/in-use', 'A place or the journal shows this photo; take it off there first')
      if (outcome === 'not-there')
        throw new AppError('file/not-found', 'There is no such photo in this garden')
      return reply.status(204).send()
    },
  )
}
