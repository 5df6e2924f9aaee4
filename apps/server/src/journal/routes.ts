import {
  MAX_PAGE,
  appendReplySchema,
  appendSchema,
  calendarDate,
  entryKinds,
  idSchema,
} from '@klados/contract'
import { z } from 'zod'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { requireRoom } from '../gardens/room.ts'
import { createLane } from '../lane.ts'
import { createSlots } from '../slots.ts'
import { appendEach } from './append.ts'
import { readEntry } from './judge.ts'
import { findSubjects, lastNumber, readPage } from './queries.ts'

const pageQuery = z.object({
  after: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(MAX_PAGE).default(MAX_PAGE),
  /** Only what was written at this place, and of every plant that was ever written of there. */
  place: idSchema.optional(),
  /** Only what was written of this plant, or of no plant at this place. */
  of: idSchema.optional(),
  /** Only entries of these kinds, with commas between them. */
  kind: z
    .string()
    .transform((text) => text.split(','))
    .pipe(z.array(z.enum(entryKinds)).min(1))
    .optional(),
  /** Only what happened from this day on, and until that one. */
  from: calendarDate.optional(),
  until: calendarDate.optional(),
})

/** Pages that lie in memory until they have been read. */
const PAGES = { inAll: 40, ofOne: 8, waitMs: 15_000 }

export const journalRoutes: Area = async (app, { pool, limits, announcements, folding, held }) => {
  const reading = createSlots(PAGES)
  held.watch('pages', reading.held)
  const lane = createLane()
  app.get(
    '/api/gardens/:gardenId/journal',
    { config: { access: 'viewer' }, schema: { querystring: pageQuery } },
    async (request, reply) => {
      const { gardenId, accountId } = caller(request)
      await reading.take(reply, accountId)
      const { after, limit, place, of, kind = null, from = null, until = null } = request.query
      const [{ entries, last }, head] = await inGarden(pool, gardenId, async (client) => {
        const subjects =
          place !== undefined ? await findSubjects(client, gardenId, place) : of !== undefined ? [of] : null
        const page = await readPage(client, gardenId, after, limit, { subjects, kinds: kind, from, until })
        return [page, await lastNumber(client, gardenId)]
      })
      // `JournalPage`, as text.
      return reply
        .type('application/json; charset=utf-8')
        .send(`{"entries":${entries},"last":${last},"head":${head}}`)
    },
  )

  app.post(
    '/api/gardens/:gardenId/entries',
    {
      config: { access: 'grower' },
      schema: { body: appendSchema, response: { 200: appendReplySchema } },
    },
    async (request) => {
      const into = caller(request)
      const now = new Date()
      // Before the transaction: a list that takes long to read keeps no connection.
      const read = await lane.map(request.body.entries, (one) => readEntry(one, now))
      const answers = await inGarden(pool, into.gardenId, async (client) => {
        await requireRoom(client, into.gardenId, limits.bytes)
        return appendEach(client, into, read)
      })
      const numbers = answers.flatMap((one) => (one.answer === 'taken' ? [one.seq] : []))
      if (numbers.length > 0) {
        const entriesTo = Math.max(...numbers)
        announcements.announce(into.gardenId, { entriesTo })
        folding.gained(into.gardenId, Math.min(...numbers), entriesTo)
      }
      return { answers }
    },
  )

  // A page of the release before this one, still open, drops whatever a batch of its is refused with or not
  // told about; what it takes for a server that is away it keeps, and the page that replaces it at the next
  // reload sends it.
  app.post('/api/gardens/:gardenId/journal', { config: { access: 'grower' } }, () => {
    throw new AppError('server/unavailable', 'There is a new release; reload the page')
  })
}
