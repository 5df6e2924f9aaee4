import {
  changePasswordSchema,
  deleteAccountSchema,
  idSchema,
  makeRecoveryCodesSchema,
  openSessionSchema,
  preferencesSchema,
  recoverSchema,
  recoveryCodesSchema,
  resetPasswordSchema,
  sessionSchema,
  signInSchema,
  signUpSchema,
} from '@klados/contract'
import type { Session } from '@klados/contract'
import type { FastifyRequest } from 'fastify'
import { v7 as uuidv7 } from 'uuid'
import { z } from 'zod'
import { inTransaction, withAccountsRole } from '../database/transaction.ts'
import { findOwnDemo, keepDemo, ownVisitor } from '../demo/queries.ts'
import { AppError, emailTaken } from '../errors.ts'
import { createGarden, findGarden, updateGarden } from '../gardens/queries.ts'
import { addressKey } from '../throttle.ts'
import type { Area } from '../area.ts'
import { deviceOf } from './device.ts'
import { guessing } from './guesses.ts'
import { hashPassword, passwordFits, requireStrong } from './password.ts'
import {
  countRecoveryCodes,
  deleteAccount,
  deleteNotice,
  deleteSession,
  deleteSessions,
  dropResetLinks,
  endSession,
  findMemberships,
  findNotices,
  findPassword,
  insertAccount,
  insertNotice,
  listSessions,
  replaceRecoveryCodes,
  takeRecoveryCode,
  takeResetLink,
  updatePassword,
  updatePreferences,
} from './queries.ts'
import type { SignedIn } from './queries.ts'
import { hashCode, newRecoveryCodes } from './recovery.ts'
import { SESSION_COOKIE, clearSessionCookie, hashToken, openSession } from './session.ts'

const idParams = z.object({ id: idSchema })

