import type { ErrorReply } from '@klados/contract'
import { API_HEADER, API_VERSION, LINES_TYPE } from '@klados/contract/limits'
import { forgetEarly, takeEarly } from './early.ts'
import type { Reply } from './sync/answers.ts'

/** A refusal of the server, in its one shape. */
export class Refusal extends Error {
  override readonly name = 'Refusal'
  constructor(
    readonly status: number,
    readonly reply: ErrorReply['error'],
  ) {
    super(reply.message)
  }
}

/**
 * The server could not be reached, or its database could not: worth trying again later with nothing changed.
 */
export class ServerAway extends Error {
  override readonly name = 'ServerAway'
}

type Listener = (isReachable: boolean) => void
const listeners = new Set<Listener>()
export function onReachable(listener: Listener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
const signedOutListeners = new Set<() => void>()
/** Called when the server says that the session is over. */
export function onSignedOut(listener: () => void): void {
  signedOutListeners.add(listener)
}
const versionListeners = new Set<(isOurs: boolean) => void>()
/** Called with whether the server speaks the version of the API that this page was made for. */
export function onVersion(listener: (isOurs: boolean) => void): void {
  versionListeners.add(listener)
}
const skewListeners = new Set<(skewMs: number) => void>()
/** Called with how far this device's clock is ahead of the server's, whenever both are known. */
export function onSkew(listener: (skewMs: number) => void): void {
  skewListeners.add(listener)
}
const tell = (isReachable: boolean) => listeners.forEach((listener) => listener(isReachable))

/** A line that gives no answer for so long gives none. */
const TIMEOUT_MS = 60_000

/** Sends one request to the API; answers its JSON, or its text where it is that, or throws `Refusal` or `ServerAway`. */
export async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const reply = await ask(method, path, body)
  if (reply.kind === 'none') throw new ServerAway('The server does not answer')
  const { status, body: json } = reply
  if (status >= 502 && status <= 504) throw new ServerAway('The server does not answer')
  if (status >= 200 && status < 300) return json as T
  const error = (json as Partial<ErrorReply> | null)?.error
  throw new Refusal(status, error ?? { code: 'server/failed', message: String(status) })
}

/**
 * Sends one request and tells what came back; never throws. An answer that does not carry our mark is none:
 * the sign-in page of a guest network answers 200 to anything, and a proxy may refuse in its own name.
 */
export async function ask(method: string, path: string, body?: unknown): Promise<Reply> {
  if (method !== 'GET') forgetEarly()
  const early = method === 'GET' ? await takeEarly(path) : null
  const sent = early?.sentMs ?? Date.now()
  let response: Response
  let json: unknown = null
  try {
    const signal = AbortSignal.timeout(TIMEOUT_MS)
    response = early?.response ?? (await fetch(`/api${path}`, { method, ...contentOf(body), signal }))
    if (!response.headers.has(API_HEADER)) throw new TypeError('not an answer of the API')
    versionListeners.forEach((listener) => listener(response.headers.get(API_HEADER) === API_VERSION))
    const text = response.status === 204 ? '' : await response.text()
    const isText = response.headers.get('content-type')?.startsWith(LINES_TYPE) ?? false
    json = isText ? text : text === '' ? null : JSON.parse(text)
  } catch {
    tell(false)
    return { kind: 'none' }
  }
  const { status, headers } = response
  tell(status < 502 || status > 504)
  hearClock(headers.get('date'), sent)
  if ((json as Partial<ErrorReply> | null)?.error?.code === 'session/required')
    signedOutListeners.forEach((listener) => listener())
  const retryAfterS = Number(headers.get('retry-after'))
  return { kind: 'ours', status, body: json, retryAfterS: retryAfterS > 0 ? retryAfterS : null }
}

function contentOf(body: unknown): RequestInit {
  if (body === undefined) return {}
  if (body instanceof Blob) return { body, headers: { 'content-type': body.type } }
  return { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }
}

/**
 * The server's clock has a grain of a second; the answer was written somewhere between the sending and now.
 */
function hearClock(date: string | null, sentMs: number): void {
  const serverMs = Date.parse(date ?? '')
  if (!Number.isFinite(serverMs)) return
  const ahead = sentMs - (serverMs + 1000)
  const behind = serverMs - Date.now()
  skewListeners.forEach((listener) => listener(ahead > 0 ? ahead : behind > 0 ? -behind : 0))
}
