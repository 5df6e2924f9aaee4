import { createHash, randomBytes } from 'node:crypto'
import type { FastifyReply, FastifyRequest } from 'fastify'
import type { Pool } from 'pg'
import { agentOf } from './device.ts'
import { insertSession } from './queries.ts'

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

/** When a session that is opened now is over. */
const expiryIn = (days: number) => new Date(Date.now() + days * 86_400_000)

/** Signs an account in at the caller's browser. */
export async function openSession(
  accounts: Pool,
  request: FastifyRequest,
  reply: FastifyReply,
  accountId: string,
  days = SESSION_DAYS,
): Promise<void> {
  const token = newToken()
  await insertSession(accounts, {
    tokenHash: hashToken(token),
    accountId,
    expiresAt: expiryIn(days),
    agent: agentOf(request.headers['user-agent']),
  })
  setSessionCookie(request, reply, token, days)
}

/**
 * `secure` where the request came over TLS, to us or to a proxy that we trust; on plain HTTP the browser
 * would drop it.
 */
function setSessionCookie(request: FastifyRequest, reply: FastifyReply, token: string, days: number): void {
  void reply.setCookie(SESSION_COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: request.protocol === 'https',
    maxAge: days * 86_400,
  })
}

export function clearSessionCookie(reply: FastifyReply): void {
  void reply.clearCookie(SESSION_COOKIE, { path: '/' })
}
