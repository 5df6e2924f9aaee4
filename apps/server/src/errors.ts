import { errorStatus } from '@klados/contract'
import type { ErrorCode, ErrorReply } from '@klados/contract'
import type { FastifyError, FastifyInstance } from 'fastify'
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod'

/** A refusal with a code of the contract. `current` carries the stored document of a version conflict. */
export class AppError extends Error {
  override readonly name = 'AppError'
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly current?: unknown,
  ) {
    super(message)
  }
}

/** Turns whatever is thrown into the one error shape; only what nobody foresaw becomes a 500, and is logged. */
export function useErrorShape(app: FastifyInstance): void {
  app.setErrorHandler<FastifyError & { code?: string }>((error, request, reply) => {
    const { code, body } = describe(error)
    const status = errorStatus[code]
    if (status >= 500) request.log.error(error)
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

function describe(error: Error & { code?: string; statusCode?: number }): {
  code: ErrorCode
  body: ErrorReply
} {
  if (error instanceof AppError) {
    return refusal(error.code, error.message, error.current === undefined ? {} : { current: error.current })
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
  if (error.statusCode === 429)
    return refusal('request/too-many', 'Too many tries; wait a minute and try again')
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

/** Connection refused or lost, or the database shutting down or starting up (classes 08 and 57P). */
function isDatabaseAway(error: Error & { code?: string }): boolean {
  return (
    /^(08...|57P..|ECONNREFUSED|ECONNRESET|EPIPE)$/.test(error.code ?? '') ||
    /Connection terminated|timeout exceeded when trying to connect/.test(error.message)
  )
}
