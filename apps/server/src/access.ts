import type { Role } from '@klados/contract'
import { WRITER_HEADER, idSchema, roles } from '@klados/contract'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import { findSession } from './accounts/queries.ts'
import type { SignedIn } from './accounts/queries.ts'
import { SESSION_COOKIE, hashToken } from './accounts/session.ts'
import type { Shared } from './area.ts'
import { AppError } from './errors.ts'
import { findRole } from './gardens/queries.ts'
import { addressKey } from './throttle.ts'

/**
 * Who may use a route: anyone, anyone signed in, or a member of the garden in the path with at least this
 * role.
 */
export type Access = 'public' | 'account' | Role

export interface RouteAccess {
  readonly method: string
  readonly url: string
  readonly access: Access
}

declare module 'fastify' {
  interface FastifyInstance {
    /** Every registered route and who may use it. */
    routeTable: RouteAccess[]
  }
  interface FastifyContextConfig {
    access?: Access
    /** Not throttled: asked by machines that watch over the server. */
    isUncounted?: boolean
  }
  interface FastifyRequest {
    signedIn: SignedIn | null
    garden: { readonly id: string; readonly role: Role } | null
  }
}

/**
 * Every route must say who may use it, or it cannot be registered; one hook holds all of them to it, before
 * the body is read. A garden that somebody is no member of is as good as none: the answer does not tell that
 * it exists.
 */
export function useAccess(app: FastifyInstance, shared: Shared): void {
  const { pool, accounts, limits, throttle } = shared
  app.decorateRequest('signedIn', null)
  app.decorateRequest('garden', null)
  app.decorate('routeTable', [])
  app.addHook('onRoute', (route) => {
    const access = route.config?.access
    if (access === undefined) {
      throw new Error(`Route ${String(route.method)} ${route.url} does not say who may use it`)
    }
    for (const method of [route.method].flat()) app.routeTable.push({ method, url: route.url, access })
  })
  app.addHook('onRequest', async (request) => {
    const access = request.routeOptions.config.access ?? 'public'
    const token = request.cookies[SESSION_COOKIE]
    if (request.routeOptions.config.isUncounted !== true)
      await throttle.take('requests from', addressKey(request.ip), limits.requests)
    request.signedIn = token ? await findSession(accounts, hashToken(token)) : null
    if (request.signedIn && !request.signedIn.isDemo)
      await throttle.take('requests of', request.signedIn.accountId, limits.requests)
    if (access === 'public') return
    if (!request.signedIn) throw new AppError('session/required', 'Sign in first')
    requireWriter(request, request.signedIn)
    if (access !== 'account') request.garden = await requireRole(pool, request, request.signedIn, access)
  })
}

/**
 * A window may be older than the session: another one of the same browser has signed somebody else in since. What it
 * writes is its writer's. Pages of before do not say whose they are.
 */
function requireWriter(request: FastifyRequest, { accountId }: SignedIn): void {
  const writer = request.headers[WRITER_HEADER]
  if (['GET', 'HEAD'].includes(request.method) || writer === undefined || writer === accountId) return
  throw new AppError('session/other-account', 'Somebody else is signed in here by now; nothing was written')
}

async function requireRole(pool: Shared['pool'], request: FastifyRequest, signedIn: SignedIn, needed: Role) {
  const { gardenId } = request.params as { gardenId?: string }
  const role = idSchema.safeParse(gardenId).success
    ? await findRole(pool, gardenId!, signedIn.accountId)
    : null
  if (!role) throw new AppError('garden/not-found', 'There is no such garden for you')
  if (roles.indexOf(role) < roles.indexOf(needed)) {
    throw new AppError('garden/not-allowed', `Only a ${needed} of this garden may do that; you are a ${role}`)
  }
  return { id: gardenId!, role }
}

/** The account and garden that the hook has let in; for routes whose access asks for them. */
export function caller(request: FastifyRequest): { accountId: string; gardenId: string } {
  if (!request.signedIn || !request.garden) throw new Error('caller() on a route without garden access')
  return { accountId: request.signedIn.accountId, gardenId: request.garden.id }
}
