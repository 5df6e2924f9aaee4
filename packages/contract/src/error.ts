import { z } from 'zod'

/** Every code that the server answers with, and its HTTP status. */
export const errorStatus = {
  'request/malformed': 400,
  'request/too-large': 413,
  'request/unsupported-type': 415,
  'request/not-acceptable': 406,
  'request/foreign-origin': 403,
  'request/too-many': 429,
  'route/not-found': 404,
  'session/required': 401,
  'session/wrong-credentials': 401,
  'session/other-account': 409,
  'account/email-taken': 409,
  'account/weak-password': 422,
  'account/demo': 403,
  'account/sole-owner': 409,
  'account/no-such-link': 404,
  'account/no-such-code': 404,
  'account/no-such-session': 404,
  'garden/not-found': 404,
  'garden/not-allowed': 403,
  'garden/last-owner': 409,
  'garden/taken': 409,
  'garden/too-many': 403,
  'garden/full': 403,
  'garden/demo': 403,
  'member/not-yours-to-reset': 403,
  'member/no-such-account': 404,
  'member/already': 409,
  'member/no-such-invitation': 404,
  'demo/not-here': 404,
  'demo/full': 503,
  'demo/gone': 404,
  'document/not-found': 404,
  'document/version-conflict': 409,
  'document/unknown-place': 422,
  'document/newer-version': 422,
  'document/unknown-file': 422,
  'file/not-found': 404,
  'file/not-an-image': 422,
  'file/unsupported-kind': 422,
  'file/too-many-pixels': 422,
  'file/too-slow': 422,
  'file/in-use': 409,
  'exchange/unknown-version': 422,
  'exchange/missing-reference': 422,
  'exchange/damaged': 422,
  'exchange/too-large': 413,
  'exchange/other-garden': 409,
  'journal/unknown-photo': 422,
  'journal/unknown-place': 422,
  'journal/unknown-plant': 422,
  'journal/unknown-entry': 422,
  'journal/unknown-kind': 422,
  'journal/too-late': 422,
  'journal/other-place': 422,
  'journal/supersedes-itself': 422,
  'server/busy': 503,
  'server/unavailable': 503,
  'server/failed': 500,
} as const

export type ErrorCode = keyof typeof errorStatus

/**
 * The one shape of every refusal: what to change, where, and for a version conflict what is stored. People read the code in
 * their own words; the message is for whoever calls the API by hand.
 */
export const errorReplySchema = z.object({
  error: z.object({
    code: z.string(),
    message: z.string(),
    fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
    current: z.unknown().optional(),
    /** The gardens that are in the way, by their names. */
    gardens: z.array(z.string()).optional(),
  }),
})
export type ErrorReply = z.infer<typeof errorReplySchema>
