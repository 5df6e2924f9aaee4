import {
  acceptInvitationSchema,
  addMemberSchema,
  changeMemberSchema,
  createGardenSchema,
  declineInvitationSchema,
  deleteGardenSchema,
  gardenSchema,
  gardenSettingsSchema,
  idSchema,
  invitationLinkSchema,
  invitationSchema,
  lookAtInvitationSchema,
  resetLinkSchema,
} from '@klados/contract'
import { v7 as uuidv7 } from 'uuid'
import { z } from 'zod'
import { caller } from '../access.ts'
import { findInvitations } from '../accounts/queries.ts'
import { makeResetLink } from '../accounts/reset.ts'
import type { Area } from '../area.ts'
import { inGarden, inTransaction } from '../database/transaction.ts'
import { AppError } from '../errors.ts'
import { acceptInvitation, dropInvitation, findInvitation, invite, listInvitations } from './invitations.ts'
import {
  createGarden,
  deleteGarden,
  findGarden,
  gardensMade,
  isDemoGarden,
  mayReset,
  setMember,
  updateGarden,
} from './queries.ts'

const memberParams = z.object({ gardenId: idSchema, accountId: idSchema })

const noInvitation = () =>
  new AppError(
    'member/no-such-invitation',
    'This invitation has been used, taken back, or is too old; ask for a new one',
  )

export const gardenRoutes: Area = async (app, { pool, accounts, limits, announcements }) => {
  const requireInvited = async (accountId: string, gardenId: string) => {
    const waiting = await findInvitations(accounts, accountId)
    if (!waiting.some((one) => one.gardenId === gardenId)) throw noInvitation()
  }
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
      const { role } = request.garden!
      return inGarden(pool, gardenId, async (client) => ({
        ...(await findGarden(client, gardenId)),
        role,
        invitations: role === 'owner' ? await listInvitations(client, gardenId) : [],
      }))
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
    {
      config: { access: 'owner' },
      schema: { body: addMemberSchema, response: { 201: invitationLinkSchema } },
    },
    async (request, reply) => {
      const { gardenId, accountId } = caller(request)
      const { email, role } = request.body
      // Alike whether anybody has signed up with the address or not; who is a member already, every member sees.
      const link = await inGarden(pool, gardenId, async (client) => {
        const { members } = await findGarden(client, gardenId)
        if (await isDemoGarden(client, gardenId))
          throw new AppError('garden/demo', 'A copy of the demo garden is one person’s; keep it to share it')
        if (members.some((member) => member.email === email))
          throw new AppError('member/already', 'This person is a member already')
        return invite(client, gardenId, { email, role, invitedBy: accountId })
      })
      return reply.status(201).send(link)
    },
  )

  app.delete(
    '/api/gardens/:gardenId/invitations/:email',
    {
      config: { access: 'owner' },
      schema: { params: z.object({ gardenId: idSchema, email: z.string().max(200) }) },
    },
    async (request, reply) => {
      const { gardenId } = caller(request)
      const email = request.params.email.toLowerCase()
      if (!(await inGarden(pool, gardenId, (client) => dropInvitation(client, gardenId, email))))
        throw noInvitation()
      return reply.status(204).send()
    },
  )

  app.get(
    '/api/invitations',
    { config: { access: 'account' }, schema: { response: { 200: z.array(invitationSchema) } } },
    (request) => findInvitations(accounts, request.signedIn!.accountId),
  )

  app.post(
    '/api/invitations/look',
    {
      config: { access: 'public' },
      schema: { body: lookAtInvitationSchema, response: { 200: invitationSchema } },
    },
    async (request) => {
      const { gardenId, token } = request.body
      const found = await inGarden(pool, gardenId, (client) => findInvitation(client, gardenId, token))
      if (!found) throw noInvitation()
      return found
    },
  )

  app.post(
    '/api/invitations/accept',
    { config: { access: 'account' }, schema: { body: acceptInvitationSchema } },
    async (request, reply) => {
      const { accountId, email, isDemo } = request.signedIn!
      const { gardenId, token } = request.body
      if (isDemo) throw new AppError('account/demo', 'Make an account of your own to join a garden')
      // Without the link only what waits for this very account: an address alone proves nothing.
      if (token === undefined) await requireInvited(accountId, gardenId)
      const by = token === undefined ? { email } : { token }
      if (!(await inGarden(pool, gardenId, (client) => acceptInvitation(client, gardenId, accountId, by))))
        throw noInvitation()
      return reply.status(204).send()
    },
  )

  app.post(
    '/api/invitations/decline',
    { config: { access: 'account' }, schema: { body: declineInvitationSchema } },
    async (request, reply) => {
      const { accountId, email } = request.signedIn!
      const { gardenId } = request.body
      await requireInvited(accountId, gardenId)
      await inGarden(pool, gardenId, (client) => dropInvitation(client, gardenId, email))
      return reply.status(204).send()
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
          throw new AppError('garden/not-allowed', 'Only an owner of this garden may delete it')
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
      const { member, gardenName } = await inGarden(pool, gardenId, async (client) => {
        const { members, name } = await findGarden(client, gardenId)
        const found = members.find((one) => one.accountId === accountId)
        if (!found) throw new AppError('member/no-such-account', 'This person is not a member')
        if (!(await mayReset(client, gardenId, ownerId, accountId)))
          throw new AppError(
            'member/not-yours-to-reset',
            'This person has work or gardens beside this one; a recovery code of theirs, or whoever runs this server, lets them in',
          )
        return { member: found, gardenName: name }
      })
      return makeResetLink(accounts, accountId, new Date(), {
        gardenId,
        gardenName,
        madeBy: ownerId,
        madeByName: request.signedIn!.name,
        role: member.role,
      })
    },
  )
}
