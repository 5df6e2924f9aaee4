import type { ErrorReply } from '@klados/contract'
import { ACCOUNT_HEADER, API_HEADER, API_VERSION, LINES_TYPE, WRITER_HEADER } from '@klados/contract/limits'
import { forgetEarly, takeEarly } from './early.ts'
import { createGate } from './gate.ts'
import { send } from './send.ts'
import type { Answer } from './send.ts'
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

/** How the server was met last: it answered, gave no answer, or asked to be left alone for a while. */
export type Met = 'reached' | 'away' | 'busy'
type Listener = (met: Met) => void
const listeners = new Set<Listener>()
export function onMet(listener: Listener): () => void {
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
const accountListeners = new Set<(accountId: string | null) => void>()
/** Called with whose session the server answered under, which another window may have changed. */
export function onAccount(listener: (accountId: string | null) => void): void {
  accountListeners.add(listener)
}
let writerHere: () => string | null = () => null
/** Says under whose account this window writes, for all that says nothing else. */
export function setWriter(writer: () => string | null): void {
  writerHere = writer
}
const tell = (met: Met) => listeners.forEach((listener) => listener(met))

const gate = createGate(() => performance.now())
/** How long the server has asked this window to wait from now on. */
export const busyMs = (): number => gate.waitMs()

let isShut = false
/** While somebody else is signed in here nothing goes out in the name of who is at this window; only who it is, is asked. */
export function shutRequests(shut: boolean): void {
  isShut = shut
}
const WHO = '/session'

const later = (waitMs: number): Reply => ({
  kind: 'ours',
  status: 503,
  body: { error: { code: 'server/busy', message: 'The server has asked for a moment' } },
  retryAfterS: Math.max(1, Math.ceil(waitMs / 1000)),
})

/** Sends one request to the API; answers its JSON, or its text where it is that, or throws `Refusal` or `ServerAway`. */
export async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const reply = await ask(method, path, body)
  if (reply.kind === 'none') throw new ServerAway('The server does not answer')
  const { status, body: json } = reply
  if (status >= 200 && status < 300) return json as T
  const error = (json as Partial<ErrorReply> | null)?.error
  throw new Refusal(status, error ?? { code: 'server/failed', message: String(status) })
}

interface How {
  /** Whose it is, where that need not be who is at this window. */
  readonly writer?: string | null
  /** Beside all else: what the server says of it concerns it alone. */
  readonly isAside?: boolean
  readonly headers?: Readonly<Record<string, string>>
}

/**
 * Sends one request and tells what came back; never throws. An answer that does not carry our mark is none:
 * the sign-in page of a guest network answers 200 to anything, and a proxy may refuse in its own name.
 */
export async function ask(method: string, path: string, body?: unknown, how: How = {}): Promise<Reply> {
  if (isShut && path !== WHO) return { kind: 'none' }
  const { isAside = false } = how
  if (!isAside && !gate.enter()) return later(gate.waitMs())
  if (method !== 'GET') forgetEarly()
  const early = method === 'GET' ? await takeEarly(path) : null
  const sent = early?.sentMs ?? Date.now()
  const content = contentOf(body)
  const writer = method === 'GET' ? null : (how.writer ?? writerHere())
  const headers = {
    ...content.headers,
    ...how.headers,
    ...(writer === null ? {} : { [WRITER_HEADER]: writer }),
  }
  let answer: Answer
  let json: unknown = null
  try {
    const response = early ? Promise.resolve(early.response) : null
    answer = await send(`/api${path}`, { ...content, method, headers }, response)
    if (!answer.headers.has(API_HEADER)) throw new TypeError('not an answer of the API')
    versionListeners.forEach((listener) => listener(answer.headers.get(API_HEADER) === API_VERSION))
    const isText = answer.headers.get('content-type')?.startsWith(LINES_TYPE) ?? false
    json = isText ? answer.text : answer.text === '' ? null : JSON.parse(answer.text)
  } catch {
    if (isAside) return { kind: 'none' }
    gate.lost()
    tell('away')
    return { kind: 'none' }
  }
  const retryAfterS = Number(answer.headers.get('retry-after'))
  const reply: Reply = {
    kind: 'ours',
    status: answer.status,
    body: json,
    retryAfterS: retryAfterS > 0 ? retryAfterS : null,
  }
  if (answer.status !== BUSY) gate.passed()
  else if (!isAside) gate.later(reply.retryAfterS)
  if (answer.status !== BUSY || !isAside) tell(answer.status === BUSY ? 'busy' : 'reached')
  hearClock(answer.headers.get('date'), sent)
  const account = answer.headers.get(ACCOUNT_HEADER)
  if (account !== null) accountListeners.forEach((listener) => listener(account))
  if ((json as Partial<ErrorReply> | null)?.error?.code === 'session/required')
    signedOutListeners.forEach((listener) => listener())
  return reply
}
const BUSY = 503

interface Content {
  readonly body?: Blob | string
  readonly headers?: Readonly<Record<string, string>>
}

function contentOf(body: unknown): Content {
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
