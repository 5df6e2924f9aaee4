import { MAX_PAGE, appendReplySchema, appendSchema } from '@klados/contract'
import type { JournalPage } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'
import type { PoolClient } from 'pg'
import { z } from 'zod'
import { missingIds } from '../database/missing.ts'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden } from '../database/transaction.ts'
import { missingDocuments } from '../documents/queries.ts'
import { AppError } from '../errors.ts'
import { appendEntries, readEntries } from './queries.ts'

const pageQuery = z.object({
  after: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(MAX_PAGE).default(MAX_PAGE),
})

export const journalRoutes: Area = async (app, { pool }) => {
  app.get(
    '/api/gardens/:gardenId/journal',
    { config: { access: 'viewer' }, schema: { querystring: pageQuery } },
    async (request): Promise<JournalPage> => {
      const { gardenId } = caller(request)
      const { after, limit } = request.query
      const entries = await inGarden(pool, gardenId, (client) => readEntries(client, gardenId, after, limit))
      return { entries, last: entries.at(-1)?.seq ?? after }
    },
  )

  app.post(
    '/api/gardens/:gardenId/journal',
    {
      config: { access: 'grower' },
      schema: { body: appendSchema, response: { 200: appendReplySchema } },
    },
    async (request) => {
      const { gardenId, accountId } = caller(request)
      const { entries } = request.body
      const accepted = await inGarden(pool, gardenId, async (client) => {
        await requireKnown(client, gardenId, entries)
        return appendEntries(client, gardenId, accountId, entries)
      })
      return { accepted }
    },
  )
}

/** An entry may speak only of places, plants and entries of its own garden; entries of the same batch count. */
async function requireKnown(
  client: PoolClient,
  gardenId: string,
  entries: readonly JournalEntry[],
): Promise<void> {
  const [place] = await missingDocuments(client, gardenId, 'place', [
    ...new Set(entries.map((e) => e.placeId)),
  ])
  if (place) throw new AppError('journal/unknown-place', `Place ${place} is not in this garden`)
  const plants = [...new Set(entries.flatMap((e) => e.plantId ?? []))]
  const [plant] = await missingDocuments(client, gardenId, 'plant', plants)
  if (plant) throw new AppError('journal/unknown-plant', `Plant ${plant} is not in this garden`)
  const own = new Set(entries.map((e) => e.id))
  const before = entries.flatMap((e) =>
    e.supersedes !== null && !own.has(e.supersedes) ? [e.supersedes] : [],
  )
  const [entry] = await missingIds(client, 'entry', gardenId, before)
  if (entry)
    throw new AppError('journal/unknown-entry', `Entry ${entry}, to be superseded, is not in this journal`)
}
