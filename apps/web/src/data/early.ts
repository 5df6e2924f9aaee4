import { COPIED_ACCOUNT_KEY } from './copy/account-key.ts'
import { SMALL } from './copy/fold-rules.ts'
import { AREAS, pathOf } from './copy/paths.ts'

/** A question that was put before anybody waited for its answer. */
interface Early {
  readonly sentMs: number
  readonly response: Promise<Response | null>
}
const asked = new Map<string, Early>()
/** What was told so long ago is asked for anew. */
const FRESH_MS = 10_000

const ask = (path: string) => {
  const response = fetch(`/api${path}`).catch(() => null)
  asked.set(path, { sentMs: Date.now(), response })
}

/** What stands in a garden, as a device asks that has nothing of it. */
export const standingPath = (gardenId: string): string => `/gardens/${gardenId}/standing?small=${SMALL}`

/**
 * Asks for what the first screen will ask for, while what draws it is still on its way: who is here, and where nothing
 * lies on this device all of the garden that the address names.
 */
export function askEarly(pathname: string): void {
  ask('/session')
  const [, gardenId] = /^\/g\/([0-9a-f-]{36})(?:\/|$)/.exec(pathname) ?? []
  if (!gardenId || localStorage.getItem(COPIED_ACCOUNT_KEY) !== null) return
  ask(standingPath(gardenId))
  for (const area of AREAS) ask(pathOf(area, gardenId))
}

/** The answer to a question that was put early; once, and only where it was answered well. */
export async function takeEarly(path: string): Promise<{ sentMs: number; response: Response } | null> {
  const early = asked.get(path)
  asked.delete(path)
  if (!early || Date.now() - early.sentMs > FRESH_MS) return null
  const response = await early.response
  return response?.ok ? { sentMs: early.sentMs, response } : null
}

/** Whoever writes or signs in or out may have changed what was told. */
export const forgetEarly = (): void => asked.clear()
