import { LINES_TYPE } from '@klados/contract/limits'
import { endLine, foldLines, headLine } from '@klados/contract/standing'
import { PART_FOLD_RULES } from '@klados/core/part-fold'
import type { PoolClient } from 'pg'
import { z } from 'zod'
import { caller } from '../access.ts'
import type { Area } from '../area.ts'
import { inGarden, inSnapshot } from '../database/transaction.ts'
import { isGone } from '../gone.ts'
import { putBy } from '../outgoing.ts'
import { createSlots } from '../slots.ts'
import { findReach, greatestEntryId, readFolds } from './queries.ts'

const standingQuery = z.object({ small: z.coerce.number().int().min(0).default(0) })
const FOLDS_AT_ONCE = 400
/** Read onto the disk, which takes a connection of the database; and lying there until somebody has read it. */
const READING = { inAll: 4, ofOne: 1, waitMs: 15_000 }
const GOING_OUT = { inAll: 60, ofOne: 4, waitMs: 10_000 }

export const standingRoutes: Area = async (app, { pool, folding, held }) => {
  const [reading, goingOut] = [createSlots(READING), createSlots(GOING_OUT)]
  held.watch('standing', () => reading.held() + goingOut.held())
  /** What stands in a garden, part by part, in place of the journal that it came from; of a small one nothing. */
  app.get(
    '/api/gardens/:gardenId/standing',
    { config: { access: 'viewer' }, schema: { querystring: standingQuery } },
    async (request, reply) => {
      const { gardenId, accountId } = caller(request)
      await goingOut.take(reply, accountId)
      const { head } = await inGarden(pool, gardenId, (client) => findReach(client, gardenId))
      const isSmall = head <= request.query.small
      if (!isSmall) await folding.bringUp(gardenId)
      // Whole before it goes out, so that a slow reader holds no connection.
      const whole = await reading.run(reply, accountId, () =>
        inSnapshot(pool, gardenId, (client) =>
          putBy(pieces(client, gardenId, isSmall), () => !isGone(reply)),
        ),
      )
      return reply.type(`${LINES_TYPE}; charset=utf-8`).send(whole)
    },
  )
}

/** `Standing` of the contract as its lines, in pieces, all of one moment. */
async function* pieces(client: PoolClient, gardenId: string, isSmall: boolean): AsyncGenerator<string> {
  const { upTo, head } = await findReach(client, gardenId)
  yield headLine({
    head,
    upTo: isSmall ? 0 : upTo,
    rules: PART_FOLD_RULES,
    greatestId: await greatestEntryId(client, gardenId),
  })
  for (let after = ''; !isSmall; ) {
    const some = await readFolds(client, gardenId, after, FOLDS_AT_ONCE)
    if (some.length === 0) break
    after = some.at(-1)!.part
    yield foldLines(some)
  }
  yield endLine
}
