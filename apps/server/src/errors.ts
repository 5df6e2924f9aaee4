import { errorStatus } from '@klados/contract'
import type { ErrorCode, ErrorReply } from '@klados/contract'
import type { FastifyError, FastifyInstance } from 'fastify'
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod'

interface ErrorDetails {
  /** The stored document of a version conflict. */
  readonly current?: unknown
  /** Gardens that are in the way, by their names. */
  readonly gardens?: readonly string[]
  readonly retryAfterS?: number
}

/** A refusal with a code of the contract. */
export class AppError extends Error {
  override readonly name = 'AppError'
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly details: ErrorDetails = {},
  ) {
    super(message)
  }
}

export const emailTaken = (): AppError =>
  new AppError('account/email-taken', 'Somebody has signed up with this address; sign in instead')

/** What is not known yet when nobody says when to come back. */
const BUSY_RETRY_S = 5

/**
 * Turns whatever is thrown into the one error shape; only what nobody foresaw becomes a 500, and is logged.
 */
export function useErrorShape(app: FastifyInstance): void {
  app.setErrorHandler<FastifyError & { code?: string }>((error, request, reply) => {
    const { code, body } = describeError(error)
    const status = errorStatus[code]
    // What is refused with a code of ours was foreseen, a server that is busy too.
    if (status >= 500 && !(error instanceof AppError)) request.log.error(error)
    const retryAfterS = error instanceof AppError ? error.details.retryAfterS : undefined
    if (retryAfterS !== undefined || status === 503)
      void reply.header('retry-after', retryAfterS ?? BUSY_RETRY_S)
    return reply.status(status).send(body)
  })
  app.setNotFoundHandler((request, reply) => {
    const { body } = refusal(
      'route/not-found',
      `There is nothing at ${request.method} ${request.url.slice(0, 200)}`,
    )
    return reply.status(404).send(body)
  })
}

function refusal(
  code: ErrorCode,
  message: string,
  more: Omit<ErrorReply['error'], 'code' | 'message'> = {},
): { code: ErrorCode; body: ErrorReply } {
  return { code, body: { error: { code, message, ...more } } }
}

/** The code and the body that somebody is answered with for what was thrown. */
export function describeError(error: Error & { code?: string; statusCode?: number }): {
  code: ErrorCode
  body: ErrorReply
} {
  if (error instanceof AppError) {
    const { current, gardens } = error.details
    return refusal(error.code, error.message, {
      ...(current === undefined ? {} : { current }),
      ...(gardens ? { gardens: [...gardens] } : {}),
    })
  }
  if (hasZodFastifySchemaValidationErrors(error)) {
    const fields = error.validation.map((issue) => ({
      path: issue.instancePath.replace(/^\//, '').replaceAll('/', '.'),
      message: issue.message ?? 'is not valid',
    }))
    return refusal('request/malformed', 'Some fields are missing or not valid', { fields })
  }
  if (error.statusCode === 413)
    return refusal('request/too-large', 'The request is larger than the server takes')
  if (error.statusCode === 415) return refusal('request/unsupported-type', 'Send JSON')
  // PostgreSQL class 22, data exception: text that no database can hold, such as a NUL character.
  if (/^22[0-9A-Z]{3}$/.test(error.code ?? '')) {
    return refusal('request/malformed', 'The request holds text that cannot be stored')
  }
  if (isDatabaseAway(error))
    return refusal('server/unavailable', 'The database does not answer; try again shortly')
  if (error.statusCode !== undefined && error.statusCode >= 400 && error.statusCode < 500) {
    return refusal('request/malformed', 'The request could not be read')
  }
  return refusal('server/failed', 'Something went wrong here; nothing was changed')
}

/**
 * Connection refused or lost, the database shutting down, starting up or full (classes 08, 57P and 53), or a
 * statement or a transaction that it cut short (57014, 25P03, 40001, 40P01): worth trying again with nothing
 * changed.
 */
function isDatabaseAway(error: Error & { code?: string }): boolean {
  return (
    /^(08...|57P..|53...|57014|25P0[34]|40001|40P01|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT)$/.test(
      error.code ?? '',
    ) ||
    /Connection terminated|timeout exceeded when trying to connect|not queryable|Client was closed/.test(
      error.message,
    )
  )
}
