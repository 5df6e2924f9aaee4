import { preferencesSchema, sessionSchema, signInSchema, signUpSchema } from '@klados/contract'
import type { Session } from '@klados/contract'
import type { FastifyReply } from 'fastify'
import { v7 as uuidv7 } from 'uuid'
import { inTransaction } from '../database/transaction.ts'
import { findDemoGrower } from '../demo/queries.ts'
import { AppError } from '../errors.ts'
import { createGarden } from '../gardens/queries.ts'
import type { Area } from '../area.ts'
import { hashPassword, passwordFits } from './password.ts'
import {
  deleteSession,
  findMemberships,
  findPassword,
  insertAccount,
  insertSession,
  updateUnits,
} from './queries.ts'
import type { SignedIn } from './queries.ts'
import {
  SESSION_COOKIE,
  clearSessionCookie,
  hashToken,
  newToken,
  sessionExpiry,
  setSessionCookie,
} from './session.ts'

export const accountRoutes: Area = async (app, { pool, hasDemo, signInsPerMinute }) => {
  const guarded = { rateLimit: { max: signInsPerMinute, timeWindow: '1 minute' } }

  async function sessionOf(signedIn: SignedIn | null): Promise<Session> {
    if (!signedIn) return { account: null, memberships: [], hasDemo }
    const { accountId, ...rest } = signedIn
    return {
      account: { id: accountId, ...rest },
      memberships: await findMemberships(pool, accountId),
      hasDemo,
    }
  }

  async function openSession(reply: FastifyReply, accountId: string): Promise<void> {
    const token = newToken()
    await insertSession(pool, hashToken(token), accountId, sessionExpiry())
    setSessionCookie(reply, token)
  }

  app.get(
    '/api/session',
    { config: { access: 'public' }, schema: { response: { 200: sessionSchema } } },
    (request) => sessionOf(request.signedIn),
  )

  app.post(
    '/api/accounts',
    { config: { access: 'public', ...guarded }, schema: { body: signUpSchema } },
    async (request, reply) => {
      const { name, email, password, gardenName } = request.body
      const account = { id: uuidv7(), name, email, passwordHash: await hashPassword(password) }
      await inTransaction(pool, async (client) => {
        if (!(await insertAccount(client, account))) {
          throw new AppError(
            'account/email-taken',
            'Somebody has signed up with this address; sign in instead',
          )
        }
        await createGarden(client, { id: uuidv7(), name: gardenName, ownerId: account.id })
      })
      await openSession(reply, account.id)
      return reply.status(201).send({ accountId: account.id })
    },
  )

  app.post(
    '/api/session',
    { config: { access: 'public', ...guarded }, schema: { body: signInSchema } },
    async (request, reply) => {
      const stored = await findPassword(pool, request.body.email)
      if (!(await passwordFits(stored?.hash, request.body.password))) {
        throw new AppError('session/wrong-credentials', 'Address and password do not match an account')
      }
      await openSession(reply, stored!.accountId)
      return reply.status(204).send()
    },
  )

  app.post('/api/session/demo', { config: { access: 'public', ...guarded } }, async (_request, reply) => {
    const accountId = hasDemo ? await findDemoGrower(pool) : undefined
    if (!accountId) throw new AppError('demo/not-here', 'This server was started without the demo garden')
    await openSession(reply, accountId)
    return reply.status(204).send()
  })

  app.delete('/api/session', { config: { access: 'account' } }, async (request, reply) => {
    await deleteSession(pool, hashToken(request.cookies[SESSION_COOKIE]!))
    clearSessionCookie(reply)
    return reply.status(204).send()
  })

  app.put(
    '/api/account/preferences',
    { config: { access: 'account' }, schema: { body: preferencesSchema } },
    async (request, reply) => {
      await updateUnits(pool, request.signedIn!.accountId, request.body.units)
      return reply.status(204).send()
    },
  )
}