export const accountRoutes: Area = async (app, { pool, accounts, hasDemo, limits, throttle }) => {
  /** Many tries from one address are slowed, whatever they are at. */
  const slow = (request: FastifyRequest) =>
    throttle.take('sign-in from', addressKey(request.ip), limits.signIns)
  /** Wrong guesses slow the address that they come from at the account that they aim at, and no other. */
  const guessAt = <T>(request: FastifyRequest, email: string, guess: () => Promise<T>) =>
    guessing(accounts, `${addressKey(request.ip)} at ${email}`, limits.guesses, guess)
  /** Nobody else's guesses count against somebody who is signed in. */
  const guessOwn = <T>(request: FastifyRequest, guess: () => Promise<T>) =>
    guessing(accounts, `session ${ownSession(request).toString('hex')}`, limits.guesses, guess)
  const sessionOf = async (signedIn: SignedIn | null): Promise<Session> => {
    if (!signedIn) return { account: null, memberships: [], notices: [], hasDemo }
    const { accountId, ...rest } = signedIn
    const [memberships, notices, recoveryCodes] = await Promise.all([
      findMemberships(pool, accountId),
      findNotices(accounts, accountId),
      countRecoveryCodes(accounts, accountId),
    ])
    return { account: { id: accountId, ...rest, recoveryCodes }, memberships, notices, hasDemo }
  }
  const ownSession = (request: FastifyRequest) => hashToken(request.cookies[SESSION_COOKIE]!)
  const requirePassword = async (email: string, password: string) => {
    const stored = await findPassword(accounts, email)
    if (!(await passwordFits(stored?.hash, password)))
      throw new AppError('session/wrong-credentials', 'Address and password do not match an account')
    return stored!.accountId
  }
  const requireOwn = ({ isDemo }: SignedIn) => {
    if (isDemo) throw new AppError('account/demo', 'A visitor of the demo garden has no account yet')
  }

  type NewAccount = Omit<Parameters<typeof insertAccount>[1], 'id'> & { units: SignedIn['units'] }
  type NewGarden = { name: string; currency?: string; latitudeDeg?: number; timeZone?: string }
  const signUp = (account: NewAccount, garden: NewGarden) =>
    inTransaction(pool, async (client) => {
      const id = uuidv7()
      if (!(await withAccountsRole(client, () => insertAccount(client, { ...account, id }))))
        throw emailTaken()
      await createGarden(client, { id: uuidv7(), ownerId: id, ...garden })
      return id
    })
  /** The visitor's account becomes the person's, and the copy of the demo their garden, with all that they did in it. */
  const signUpVisitor = async (request: FastifyRequest, account: NewAccount, garden: NewGarden) => {
    const id = request.signedIn?.isDemo ? request.signedIn.accountId : undefined
    const gardenId = id && (await findOwnDemo(pool, id))
    if (!id || !gardenId)
      throw new AppError('demo/gone', 'This copy of the demo garden is gone; sign up without it')
    await inTransaction(pool, async (client) => {
      const isOwned = await withAccountsRole(client, () => ownVisitor(client, { ...account, id }))
      await client.query(`select set_config('klados.garden', $1, true)`, [gardenId])
      if (!isOwned || !(await keepDemo(client, gardenId, id)))
        throw new AppError('demo/gone', 'This copy of the demo garden is gone; sign up without it')
      const { latitudeDeg, currency } = await findGarden(client, gardenId)
      await updateGarden(client, gardenId, { latitudeDeg, currency, ...garden })
    })
    return id
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
      await throttle.take('sign-ups from', addressKey(request.ip), limits.signUps)
      const { name, email, password, gardenName, units, currency, latitudeDeg, timeZone, keepsDemo } =
        request.body
      requireStrong(password, [name, email, gardenName])
      const account = { name, email, units, passwordHash: await hashPassword(password) }
      const usual = {
        ...(currency === undefined ? {} : { currency }),
        ...(latitudeDeg === undefined ? {} : { latitudeDeg }),
        ...(timeZone === undefined ? {} : { timeZone }),
      }
      const accountId = keepsDemo
        ? await signUpVisitor(request, account, { name: gardenName, ...usual })
        : await signUp(account, { name: gardenName, ...usual })
      await openSession(accounts, request, reply, accountId)
      return reply.status(201).send({ accountId })
    },
  )

  app.post(
    '/api/session',
    { config: { access: 'public' }, schema: { body: signInSchema } },
    async (request, reply) => {
      const { email, password } = request.body
      await slow(request)
      const accountId = await guessAt(request, email, () => requirePassword(email, password))
      // Whoever knows the password needs no link, and nobody else shall have one.
      await dropResetLinks(accounts, accountId)
      await openSession(accounts, request, reply, accountId)
      return reply.status(204).send()
    },
  )

  app.delete('/api/session', { config: { access: 'account' } }, async (request, reply) => {
    await deleteSession(accounts, ownSession(request))
    clearSessionCookie(reply)
    return reply.status(204).send()
  })

  app.delete('/api/sessions', { config: { access: 'account' } }, async (request, reply) => {
    await deleteSessions(accounts, request.signedIn!.accountId)
    clearSessionCookie(reply)
    return reply.status(204).send()
  })

  app.put(
    '/api/account/password',
    { config: { access: 'account' }, schema: { body: changePasswordSchema } },
    async (request, reply) => {
      const { accountId, email, name } = request.signedIn!
      requireOwn(request.signedIn!)
      await guessOwn(request, () => requirePassword(email, request.body.current))
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
      await slow(request)
      const { token, next } = request.body
      requireStrong(next, [])
      const hash = await hashPassword(next)
      await inTransaction(accounts, async (client) => {
        const accountId = await takeResetLink(client, hashToken(token))
        if (!accountId)
          throw new AppError(
            'account/no-such-link',
            'This link has been used, is too old, or its maker’s right to it has ended; ask for a new one',
          )
        await updatePassword(client, accountId, hash, null)
        await insertNotice(client, accountId, 'password-set-by-link')
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
      await guessOwn(request, () => requirePassword(email, request.body.password))
      const orphans = await deleteAccount(accounts, accountId)
      if (orphans.length > 0)
        throw new AppError(
          'account/sole-owner',
          `Others are in ${orphans.join(', ')}: name another owner there first, or delete it`,
          { gardens: orphans },
        )
      clearSessionCookie(reply)
      return reply.status(204).send()
    },
  )

  app.post(
    '/api/account/recovery-codes',
    {
      config: { access: 'account' },
      schema: { body: makeRecoveryCodesSchema, response: { 200: recoveryCodesSchema } },
    },
    async (request) => {
      const { accountId, email } = request.signedIn!
      requireOwn(request.signedIn!)
      await guessOwn(request, () => requirePassword(email, request.body.password))
      const { codes, hashes } = newRecoveryCodes()
      await inTransaction(accounts, (client) => replaceRecoveryCodes(client, accountId, hashes))
      return { codes }
    },
  )

  app.post(
    '/api/account/recover',
    { config: { access: 'public' }, schema: { body: recoverSchema } },
    async (request, reply) => {
      await slow(request)
      const { email, code, next } = request.body
      requireStrong(next, [email])
      await guessAt(request, email, async () => {
        const hash = await hashPassword(next)
        await inTransaction(accounts, async (client) => {
          const accountId = await takeRecoveryCode(client, email, hashCode(code))
          if (!accountId)
            throw new AppError(
              'account/no-such-code',
              'Address and code do not belong together, or the code has been used',
            )
          await updatePassword(client, accountId, hash, null)
          await insertNotice(client, accountId, 'password-set-by-code')
        })
      })
      return reply.status(204).send()
    },
  )

  app.get(
    '/api/account/sessions',
    { config: { access: 'account' }, schema: { response: { 200: z.array(openSessionSchema) } } },
    async (request) => {
      requireOwn(request.signedIn!)
      const sessions = await listSessions(accounts, request.signedIn!.accountId, ownSession(request))
      return sessions.map(({ agent, ...session }) => ({ ...session, ...deviceOf(agent) }))
    },
  )

  app.delete(
    '/api/account/sessions/:id',
    { config: { access: 'account' }, schema: { params: idParams } },
    async (request, reply) => {
      requireOwn(request.signedIn!)
      if (!(await endSession(accounts, request.signedIn!.accountId, request.params.id)))
        throw new AppError('account/no-such-session', 'This session has ended already')
      return reply.status(204).send()
    },
  )

  app.delete(
    '/api/account/notices/:id',
    { config: { access: 'account' }, schema: { params: idParams } },
    async (request, reply) => {
      await deleteNotice(accounts, request.signedIn!.accountId, request.params.id)
      return reply.status(204).send()
    },
  )

  app.put(
    '/api/account/preferences',
    { config: { access: 'account' }, schema: { body: preferencesSchema } },
    async (request, reply) => {
      await updatePreferences(accounts, request.signedIn!.accountId, request.body)
      return reply.status(204).send()
    },
  )
}
