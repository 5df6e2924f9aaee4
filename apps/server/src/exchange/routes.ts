import { PassThrough } from 'node:stream'
import multipart from '@fastify/multipart'
import { MAX_IMPORT_BYTES, exchangeJsonSchema, idSchema, importAnswersSchema } from '@klados/contract'
import type { ImportAnswers, ImportLine } from '@klados/contract'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { AppError } from '../errors.ts'
import { findRole, isGarden } from '../gardens/queries.ts'
import { isGone, whenGone } from '../gone.ts'
import { createSlots } from '../slots.ts'
import { runImport } from './run-import.ts'
import { spool } from './spool.ts'
import type { ImportJob } from './take-in.ts'
import { writeOut } from './write-out.ts'

/** Coming in onto the disk, which a slow line may take long for; and then read into the database. */
const COMING = { inAll: 12, ofOne: 1, waitMs: 10_000 }
const GOING_IN = { inAll: 2, ofOne: 1, waitMs: 60_000 }
/** Read onto the disk, which takes a connection of the database; and lying there until somebody has read it. */
const WRITING = { inAll: 2, ofOne: 1, waitMs: 60_000 }
const GOING_OUT = { inAll: 12, ofOne: 1, waitMs: 10_000 }
const MAX_ANSWERS_BYTES = 2_000_000

/** The whole garden out as a file and in again, and the schema of such files. */
export const exchangeRoutes: Area = async (app, shared) => {
  const { announcements, folding, held, pool, limits, throttle, databaseUrl } = shared
  const [coming, goingIn] = [createSlots(COMING), createSlots(GOING_IN)]
  const [writing, goingOut] = [createSlots(WRITING), createSlots(GOING_OUT)]
  held.watch('imports', () => coming.held() + goingIn.held())
  held.watch('exports', () => writing.held() + goingOut.held())

  app.get('/api/schema/klados.json', { config: { access: 'public' } }, () => exchangeJsonSchema())

  app.get('/api/gardens/:gardenId/export', { config: { access: 'viewer' } }, async (request, reply) => {
    const { gardenId, accountId } = caller(request)
    await goingOut.take(reply, accountId)
    const whole = await writing.run(reply, accountId, () => writeOut(pool, gardenId, () => !isGone(reply)))
    return reply
      .type('application/json')
      .header('content-disposition', 'attachment; filename="garden.json"')
      .send(whole)
  })

  const takeFile = async (
    request: FastifyRequest,
    reply: FastifyReply,
    into: (fields: ReadonlyMap<string, string>) => Promise<Pick<ImportJob, 'mode' | 'gardenId'>>,
  ) => {
    const { accountId } = request.signedIn!
    await throttle.take('imports of', accountId, limits.imports)
    // Of a slow line's own share: those that wait to be read have come in already.
    const turn = await coming.take(reply, accountId)
    const spooled = await spool(request.parts())
    turn.end()
    try {
      await goingIn.take(reply, accountId)
      const job: ImportJob = {
        ...(await into(spooled.fields)),
        path: spooled.path,
        sizeBytes: spooled.sizeBytes,
        accountId,
        answers: readAnswers(spooled.fields.get('answers')),
        limitBytes: limits.bytes,
        limitGardens: limits.gardens,
      }
      const lines = new PassThrough()
      const running = runImport(job, databaseUrl, (line: ImportLine) => {
        lines.write(`${JSON.stringify(line)}\n`)
        if ('share' in line) return
        lines.end()
        announcements.announce(job.gardenId, 'anything')
        if ('done' in line) folding.gained(job.gardenId, 0, line.done.counts.entries)
      })
      // Whoever goes away before the last line has called it off.
      whenGone(reply, running.stop)
      void running.ended.then(spooled.remove)
      return reply.type('application/x-ndjson').send(lines)
    } catch (error) {
      await spooled.remove()
      throw error
    }
  }

  await app.register(async (imports) => {
    await imports.register(multipart, {
      limits: { fileSize: MAX_IMPORT_BYTES, files: 1, fields: 2, fieldSize: MAX_ANSWERS_BYTES, parts: 3 },
    })
    const options = { bodyLimit: MAX_IMPORT_BYTES + MAX_ANSWERS_BYTES }

    imports.post(
      '/api/gardens/:gardenId/import',
      { ...options, compress: false, config: { access: 'owner' } },
      (request, reply) =>
        takeFile(request, reply, async () => ({ mode: 'same', gardenId: caller(request).gardenId })),
    )

    imports.post(
      '/api/gardens-from-file',
      { ...options, compress: false, config: { access: 'account' } },
      (request, reply) =>
        takeFile(request, reply, async (fields) => {
          const id = idSchema.safeParse(fields.get('gardenId'))
          if (!id.success) throw new AppError('request/malformed', 'Say the id of the garden to be made')
          if (request.signedIn!.isDemo)
            throw new AppError('account/demo', 'Make an account of your own to have gardens of your own')
          // The answer to an earlier try may have been lost on its way.
          if (await findRole(pool, id.data, request.signedIn!.accountId))
            throw new AppError('garden/taken', 'This garden has been made already')
          // Or the id is somebody else's: the same conflict, and no more is told of it.
          if (await isGarden(pool, id.data))
            throw new AppError('garden/taken', 'There is a garden under this id already; take another')
          return { mode: 'new', gardenId: id.data }
        }),
    )
  })
}

function readAnswers(text: string | undefined): ImportAnswers {
  if (text === undefined) return {}
  try {
    const parsed = importAnswersSchema.safeParse(JSON.parse(text))
    if (parsed.success) return parsed.data
  } catch {
    // Told below.
  }
  throw new AppError('request/malformed', 'The answers cannot be read')
}
