import type { ErrorReply } from '@klados/contract'

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

/** The server could not be reached, or its database could not: worth trying again later with nothing changed. */
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
const tell = (isReachable: boolean) => listeners.forEach((listener) => listener(isReachable))

/** Sends one request to the API; answers its JSON, or throws `Refusal` or `ServerAway`. */
export function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const json = { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }
  return send<T>(path, { method, ...(body === undefined ? {} : json) })
}

/** Sends a photo as it is, under its own media type. */
export function sendFile<T>(path: string, file: File): Promise<T> {
  return send<T>(path, { method: 'PUT', body: file, headers: { 'content-type': file.type } })
}

async function send<T>(path: string, init: RequestInit): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, init)
  } catch {
    tell(false)
    throw new ServerAway('The server does not answer')
  }
  if (response.status >= 502 && response.status <= 504) {
    tell(false)
    throw new ServerAway('The server does not answer')
  }
  tell(true)
  if (response.status === 204) return undefined as T
  const json: unknown = await response.json().catch(() => null)
  if (response.ok) return json as T
  const error = (json as Partial<ErrorReply> | null)?.error
  if (error?.code === 'session/required') signedOutListeners.forEach((listener) => listener())
  throw new Refusal(response.status, error ?? { code: 'server/failed', message: response.statusText })
}
