import type { Readable } from 'node:stream'
import {
  MAX_PHOTO_BYTES,
  MAX_PIECE_BYTES,
  errorStatus,
  fileReplySchema,
  idSchema,
  pieceReplySchema,
} from '@klados/contract'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { z } from 'zod'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { requireRoom } from '../gardens/room.ts'
import { createSlots } from '../slots.ts'
import { takeBody } from './body-on-disk.ts'
import type { BodyOnDisk } from './body-on-disk.ts'
import { addPiece, dropPieces, putTogether, sentSoFar } from './pieces.ts'
import { createPress } from './press.ts'
import { deleteFile, findFile, findFileHead, insertFile } from './queries.ts'

const params = z.object({ gardenId: idSchema, fileId: idSchema })
const pieceQuery = z.object({
  from: z.coerce.number().int().min(0),
  of: z.coerce.number().int().min(1).max(MAX_PHOTO_BYTES),
})
/** Whole in memory while they are looked at and encoded, one after the other. */
const ENCODING = { inAll: 6, ofOne: 2, waitMs: 30_000 }
/** Coming in, which a slow line may take long for. */
const COMING = { inAll: 200, ofOne: 6, waitMs: 10_000 }
/** In memory until they have been read. */
const GOING_OUT = { inAll: 40, ofOne: 12, waitMs: 15_000 }

/**
 * Photos of places and of the journal. A photo is written once under an id of the sender's making; sent again it changes
 * nothing. It comes whole, or in pieces that follow on one another and are gone on with where they stopped.
 */
export const fileRoutes: Area = async (app, { pool, limits, throttle, held }) => {
  const press = createPress()
  const [encoding, coming, goingOut] = [createSlots(ENCODING), createSlots(COMING), createSlots(GOING_OUT)]
  held.watch('photos in', () => encoding.held() + coming.held())
  held.watch('photos out', goingOut.held)
  app.addHook('onClose', async () => press.close())

  /** What is stored under the id already; throws where there is no room for more. */
  const findStored = (gardenId: string, fileId: string) =>
    inGarden(pool, gardenId, async (client) => {
      const head = await findFileHead(client, gardenId, fileId)
      if (!head) await requireRoom(client, gardenId, limits.bytes)
      return head
    })
  const store = async (
    request: FastifyRequest,
    reply: FastifyReply,
    fileId: string,
    read: () => Promise<Buffer>,
  ) => {
    const { gardenId, accountId } = caller(request)
    return encoding.run(reply, accountId, async () => {
      const image = await press.makeSmall(await read())
      return inGarden(pool, gardenId, async (client) => {
        await insertFile(client, gardenId, accountId, { id: fileId, mediaType: 'image/jpeg', ...image })
        await dropPieces(client, gardenId, fileId)
        return (await findFileHead(client, gardenId, fileId))!
      })
    })
  }

  await app.register(async (files) => {
    // By their bytes pictures are told apart, not by what the sender calls them: any kind comes as far as
    // that.
    files.removeAllContentTypeParsers()
    files.addContentTypeParser('*', (request, payload: Readable, done) => {
      takeBody(payload, request.routeOptions.bodyLimit ?? MAX_PHOTO_BYTES).then(
        (body) => done(null, body),
        done,
      )
    })
    const slowed = async (request: FastifyRequest, reply: FastifyReply) => {
      await coming.take(reply, caller(request).accountId)
    }
    files.addHook('onResponse', async ({ body }) => (body as BodyOnDisk | undefined)?.remove())
    files.addHook('onRequestAbort', async ({ body }) => (body as BodyOnDisk | undefined)?.remove())
    files.put(
      '/api/gardens/:gardenId/files/:fileId',
      {
        config: { access: 'grower' },
        bodyLimit: MAX_PHOTO_BYTES,
        onRequest: slowed,
        schema: { params, response: { 200: fileReplySchema } },
      },
      async (request, reply) => {
        const { gardenId, accountId } = caller(request)
        const { fileId } = request.params as z.infer<typeof params>
        await throttle.take('photos of', accountId, limits.photos)
        const sent = request.body as BodyOnDisk | undefined
        if (!sent) throw new AppError('file/not-an-image', 'Send the picture itself')
        return (await findStored(gardenId, fileId)) ?? (await store(request, reply, fileId, sent.read))
      },
    )

    files.put(
      '/api/gardens/:gardenId/files/:fileId/pieces',
      {
        config: { access: 'grower' },
        bodyLimit: MAX_PIECE_BYTES,
        onRequest: slowed,
        schema: { params, querystring: pieceQuery, response: { 200: pieceReplySchema } },
      },
      async (request, reply) => {
        const { gardenId, accountId } = caller(request)
        const { fileId } = request.params as z.infer<typeof params>
        const { from, of } = request.query as z.infer<typeof pieceQuery>
        const stored = await findStored(gardenId, fileId)
        if (stored) return { upTo: of, file: stored }
        const content = (await (request.body as BodyOnDisk | undefined)?.read()) ?? Buffer.alloc(0)
        if (from + content.length > of)
          throw new AppError('request/malformed', 'This piece goes beyond the end of its picture')
        const piece = { fileId, from, content, totalBytes: of, accountId }
        const upTo = await inGarden(pool, gardenId, (client) => addPiece(client, gardenId, piece))
        if (upTo < of) return { upTo, file: null }
        await throttle.take('photos of', accountId, limits.photos)
        const whole = () => inGarden(pool, gardenId, (client) => putTogether(client, gardenId, fileId))
        try {
          return { upTo, file: await store(request, reply, fileId, whole) }
        } catch (error) {
          // What is no picture will not become one; what the server had no time for lies here till it has.
          if (error instanceof AppError && errorStatus[error.code] < 500)
            await inGarden(pool, gardenId, (client) => dropPieces(client, gardenId, fileId))
          throw error
        }
      },
    )
  })

  app.get(
    '/api/gardens/:gardenId/files/:fileId/pieces',
    { config: { access: 'viewer' }, schema: { params, response: { 200: pieceReplySchema } } },
    (request) => {
      const { gardenId } = caller(request)
      const { fileId } = request.params
      return inGarden(pool, gardenId, async (client) => ({
        file: (await findFileHead(client, gardenId, fileId)) ?? null,
        upTo: await sentSoFar(client, gardenId, fileId),
      }))
    },
  )

  app.get(
    '/api/gardens/:gardenId/files/:fileId',
    { config: { access: 'viewer' }, schema: { params } },
    async (request, reply) => {
      const { gardenId, accountId } = caller(request)
      await goingOut.take(reply, accountId)
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
