import { Readable } from 'node:stream'
import { LINES_TYPE } from '@klados/contract/limits'
import { endLine, foldLines, headLine } from '@klados/contract/standing'
import { PART_FOLD_RULES } from '@klados/core/part-fold'
import type { Pool, PoolClient } from 'pg'
import { z } from 'zod'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden, inSnapshot } from '../database/transaction.ts'
import { findReach, greatestEntryId, readFolds } from './queries.ts'

const standingQuery = z.object({ small: z.coerce.number().int().min(0).default(0) })
const FOLDS_AT_ONCE = 400

export const standingRoutes: Area = async (app, { pool, folding }) => {
  /** What stands in a garden, part by part, in place of the journal that it came from; of a small one nothing. */
  app.get(
    '/api/gardens/:gardenId/standing',
    { config: { access: 'viewer' }, schema: { querystring: standingQuery } },
    async (request, reply) => {
      const { gardenId } = caller(request)
      const { head } = await inGarden(pool, gardenId, (client) => findReach(client, gardenId))
      const isSmall = head <= request.query.small
      if (!isSmall) await folding.bringUp(gardenId)
      return reply
        .type(`${LINES_TYPE}; charset=utf-8`)
        .send(Readable.from(whatStands(pool, gardenId, isSmall)))
    },
  )
}

/** `Standing` of the contract as its lines, in pieces, all of one moment. */
function whatStands(pool: Pool, gardenId: string, isSmall: boolean): AsyncGenerator<string> {
  return inSnapshot(pool, gardenId, (client) => pieces(client, gardenId, isSmall))
}

async function* pieces(client: PoolClient, gardenId: string, isSmall: boolean): AsyncGenerator<string> {
  const { upTo, head } = await findReach(client, gardenId)
  yield headLine({
    head,
    upTo: isSmall ? 0 : upTo,
    rules: PART_FOLD_RULES,
    greatestId: await greatestEntryId(client, gardenId),
  })
  for (let after = ''; !isSmall;) {
    const some = await readFolds(client, gardenId, after, FOLDS_AT_ONCE)
    if (some.length === 0) break
    after = some.at(-1)!.part
    yield foldLines(some)
  }
  yield endLine
}
