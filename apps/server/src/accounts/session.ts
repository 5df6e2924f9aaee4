import { createHash, randomBytes } from 'node:crypto'
import type { FastifyReply } from 'fastify'

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

/** `secure` is left out: the server speaks plain HTTP on the grower's own machine; a proxy that adds TLS may add it. */
export function setSessionCookie(reply: FastifyReply, token: string): void {
  void reply.setCookie(SESSION_COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    maxAge: SESSION_DAYS * 86_400,
  })
}

export function clearSessionCookie(reply: FastifyReply): void {
  void reply.clearCookie(SESSION_COOKIE, { path: '/' })
}
