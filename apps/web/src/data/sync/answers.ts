/** What came back for a request: nothing of ours, or an answer of the API in its own words. */
export type Reply =
  | { readonly kind: 'none' }
  | {
      readonly kind: 'ours'
      readonly status: number
      readonly body: unknown
      readonly retryAfterS: number | null
    }

export interface Reason {
  readonly code: string
  readonly message: string
  readonly fields?: readonly { readonly path: string; readonly message: string }[]
}

/**
 * What an answer means for what was sent. Only `refused` says that it never will be taken as it is; a server
 * that is away, busy or failing, a session that is over, a right that was withdrawn say nothing about the
 * thing itself.
 */
export type Meaning =
  | { readonly is: 'taken' }
  | { readonly is: 'away' }
  | { readonly is: 'signed-out' }
  | { readonly is: 'later'; readonly afterS: number | null }
  | { readonly is: 'too-much'; readonly reason: Reason }
  | { readonly is: 'held'; readonly reason: Reason }
  | { readonly is: 'refused'; readonly reason: Reason }
  | { readonly is: 'clashed'; readonly current: { readonly version: number; readonly savedBy: string } }

/** Answers that name something which may be on its way still, or come back. */
const HELD_CODES = [
  'document/unknown-place',
  'document/unknown-file',
  'document/newer-version',
  'garden/not-found',
  'route/not-found',
]

export function meaningOf(reply: Reply): Meaning {
  if (reply.kind === 'none') return { is: 'away' }
  const { status, body, retryAfterS } = reply
  if (status >= 200 && status < 300) return { is: 'taken' }
  const error = (body as { error?: Reason & { current?: unknown } } | null)?.error
  const { code = 'server/failed', message = '', fields } = error ?? {}
  const reason = fields ? { code, message, fields } : { code, message }
  // Somebody else is signed in by now: it waits for its own writer, as where nobody is.
  if (status === 401 || code === 'session/other-account') return { is: 'signed-out' }
  if (status === 408 || status === 425 || status === 429 || status >= 500 || status < 200)
    return { is: 'later', afterS: retryAfterS }
  if (status === 413 || status === 400) return { is: 'too-much', reason }
  if (status === 403 || HELD_CODES.includes(code)) return { is: 'held', reason }
  const current = error?.current as { version?: unknown; savedBy?: unknown } | undefined
  if (code === 'document/version-conflict' && typeof current?.version === 'number')
    return { is: 'clashed', current: { version: current.version, savedBy: String(current.savedBy ?? '') } }
  return { is: 'refused', reason }
}

export type EntryVerdict = { readonly answer: 'taken' } | ({ readonly answer: 'held' | 'refused' } & Reason)

/**
 * The answers to a batch of entries, one for each; null where the body is not that, whatever its status said.
 */
export function verdictsIn(body: unknown, count: number): readonly EntryVerdict[] | null {
  const answers = (body as { answers?: unknown } | null)?.answers
  if (!Array.isArray(answers) || answers.length !== count) return null
  const isVerdict = (one: unknown) =>
    ['taken', 'held', 'refused'].includes((one as EntryVerdict | null)?.answer ?? '')
  return answers.every(isVerdict) ? (answers as EntryVerdict[]) : null
}
