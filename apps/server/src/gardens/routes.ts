import {
  addMemberSchema,
  changeMemberSchema,
  createGardenSchema,
  deleteGardenSchema,
  gardenSchema,
  gardenSettingsSchema,
  idSchema,
  resetLinkSchema,
} from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { z } from 'zod'
import { caller } from '../access.ts'
import { findAccountId } from '../accounts/queries.ts'
import { makeResetLink } from '../accounts/reset.ts'
import type { Area } from '../area.ts'
import { inGarden, inTransaction } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import {
  createGarden,
  deleteGarden,
  findGarden,
  gardensMade,
  insertMember,
  mayReset,
  setMember,
  updateGarden,
} from './queries.ts'

const memberParams = z.object({ gardenId: idSchema, accountId: idSchema })

export const gardenRoutes: Area = async (app, { pool, accounts, limits, announcements }) => {
  app.post(
    '/api/gardens',
    { config: { access: 'account' }, schema: { body: createGardenSchema } },
    async (request, reply) => {
      const id = uuidv7()
      const { accountId, isDemo } = request.signedIn!
      if (isDemo)
        throw new AppError('account/demo', 'Make an account of your own to have gardens of your own')
      await inTransaction(pool, async (client) => {
        if ((await gardensMade(client, accountId)) >= limits.gardens)
          throw new AppError('garden/too-many', `One account may make ${limits.gardens} gardens`)
        await createGarden(client, { id, name: request.body.name, ownerId: accountId })
      })
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
      announcements.announce(gardenId, 'documents')
      return reply.status(204).send()
    },
  )

  app.post(
    '/api/gardens/:gardenId/members',
    { config: { access: 'owner' }, schema: { body: addMemberSchema } },
    async (request, reply) => {
      const { gardenId } = caller(request)
      const accountId = await findAccountId(accounts, request.body.email)
      if (!accountId) {
        throw new AppError(
          'member/no-such-account',
          'Nobody has signed up with this address; ask them to do so first',
        )
      }
      await inGarden(pool, gardenId, async (client) => {
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

  app.delete(
    '/api/gardens/:gardenId/membership',
    { config: { access: 'viewer' } },
    async (request, reply) => {
      const { gardenId, accountId } = caller(request)
      if (request.signedIn!.isDemo) throw new AppError('account/demo', 'The demo’s crew stays in its garden')
      settle(await inGarden(pool, gardenId, (client) => setMember(client, gardenId, accountId, null)))
      return reply.status(204).send()
    },
  )

  app.delete(
    '/api/gardens/:gardenId',
    { config: { access: 'owner' }, schema: { body: deleteGardenSchema } },
    async (request, reply) => {
      const { gardenId, accountId } = caller(request)
      await inGarden(pool, gardenId, async (client) => {
        const { name } = await findGarden(client, gardenId)
        if (request.body.name !== name)
          throw new AppError('request/malformed', `Type the garden’s name as it is, ${name}, to delete it`)
        if (!(await deleteGarden(client, gardenId, accountId)))
          throw new AppError('account/demo', 'The demo garden is everybody’s')
      })
      return reply.status(204).send()
    },
  )

  app.post(
    '/api/gardens/:gardenId/members/:accountId/reset-link',
    { config: { access: 'owner' }, schema: { params: memberParams, response: { 200: resetLinkSchema } } },
    async (request) => {
      const { gardenId, accountId: ownerId } = caller(request)
      const { accountId } = request.params
      await inGarden(pool, gardenId, async (client) => {
        const { members } = await findGarden(client, gardenId)
        if (!members.some((member) => member.accountId === accountId))
          throw new AppError('member/no-such-account', 'This person is not a member')
        if (accountId === ownerId || !(await mayReset(client, ownerId, accountId)))
          throw new AppError(
            'member/not-yours-to-reset',
            'This person works in gardens that are not yours; whoever runs this server can make the link',
          )
      })
      return makeResetLink(accounts, accountId, new Date())
    },
  )
}
