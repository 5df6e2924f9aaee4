import {
  addMemberSchema,
  changeMemberSchema,
  createGardenSchema,
  gardenSchema,
  gardenSettingsSchema,
  idSchema,
} from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { z } from 'zod'
import { caller } from '../access.ts'
import { findAccountId } from '../accounts/queries.ts'
import type { Area } from '../area.ts'
import { inGarden, inTransaction } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { createGarden, findGarden, insertMember, setMember, updateGarden } from './queries.ts'

const memberParams = z.object({ gardenId: idSchema, accountId: idSchema })

export const gardenRoutes: Area = async (app, { pool }) => {
  app.post(
    '/api/gardens',
    { config: { access: 'account' }, schema: { body: createGardenSchema } },
    async (request, reply) => {
      const id = uuidv7()
      await inTransaction(pool, (client) =>
        createGarden(client, { id, name: request.body.name, ownerId: request.signedIn!.accountId }),
      )
      return reply.status(201).send({ id })
    },
  )

  app.get(
    '/api/gardens/:gardenId',
    { config: { access: 'viewer' }, schema: { response: { 200: gardenSchema } } },
    async (request) => {
      const { gardenId } = caller(request)
      const garden = await inGarden(pool, gardenId, (client) => findGarden(client, gardenId))
      return { ...garden, role: request.garden!.role }
    },
  )

  app.put(
    '/api/gardens/:gardenId',
    { config: { access: 'owner' }, schema: { body: gardenSettingsSchema } },
    async (request, reply) => {
      const { gardenId } = caller(request)
      await inGarden(pool, gardenId, (client) => updateGarden(client, gardenId, request.body))
      return reply.status(204).send()
    },
  )

  app.post(
    '/api/gardens/:gardenId/members',
    { config: { access: 'owner' }, schema: { body: addMemberSchema } },
    async (request, reply) => {
      const { gardenId } = caller(request)
      await inGarden(pool, gardenId, async (client) => {
        const accountId = await findAccountId(client, request.body.email)
        if (!accountId) {
          throw new AppError(
            'member/no-such-account',
            'Nobody has signed up with this address; ask them to do so first',
          )
        }
        if (!(await insertMember(client, gardenId, accountId, request.body.role))) {
          throw new AppError('member/already', 'This person is a member already')
        }
      })
      return reply.status(201).send({})
    },
  )

  const settle = (outcome: Awaited<ReturnType<typeof setMember>>) => {
    if (outcome === 'no-such-member')
      throw new AppError('member/no-such-account', 'This person is not a member')
    if (outcome === 'last-owner')
      throw new AppError('garden/last-owner', 'A garden needs an owner: name another first')
  }

  app.put(
    '/api/gardens/:gardenId/members/:accountId',
    { config: { access: 'owner' }, schema: { params: memberParams, body: changeMemberSchema } },
    async (request, reply) => {
      const { gardenId, accountId } = request.params
      settle(
        await inGarden(pool, gardenId, (client) => setMember(client, gardenId, accountId, request.body.role)),
      )
      return reply.status(204).send()
    },
  )

  app.delete(
    '/api/gardens/:gardenId/members/:accountId',
    { config: { access: 'owner' }, schema: { params: memberParams } },
    async (request, reply) => {
      const { gardenId, accountId } = request.params
      settle(await inGarden(pool, gardenId, (client) => setMember(client, gardenId, accountId, null)))
      return reply.status(204).send()
    },
  )
}
