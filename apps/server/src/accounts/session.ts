import { createHash, randomBytes } from 'node:crypto'
import type { FastifyReply, FastifyRequest } from 'fastify'

export const SESSION_COOKIE = 'klados_session'
const SESSION_DAYS = 30
const TOKEN_BYTES = 32

export function newToken(): string {
  return randomBytes(TOKEN_BYTES).toString('base64url')
}

/** What the database keeps of a token. The token is random, so a plain hash cannot be run backwards. */
export function hashToken(token: string): Buffer {
  return createHash('sha256').update(token).digest()
}

export function sessionExpiry(now = Date.now()): Date {
  return new Date(now + SESSION_DAYS * 86_400_000)
}

/**
 * `secure` where the request came over TLS, to us or to a proxy that we trust; on plain HTTP the browser
 * would drop it.
 */
export function setSessionCookie(request: FastifyRequest, reply: FastifyReply, token: string): void {
  void reply.setCookie(SESSION_COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: request.protocol === 'https',
    maxAge: SESSION_DAYS * 86_400,
  })
}

export function clearSessionCookie(reply: FastifyReply): void {
  void reply.clearCookie(SESSION_COOKIE, { path: '/' })
}
