import {
  changePasswordSchema,
  deleteAccountSchema,
  preferencesSchema,
  resetPasswordSchema,
  sessionSchema,
  signInSchema,
  signUpSchema,
} from '@klados/contract'
import type { Session } from '@klados/contract'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { v7 as uuidv7 } from 'uuid'
import { inTransaction, withAccountsRole } from '../database/transaction.ts'
import { findDemoGrower } from '../demo/queries.ts'
import { AppError } from '../errors.ts'
import { createGarden } from '../gardens/queries.ts'
import { addressKey } from '../throttle.ts'
import type { Area } from '../area.ts'
import { hashPassword, passwordFits, requireStrong } from './password.ts'
import {
  deleteAccount,
  deleteSession,
  deleteSessions,
  findMemberships,
  findPassword,
  insertAccount,
  insertSession,
  takeResetLink,
  updatePassword,
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

export const accountRoutes: Area = async (app, { pool, accounts, hasDemo, limits, throttle }) => {
  /** Guessing is slowed at the address that it comes from and at the account that it aims at. */
  const guard = async (request: FastifyRequest, account?: string) => {
    await throttle.take('sign-in from', addressKey(request.ip), limits.signIns)
    if (account) await throttle.take('sign-in to', account, limits.signIns)
  }
  const sessionOf = async (signedIn: SignedIn | null): Promise<Session> => {
    if (!signedIn) return { account: null, memberships: [], hasDemo }
    const { accountId, ...rest } = signedIn
    const memberships = await findMemberships(pool, accountId)
    return { account: { id: accountId, ...rest }, memberships, hasDemo }
  }
  const openSession = async (request: FastifyRequest, reply: FastifyReply, accountId: string) => {
    const token = newToken()
    await insertSession(accounts, hashToken(token), accountId, sessionExpiry())
    setSessionCookie(request, reply, token)
  }
  const ownSession = (request: FastifyRequest) => hashToken(request.cookies[SESSION_COOKIE]!)
  const requirePassword = async (email: string, password: string) => {
    const stored = await findPassword(accounts, email)
    if (!(await passwordFits(stored?.hash, password)))
      throw new AppError('session/wrong-credentials', 'Address and password do not match an account')
    return stored!.accountId
  }
  const requireOwn = ({ isDemo }: SignedIn) => {
    if (isDemo) throw new AppError('account/demo', 'This account of the demo garden is everybody’s')
  }

  app.get(
    '/api/session',
    { config: { access: 'public' }, schema: { response: { 200: sessionSchema } } },
    (request) => sessionOf(request.signedIn),
  )

  app.post(
    '/api/accounts',
    { config: { access: 'public' }, schema: { body: signUpSchema } },
    async (request, reply) => {
      await guard(request)
      const { name, email, password, gardenName, units } = request.body
      requireStrong(password, [name, email, gardenName])
      const account = { id: uuidv7(), name, email, units, passwordHash: await hashPassword(password) }
      await inTransaction(pool, async (client) => {
        const isNew = await withAccountsRole(client, () => insertAccount(client, account))
        if (!isNew)
          throw new AppError(
            'account/email-taken',
            'Somebody has signed up with this address; sign in instead',
          )
        await createGarden(client, { id: uuidv7(), name: gardenName, ownerId: account.id })
      })
      await openSession(request, reply, account.id)
      return reply.status(201).send({ accountId: account.id })
    },
  )

  app.post(
    '/api/session',
    { config: { access: 'public' }, schema: { body: signInSchema } },
    async (request, reply) => {
      const { email, password } = request.body
      await guard(request, email)
      await openSession(request, reply, await requirePassword(email, password))
      return reply.status(204).send()
    },
  )

  app.post('/api/session/demo', { config: { access: 'public' } }, async (request, reply) => {
    await guard(request)
    const accountId = hasDemo ? await findDemoGrower(accounts) : undefined
    if (!accountId) throw new AppError('demo/not-here', 'This server was started without the demo garden')
    await openSession(request, reply, accountId)
    return reply.status(204).send()
  })

  app.delete('/api/session', { config: { access: 'account' } }, async (request, reply) => {
    await deleteSession(accounts, ownSession(request))
    clearSessionCookie(reply)
    return reply.status(204).send()
  })

  app.delete('/api/sessions', { config: { access: 'account' } }, async (request, reply) => {
    // The demo's visitors share an account; one who leaves sends nobody else out.
    if (request.signedIn!.isDemo) await deleteSession(accounts, ownSession(request))
    else await deleteSessions(accounts, request.signedIn!.accountId)
    clearSessionCookie(reply)
    return reply.status(204).send()
  })

  app.put(
    '/api/account/password',
    { config: { access: 'account' }, schema: { body: changePasswordSchema } },
    async (request, reply) => {
      const { accountId, email, name } = request.signedIn!
      requireOwn(request.signedIn!)
      await guard(request, email)
      await requirePassword(email, request.body.current)
      requireStrong(request.body.next, [name, email])
      const hash = await hashPassword(request.body.next)
      await inTransaction(accounts, (client) => updatePassword(client, accountId, hash, ownSession(request)))
      return reply.status(204).send()
    },
  )

  app.post(
    '/api/account/new-password',
    { config: { access: 'public' }, schema: { body: resetPasswordSchema } },
    async (request, reply) => {
      await guard(request)
      const { token, next } = request.body
      requireStrong(next, [])
      const hash = await hashPassword(next)
      await inTransaction(accounts, async (client) => {
        const accountId = await takeResetLink(client, hashToken(token))
        if (!accountId)
          throw new AppError(
            'account/no-such-link',
            'This link has been used or is too old; ask for a new one',
          )
        await updatePassword(client, accountId, hash, null)
      })
      return reply.status(204).send()
    },
  )

  app.delete(
    '/api/account',
    { config: { access: 'account' }, schema: { body: deleteAccountSchema } },
    async (request, reply) => {
      const { accountId, email } = request.signedIn!
      requireOwn(request.signedIn!)
      await guard(request, email)
      await requirePassword(email, request.body.password)
      const orphans = await deleteAccount(accounts, accountId)
      if (orphans.length > 0)
        throw new AppError(
          'account/sole-owner',
          `Others are in ${orphans.join(', ')}: name another owner there first, or delete it`,
        )
      clearSessionCookie(reply)
      return reply.status(204).send()
    },
  )

  app.put(
    '/api/account/preferences',
    { config: { access: 'account' }, schema: { body: preferencesSchema } },
    async (request, reply) => {
      await updateUnits(accounts, request.signedIn!.accountId, request.body.units)
      return reply.status(204).send()
    },
  )
}
