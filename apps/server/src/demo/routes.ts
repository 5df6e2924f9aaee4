import { demoVisitSchema, gardenIdSchema, createGardenSchema } from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { caller } from '../access.ts'
import { hashPassword } from '../accounts/password.ts'
import { newToken, openSession } from '../accounts/session.ts'
import type { Area } from '../area.ts'
import { inGarden, inTransaction } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { findGarden, gardensMade, updateGarden } from '../gardens/queries.ts'
import { addressKey } from '../throttle.ts'
import { createDemoCopies } from './copies.ts'
import { GROWER } from './model.ts'
import { DEMO_HOURS, findOwnDemo, insertVisitor, keepDemo } from './queries.ts'

/** The demo garden: a copy for each visitor, and for whoever has an account and wants to look at it. */
export const demoRoutes: Area = async (app, { pool, accounts, databaseUrl, hasDemo, limits, throttle }) => {
  const copies = hasDemo ? createDemoCopies(pool, databaseUrl) : null
  const requireCopies = () => {
    if (!copies) throw new AppError('demo/not-here', 'This server was started without the demo garden')
    return copies
  }
  app.addHook('onListen', () => void copies?.keepUp().catch(() => undefined))
  app.addHook('onClose', () => copies?.close())

  app.post(
    '/api/session/demo',
    { config: { access: 'public' }, schema: { body: demoVisitSchema } },
    async (request, reply) => {
      const { copyFor } = requireCopies()
      const visitor = request.signedIn?.isDemo ? request.signedIn.accountId : undefined
      if (visitor && (await findOwnDemo(pool, visitor))) return reply.status(204).send()
      await throttle.take('demo visits from', addressKey(request.ip), limits.demoVisits)
      const id = uuidv7()
      const passwordHash = await hashPassword(newToken())
      const units = request.body?.units ?? 'metric'
      await inTransaction(accounts, (client) =>
        insertVisitor(client, { id, name: GROWER, units, passwordHash }),
      )
      await copyFor(id)
      await openSession(accounts, request, reply, id, DEMO_HOURS / 24)
      return reply.status(204).send()
    },
  )

  app.post(
    '/api/demo',
    { config: { access: 'account' }, schema: { response: { 200: gardenIdSchema } } },
    async (request) => {
      const { copyFor } = requireCopies()
      await throttle.take('demo visits from', addressKey(request.ip), limits.demoVisits)
      return { id: await copyFor(request.signedIn!.accountId) }
    },
  )

  app.post(
    '/api/gardens/:gardenId/keep',
    { config: { access: 'owner' }, schema: { body: createGardenSchema } },
    async (request, reply) => {
      const { gardenId, accountId } = caller(request)
      // A visitor keeps it by signing up.
      if (request.signedIn!.isDemo)
        throw new AppError('account/demo', 'Create an account to keep this garden')
      await inGarden(pool, gardenId, async (client) => {
        if ((await gardensMade(client, accountId)) >= limits.gardens)
          throw new AppError('garden/too-many', `One account may make ${limits.gardens} gardens`)
        if (!(await keepDemo(client, gardenId, accountId)))
          throw new AppError('demo/gone', 'This garden is no copy of the demo, or is kept already')
        const { latitudeDeg, currency } = await findGarden(client, gardenId)
        await updateGarden(client, gardenId, { latitudeDeg, currency, name: request.body.name })
      })
      return reply.status(204).send()
    },
  )
}
